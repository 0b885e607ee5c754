/** Length of a line; distance of two places, of a place and a line, of two lines; or twice that, across a centre line. */
import { pointDistance, pointLineDistance, sideOf, withRadius } from '../equations/distance.ts';
import { lineIn, radiusIn, separation } from '../drawn.ts';
import { distance as apart } from '../regions/primitives.ts';
import type { Equation } from '../solver/equation.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse, type Equating } from './operands.ts';

const MESSAGE = 'A distance needs a line, two points, a point and a line, or two parallel lines.';

export const distance = declareConstraint('distance', {
  equations(id, { of, rims }, on) {
    const d = on.length(id);
    if (of.length === 1) {
      const { from, to } = on.line(of[0]!, MESSAGE);
      return [pointDistance(id, from, to, d)];
    }
    const radii = of.flatMap((e, i) => {
      const round = on.slots.rounds.get(e);
      const rim = rims?.[i] ?? 'center';
      return round && rim !== 'center' ? [{ slot: round.radius, far: rim === 'far' }] : [];
    });
    return [withRadius(id, centerDistance(id, of, d, on), radii, on.v, d)];
  },

  reads({ of, rims = [] }, sketch) {
    if (of.length === 1) {
      const line = lineIn(sketch, of[0]!);
      return line ? apart(...line) : 0;
    }
    const shift = of.reduce((sum, e, i) => {
      if (!rims[i] || rims[i] === 'center') return sum;
      return sum + (rims[i] === 'far' ? 1 : -1) * radiusIn(sketch, e);
    }, 0);
    return Math.abs(separation(sketch, of) + shift);
  },

  calls: ({ of }) => (of.length === 1 ? 'length' : 'distance'),
  ofLength: ({ of }, curve) => of.length === 1 && of[0] === curve,
});

export const across = declareConstraint('across', {
  equations: (id, { of }, on) => [centerDistance(id, of, on.length(id) / 2, on)],
  reads: ({ of }, sketch) => 2 * separation(sketch, of),
});

/** A circle stands for its centre. */
function centerDistance(id: string, of: readonly string[], d: number, on: Equating): Equation {
  const points = of.map((e) => on.place(e));
  const lines = of.map((e) => on.slots.lines.get(e));
  if (points[0] && points[1]) return pointDistance(id, points[0], points[1], d);
  const line = lines[0] ?? lines[1];
  const point = points[0] ?? points[1] ?? lines[1]?.from;
  if (!line || !point) refuse(MESSAGE);
  return pointLineDistance(id, point, line, d, sideOf(on.v, point, line));
}
