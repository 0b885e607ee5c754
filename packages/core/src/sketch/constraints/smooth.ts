/** Two curves meet at a shared end with one direction and one bend. */
import { sameBend, sameDirection } from '../equations/contact.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse } from './operands.ts';

export const smooth = declareConstraint('smooth', {
  equations(id, { of }, on) {
    const [one, other] = on.twoCurves(of, 'Smooth needs two curves.');
    const shared = on.sharedPlace(of, one, other);
    if (!shared) refuse('Smooth needs two curves that share an end; make their ends coincident first.');
    return [sameDirection(id, one, shared[0], other, shared[1]), sameBend(id, one, shared[0], other, shared[1])];
  },
});
