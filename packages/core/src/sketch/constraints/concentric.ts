/** Two rounds have one centre. */
import { declareConstraint } from './constraint-kind.ts';
import { refuse } from './operands.ts';

export const concentric = declareConstraint('concentric', {
  merge(_, { of }, on) {
    const [a, b] = of.map((e) => on.center(e) ?? refuse('Concentric needs two circles, arcs or ellipses.'));
    return on.samePlace(a!, b!);
  },
});
