/**
 * Two lines of the same length.
 *   r = |b₁ − a₁| − |b₂ − a₂|; derivatives as for distances.
 */
import type { Equation, LineSlots } from '../solver/equation.ts';
import { pointDistance } from './distance.ts';

export function equalLength(owner: string, one: LineSlots, other: LineSlots): Equation {
  const first = pointDistance(owner, one.from, one.to, 0);
  const second = pointDistance(owner, other.from, other.to, 0);
  const part = new Float64Array(4);
  return {
    owner,
    slots: [...first.slots, ...second.slots],
    evaluate(v, g) {
      const l1 = first.evaluate(v, g);
      const l2 = second.evaluate(v, part);
      for (let i = 0; i < 4; i++) g[4 + i] = -part[i]!;
      return l1 - l2;
    },
  };
}
