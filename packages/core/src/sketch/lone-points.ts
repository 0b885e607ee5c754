import type { SketchGeometry } from './schema.ts';

/** Ids of the points that no curve runs through; where there is none, of the centres of whole circles. */
export function lonePoints({ points, curves }: SketchGeometry): string[] {
  const used = new Set<string>();
  for (const curve of Object.values(curves))
    for (const value of Object.values(curve)) for (const id of [value].flat()) if (typeof id === 'string') used.add(id);
  const alone = Object.keys(points).filter((id) => !used.has(id));
  if (alone.length > 0) return alone;
  return [...new Set(Object.values(curves).flatMap((c) => (c.kind === 'circle' ? [c.center] : [])))];
}
