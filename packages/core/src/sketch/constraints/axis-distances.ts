/** Distance along x or along y of a line or of two places, on the side drawn. */
import { lineIn, placeIn } from '../drawn.ts';
import { slotDifference } from '../equations/axis-distance.ts';
import type { Constraint, SketchGeometry } from '../schema.ts';
import { declareConstraint } from './constraint-kind.ts';
import type { Equating } from './operands.ts';

const between = (id: string, p: number, q: number, on: Equating) =>
  slotDifference(id, p, q, on.length(id), on.v[q]! < on.v[p]! ? -1 : 1);

function read({ of }: Constraint, sketch: SketchGeometry, k: 0 | 1): number {
  const [a, b] = of.length === 1 ? (lineIn(sketch, of[0]!) ?? [null, null]) : of.map((e) => placeIn(sketch, e));
  return a && b ? Math.abs(b[k] - a[k]) : 0;
}

const ofLength = ({ of }: Constraint, curve: string) => of.length === 1 && of[0] === curve;

export const horizontalDistance = declareConstraint('horizontal_distance', {
  equations(id, { of }, on) {
    const [p, q] = on.twoPlaces(of, 'A horizontal distance needs a line or two points.');
    return [between(id, p.x, q.x, on)];
  },
  reads: (c, sketch) => read(c, sketch, 0),
  calls: ({ of }) => (of.length === 1 ? 'width' : 'across'),
  ofLength,
});

export const verticalDistance = declareConstraint('vertical_distance', {
  equations(id, { of }, on) {
    const [p, q] = on.twoPlaces(of, 'A vertical distance needs a line or two points.');
    return [between(id, p.y, q.y, on)];
  },
  reads: (c, sketch) => read(c, sketch, 1),
  calls: ({ of }) => (of.length === 1 ? 'height' : 'rise'),
  ofLength,
});
