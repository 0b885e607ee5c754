/** Length along an arc. */
import { arcLength as along } from '../equations/contact.ts';
import { primitivesOfCurve } from '../regions/primitives.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse } from './operands.ts';

export const arcLength = declareConstraint('arc_length', {
  equations(id, { of }, on) {
    const round = on.slots.rounds.get(of[0]!);
    if (!round || round.ends.length === 0) refuse('An arc length needs an arc.');
    return [along(id, round, on.positive(id, 'An arc length'))];
  },
  reads({ of }, sketch) {
    const curve = sketch.curves[of[0]!];
    const [p] = curve ? primitivesOfCurve(sketch, of[0]!, curve) : [];
    return p?.kind === 'arc' ? p.radius * p.sweep : 0;
  },
  ofLength: ({ of }, curve) => of[0] === curve,
});
