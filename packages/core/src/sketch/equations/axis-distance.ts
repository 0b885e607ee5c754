/**
 * Distance along x or along y, on the side drawn.
 *   r = σ (q − p) − d
 * Linear; never degenerates.
 */
import type { Equation } from '../solver/equation.ts';

export function slotDifference(owner: string, p: number, q: number, d: number, sense: 1 | -1): Equation {
  return {
    owner,
    slots: [p, q],
    evaluate(v, g) {
      g[0] = -sense;
      g[1] = sense;
      return sense * (v[q]! - v[p]!) - d;
    },
  };
}

/** One slot has a given value: r = s − d. Serves radius, diameter and fixed points. */
export function slotValue(owner: string, slot: number, d: number): Equation {
  return {
    owner,
    slots: [slot],
    evaluate(v, g) {
      g[0] = 1;
      return v[slot]! - d;
    },
  };
}
