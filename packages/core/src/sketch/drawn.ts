/** Where things of a sketch stand as drawn. Lengths mm, angles rad. */
import { distance, type Vec2 } from './regions/primitives.ts';
import { BUILT_IN, type SketchGeometry } from './schema.ts';

export type Ends = readonly [Vec2, Vec2];

/** A point, or the centre of a round curve; null for anything else. */
export function placeIn(sketch: SketchGeometry, id: string): Vec2 | null {
  if (id === BUILT_IN.origin) return [0, 0];
  const curve = sketch.curves[id];
  if (!curve) return sketch.points[id] ?? null;
  if (!('center' in curve)) return null;
  return curve.center === BUILT_IN.origin ? [0, 0] : (sketch.points[curve.center] ?? null);
}

/** The ends of a line or an axis; null for anything else. */
export function lineIn(sketch: SketchGeometry, id: string): Ends | null {
  if (id === BUILT_IN.xAxis) return [[0, 0], [1, 0]]; // prettier-ignore
  if (id === BUILT_IN.yAxis) return [[0, 0], [0, 1]]; // prettier-ignore
  const curve = sketch.curves[id];
  if (curve?.kind !== 'line' && curve?.kind !== 'text') return null;
  return [placeIn(sketch, curve.from) ?? [0, 0], placeIn(sketch, curve.to) ?? [0, 0]];
}

/** Radius of a circle or arc; 0 for anything else. */
export function radiusIn(sketch: SketchGeometry, id: string): number {
  const curve = sketch.curves[id];
  if (curve?.kind === 'circle') return curve.radius;
  return curve?.kind === 'arc' ? distance(placeIn(sketch, curve.center)!, placeIn(sketch, curve.from)!) : 0;
}

/** Unsigned distance of a point from a full line. */
export function offLine(p: Vec2, [a, b]: Ends): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  return Math.abs(dx * (p[1] - a[1]) - dy * (p[0] - a[0])) / (Math.hypot(dx, dy) || 1);
}

/** From the first direction counter-clockwise to the second, in (−π, π]. */
export function angleFrom([a, b]: Ends, [c, d]: Ends): number {
  const [u, v] = [[b[0] - a[0], b[1] - a[1]] as const, [d[0] - c[0], d[1] - c[1]] as const];
  return Math.atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1]);
}

/** Distance of two places, of a place and a line, or of two lines; 0 where there is none. */
export function separation(sketch: SketchGeometry, of: readonly string[]): number {
  const places = of.map((e) => placeIn(sketch, e));
  if (places[0] && places[1]) return distance(places[0], places[1]);
  const lines = of.map((e) => lineIn(sketch, e));
  const line = lines[1] ?? lines[0];
  const other = places[0] ?? places[1] ?? lines[0]?.[0];
  return line && other ? offLine(other, line) : 0;
}
