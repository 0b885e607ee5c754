/** Rounds of one radius are one unknown; lines of one length have an equation. */
import { equalLength } from '../equations/equal-length.ts';
import { declareConstraint } from './constraint-kind.ts';

export const equal = declareConstraint('equal', {
  merge(_, { of }, on) {
    const [a, b] = of.map((e) => on.slots.rounds.get(e)?.radius ?? on.slots.ellipses.get(e)?.minor);
    return a === undefined || b === undefined ? null : [on.same(a, b)];
  },

  equations(id, { of }, on) {
    const both = 'Equal needs two lines, or two circles or arcs.';
    return [equalLength(id, on.line(of[0]!, both), on.line(of[1]!, both))];
  },
});
