/** A point, or all of a curve, stays where it is drawn: its unknowns are pinned. */
import type { PointSlots } from '../solver/equation.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse } from './operands.ts';

export const fixed = declareConstraint('fixed', {
  merge(_, { of }, on) {
    const id = of[0]!;
    const { points, lines, rounds, ellipses, splines } = on.slots;
    const pair = (p: PointSlots) => [p.x, p.y];
    const point = points.get(id);
    if (point) return on.hold(pair(point));
    const line = lines.get(id);
    if (line) return on.hold([...pair(line.from), ...pair(line.to)]);
    const round = rounds.get(id);
    if (round)
      return on.hold([...pair(round.center), ...(round.ends.length > 0 ? round.ends.flatMap(pair) : [round.radius])]);
    const ellipse = ellipses.get(id);
    if (ellipse) return on.hold([...pair(ellipse.center), ...pair(ellipse.major), ellipse.minor]);
    const spline = splines.get(id);
    return spline ? on.hold(spline.points.flatMap(pair)) : refuse('Only a point or a curve can be fixed.');
  },
});
