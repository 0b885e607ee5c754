import { pointsOf, type SketchGeometry } from '../schema.ts';

/**
 * Take entities and constraints out of a sketch, with the curves built on them,
 * the points nothing else uses, and the constraints that would dangle.
 * @returns ids of the constraints that went along
 */
export function removeFromSketch(sketch: SketchGeometry, ids: readonly string[]): string[] {
  const gone = new Set(ids);
  const endpoints = new Set<string>();
  for (const [id, curve] of Object.entries(sketch.curves)) {
    const points = pointsOf(curve);
    if (!gone.has(id) && !points.some((p) => gone.has(p))) continue;
    gone.add(id);
    delete sketch.curves[id];
    for (const p of points) endpoints.add(p);
  }
  for (const curve of Object.values(sketch.curves)) for (const p of pointsOf(curve)) endpoints.delete(p);
  for (const p of endpoints) gone.add(p);
  for (const id of gone) delete sketch.points[id];
  const dangling: string[] = [];
  for (const [id, constraint] of Object.entries(sketch.constraints)) {
    if (!gone.has(id) && !constraint.of.some((e) => gone.has(e))) continue;
    delete sketch.constraints[id];
    if (!gone.has(id)) dangling.push(id);
  }
  return dangling;
}
