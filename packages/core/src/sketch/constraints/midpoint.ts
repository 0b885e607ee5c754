/** A point midway on a line. */
import { midpoint as midway } from '../equations/midpoint.ts';
import { declareConstraint } from './constraint-kind.ts';

export const midpoint = declareConstraint('midpoint', {
  equations(id, { of }, on) {
    const message = 'Midpoint needs a point and a line.';
    const line = on.line(of[1]!, message);
    return midway(id, on.point(of[0]!, message), line.from, line.to);
  },
  ofLength: ({ of }, curve) => of[1] === curve,
});
