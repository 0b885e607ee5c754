/**
 * Tangency. Which formula holds depends on how the curves meet:
 *   line–round     r = σ s − R, s the centre's signed distance from the line, on its drawn side
 *   round–round    r = |c₂ − c₁| − (R₁ + R₂) outside, |c₂ − c₁| − σ(R₁ − R₂) inside, as drawn
 *   sharing an end the first forms degenerate there (both gradients point along the
 *                  same normal), so the radius at the shared end is set square to the
 *                  line, or the two radii in line:
 *                  the perpendicular and parallel equations of directions
 */
import type { Equation, LineSlots, PointSlots, RoundSlots } from '../solver/equation.ts';
import { parallel, perpendicular } from './direction.ts';
import { pointDistance, pointLineDistance, sideOf } from './distance.ts';

const samePoint = (a: PointSlots, b: PointSlots) => a.x === b.x && a.y === b.y;

/** A point that both the ends of an arc and another curve's ends are. */
function sharedEnd(ends: readonly PointSlots[], others: readonly PointSlots[]): PointSlots | undefined {
  return ends.find((e) => others.some((o) => samePoint(e, o)));
}

export function tangentLineRound(owner: string, line: LineSlots, round: RoundSlots, v: Float64Array): Equation {
  const shared = sharedEnd(round.ends, [line.from, line.to]);
  if (shared) return perpendicular(owner, line, { from: round.center, to: shared });
  const distance = pointLineDistance(owner, round.center, line, 0, sideOf(v, round.center, line));
  return {
    owner,
    slots: [...distance.slots, round.radius],
    evaluate(values, g) {
      const s = distance.evaluate(values, g);
      g[6] = -1;
      return s - values[round.radius]!;
    },
  };
}

export function tangentRounds(owner: string, one: RoundSlots, other: RoundSlots, v: Float64Array): Equation {
  const shared = sharedEnd(one.ends, other.ends);
  if (shared) return parallel(owner, { from: one.center, to: shared }, { from: other.center, to: shared });
  const apart = Math.hypot(v[other.center.x]! - v[one.center.x]!, v[other.center.y]! - v[one.center.y]!);
  const r1 = v[one.radius]!;
  const r2 = v[other.radius]!;
  const outside = Math.abs(apart - (r1 + r2)) <= Math.abs(apart - Math.abs(r1 - r2));
  const s1 = outside || r1 >= r2 ? 1 : -1;
  const s2 = outside ? 1 : -s1;
  const distance = pointDistance(owner, one.center, other.center, 0);
  return {
    owner,
    slots: [...distance.slots, one.radius, other.radius],
    evaluate(values, g) {
      const d = distance.evaluate(values, g);
      g[4] = -s1;
      g[5] = -s2;
      return d - s1 * values[one.radius]! - s2 * values[other.radius]!;
    },
  };
}

/** A point on a circle or arc: r = |p − c| − R. */
export function pointOnRound(owner: string, p: PointSlots, round: RoundSlots): Equation {
  const distance = pointDistance(owner, round.center, p, 0);
  return {
    owner,
    slots: [...distance.slots, round.radius],
    evaluate(values, g) {
      const d = distance.evaluate(values, g);
      g[4] = -1;
      return d - values[round.radius]!;
    },
  };
}
