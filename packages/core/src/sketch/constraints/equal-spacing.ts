/** Points, centres or parallel lines follow each other at one spacing. */
import { evenLines, evenPoints } from '../equations/spacing.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse } from './operands.ts';

export const equalSpacing = declareConstraint('equal_spacing', {
  equations(id, { of }, on) {
    const lines = of.map((e) => on.slots.lines.get(e));
    if (lines.every((l) => l)) return lines.slice(2).map((l, i) => evenLines(id, lines[i]!, lines[i + 1]!, l!));
    const places = of.map((e) => on.place(e) ?? refuse('Equal spacing needs points, circles, or parallel lines.'));
    return places.slice(2).flatMap((p, i) => evenPoints(id, places[i]!, places[i + 1]!, p));
  },
});
