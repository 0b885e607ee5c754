/**
 * Relations of two lines' directions θ₁, θ₂, weighed by DIRECTION_ARM (A):
 *   parallel       r = A (θ₂ − θ₁ − kπ), k the nearest
 *   perpendicular  r = A (θ₂ − θ₁ − π/2 − kπ), k the nearest
 *   angle α        r = A wrap(θ₂ − θ₁ − α)
 *   ∂θ/∂b = (−dy, dx)/|d|² for a line a→b with d = b − a; ∂θ/∂a is its negative.
 * Degenerates when a line has no length.
 */
import { DIRECTION_ARM, NO_LENGTH, type Equation, type LineSlots } from '../solver/equation.ts';

type Relation = (turn: number) => { residual: number; slope: number };

function directionEquation(owner: string, one: LineSlots, other: LineSlots, relation: Relation): Equation {
  const { from: a, to: b } = one;
  const { from: c, to: d } = other;
  return {
    owner,
    slots: [a.x, a.y, b.x, b.y, c.x, c.y, d.x, d.y],
    evaluate(v, g) {
      const x1 = v[b.x]! - v[a.x]!;
      const y1 = v[b.y]! - v[a.y]!;
      const x2 = v[d.x]! - v[c.x]!;
      const y2 = v[d.y]! - v[c.y]!;
      const { residual, slope } = relation(Math.atan2(x1 * y2 - y1 * x2, x1 * x2 + y1 * y2));
      const s1 = (slope * DIRECTION_ARM) / Math.max(x1 * x1 + y1 * y1, NO_LENGTH);
      const s2 = (slope * DIRECTION_ARM) / Math.max(x2 * x2 + y2 * y2, NO_LENGTH);
      g[0] = -y1 * s1;
      g[1] = x1 * s1;
      g[2] = y1 * s1;
      g[3] = -x1 * s1;
      g[4] = y2 * s2;
      g[5] = -x2 * s2;
      g[6] = -y2 * s2;
      g[7] = x2 * s2;
      return DIRECTION_ARM * residual;
    },
  };
}

export const parallel = (owner: string, one: LineSlots, other: LineSlots): Equation =>
  directionEquation(owner, one, other, (turn) => ({ residual: toNearest(turn), slope: 1 }));

export const perpendicular = (owner: string, one: LineSlots, other: LineSlots): Equation =>
  directionEquation(owner, one, other, (turn) => ({ residual: toNearest(turn - Math.PI / 2), slope: 1 }));

/** `angle` in rad, from `one` counter-clockwise to `other`. */
export const angleBetween = (owner: string, one: LineSlots, other: LineSlots, angle: number): Equation =>
  directionEquation(owner, one, other, (turn) => ({ residual: wrap(turn - angle), slope: 1 }));

/** What an angle lacks to the nearest multiple of half a turn. */
const toNearest = (angle: number) => angle - Math.PI * Math.round(angle / Math.PI);

/** Into (−π, π]. */
export function wrap(angle: number): number {
  return angle - 2 * Math.PI * Math.ceil((angle - Math.PI) / (2 * Math.PI));
}
