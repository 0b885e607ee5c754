/** Height of a lettering's capitals: with its letters given, a length of its baseline. */
import { lineIn } from '../drawn.ts';
import { pointDistance } from '../equations/distance.ts';
import { letteringProportion } from '../lettering/lettering.ts';
import { distance } from '../regions/primitives.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse } from './operands.ts';

export const textHeight = declareConstraint('text_height', {
  equations(id, { of }, on) {
    const text = on.sketch.curves[of[0]!];
    if (text?.kind !== 'text') refuse('A text height needs a lettering.');
    const { from, to } = on.slots.lines.get(of[0]!)!;
    return [pointDistance(id, from, to, on.positive(id, 'A height') * letteringProportion(text.text))];
  },
  reads({ of }, sketch) {
    const [curve, line] = [sketch.curves[of[0]!], lineIn(sketch, of[0]!)];
    return curve?.kind === 'text' && line ? distance(...line) / letteringProportion(curve.text) : 0;
  },
  ofLength: ({ of }, curve) => of[0] === curve,
});
