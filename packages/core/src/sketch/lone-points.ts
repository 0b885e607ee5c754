import { pointsOf, type SketchGeometry } from './schema.ts';

/** Ids of the points that no curve runs through. */
export function lonePoints({ points, curves }: SketchGeometry): string[] {
  const used = new Set(Object.values(curves).flatMap((c) => [...pointsOf(c)]));
  return Object.keys(points).filter((id) => !used.has(id));
}

/** Ids of the points that mark places: those that stand alone; where none does, the centres of whole circles. */
export function markedPlaces(sketch: SketchGeometry): string[] {
  const alone = lonePoints(sketch);
  if (alone.length > 0) return alone;
  return [...new Set(Object.values(sketch.curves).flatMap((c) => (c.kind === 'circle' ? [c.center] : [])))];
}
