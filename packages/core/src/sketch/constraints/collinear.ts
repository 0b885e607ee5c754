/** Two lines lie on one straight line: both ends of the one are on the other. */
import { pointLineDistance } from '../equations/distance.ts';
import { declareConstraint } from './constraint-kind.ts';
import { samePoint } from './operands.ts';

export const collinear = declareConstraint('collinear', {
  equations(id, { of }, on) {
    const [a, b] = of.map((e) => on.line(e, 'Collinear needs two lines.'));
    // An end they already share is on the line anyway.
    const apart = [b!.from, b!.to].filter((p) => !samePoint(p, a!.from) && !samePoint(p, a!.to));
    return apart.map((p) => pointLineDistance(id, p, a!, 0, 1));
  },
});
