/** Curves drawn again at one distance. */
import { lineIn, offLine, radiusIn } from '../drawn.ts';
import { slotDifference } from '../equations/axis-distance.ts';
import { parallel, perpendicular } from '../equations/direction.ts';
import { pointLineDistance, sideOf } from '../equations/distance.ts';
import { squareEnds } from '../equations/square-ends.ts';
import { endsOf } from '../schema.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse } from './operands.ts';

export const offset = declareConstraint('offset', {
  /** Lines keep both ends at the distance, rounds their centre and the difference of their radii; open ends stay square. */
  equations(id, { of }, on) {
    const d = on.length(id);
    const { sketch, v } = on;
    const { lines, rounds, points } = on.slots;
    const held = squareEnds(sketch, of.filter((_, i) => i % 2 === 0)); // prettier-ignore
    return of.flatMap((original, i) => {
      if (i % 2 === 1) return [];
      const copy = of[i + 1] ?? '';
      const [a, b] = [lines.get(original), lines.get(copy)];
      const [p, q] = [rounds.get(original), rounds.get(copy)];
      if (!(a && b) && !(p && q)) return refuse('An offset needs lines, arcs and circles.');
      const square = (endsOf(sketch.curves[original]!) ?? []).flatMap((end, k) => {
        const other = endsOf(sketch.curves[copy]!)?.[k];
        if (!held.get(original)?.has(end) || other === undefined) return [];
        const [from, to] = [points.get(end)!, points.get(other)!];
        return a
          ? [perpendicular(id, a, { from, to })]
          : [parallel(id, { from: p!.center, to: from }, { from: p!.center, to })];
      });
      if (a && b) return [...[b.from, b.to].map((e) => pointLineDistance(id, e, a, d, sideOf(v, e, a))), ...square];
      const larger = v[q!.radius]! >= v[p!.radius]! ? 1 : -1;
      return [
        slotDifference(id, p!.center.x, q!.center.x, 0, 1),
        slotDifference(id, p!.center.y, q!.center.y, 0, 1),
        slotDifference(id, p!.radius, q!.radius, d, larger),
        ...square,
      ];
    });
  },

  reads({ of }, sketch) {
    const [original, copy] = [of[0]!, of[1]!];
    const [line, moved] = [lineIn(sketch, original), lineIn(sketch, copy)];
    if (line && moved) return offLine(moved[0], line);
    return Math.abs(radiusIn(sketch, original) - radiusIn(sketch, copy));
  },
});
