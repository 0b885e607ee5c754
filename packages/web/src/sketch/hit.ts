/** What of a sketch lies under the pointer, and where a drawn point would land. */
import {
  BUILT_IN, boxOf, nearestOn, pointAt, pointsOf, primitivesOfCurve, type Primitive, type SketchGeometry, type Vec2,
} from '@helb/core'; // prettier-ignore
import type { PlaneMap } from './plane-map.ts';

export const POINT_REACH_PX = 9;
export const CURVE_REACH_PX = 6;

/** Position of a point id, the origin included. */
export function placeOf(sketch: SketchGeometry, id: string): Vec2 {
  return id === BUILT_IN.origin ? [0, 0] : (sketch.points[id] ?? [0, 0]);
}

/** The nearest place on a curve to `at`, in mm. */
export function nearestOnCurve(sketch: SketchGeometry, id: string, at: Vec2): Vec2 {
  let best: Vec2 | null = null;
  const away = (p: Vec2) => Math.hypot(p[0] - at[0], p[1] - at[1]);
  for (const piece of primitivesFor(sketch, id)) {
    const { point } = nearestOn(piece, at);
    if (!best || away(point) < away(best)) best = point;
  }
  return best ?? placeOf(sketch, pointsOf(sketch.curves[id]!)[0]!);
}

const traced = new WeakMap<SketchGeometry, Map<string, Primitive[]>>();

/** A curve as plain geometry; made once per picture of the sketch. */
export function primitivesFor(sketch: SketchGeometry, id: string): Primitive[] {
  let known = traced.get(sketch);
  if (!known) traced.set(sketch, (known = new Map()));
  let pieces = known.get(id);
  if (!pieces) known.set(id, (pieces = primitivesOfCurve(sketch, id, sketch.curves[id]!)));
  return pieces;
}

function pixelsBetween(map: PlaneMap, a: Vec2, px: number, py: number): number {
  const [x, y] = map.toPixel(a);
  return Math.hypot(x - px, y - py);
}

export function pointNear(
  sketch: SketchGeometry,
  map: PlaneMap,
  px: number,
  py: number,
  except?: string,
  reach = POINT_REACH_PX,
): string | null {
  let best: string | null = null;
  let least = reach;
  for (const id of [...Object.keys(sketch.points), BUILT_IN.origin]) {
    const away = pixelsBetween(map, placeOf(sketch, id), px, py);
    // A drawn point wins over the origin below it.
    if (id !== except && (away < least || (best === null && away <= least))) {
      best = id;
      least = away;
    }
  }
  return best;
}

export function curveNear(
  sketch: SketchGeometry,
  map: PlaneMap,
  px: number,
  py: number,
  except?: string,
  reachPx = CURVE_REACH_PX,
): string | null {
  const at = map.toPlane(px, py);
  let best: string | null = null;
  let least = reachPx;
  const reach = reachPx / map.scale;
  for (const id of Object.keys(sketch.curves)) {
    if (id === except) continue;
    const pieces = primitivesFor(sketch, id);
    if (!pieces.some((p) => isNearBox(boxOf(p), at, reach))) continue;
    const away = pixelsBetween(map, nearestOnCurve(sketch, id, at), px, py);
    if (away < least) {
      best = id;
      least = away;
    }
  }
  return best;
}

function isNearBox([x0, y0, x1, y1]: readonly number[], [x, y]: Vec2, reach: number): boolean {
  return x > x0! - reach && x < x1! + reach && y > y0! - reach && y < y1! + reach;
}

/** What lies wholly inside a box of the plane. */
export function entitiesInBox(sketch: SketchGeometry, a: Vec2, b: Vec2): string[] {
  const [low, high]: Vec2[] = [
    [Math.min(a[0], b[0]), Math.min(a[1], b[1])],
    [Math.max(a[0], b[0]), Math.max(a[1], b[1])],
  ];
  const inside = ([x, y]: Vec2) => x >= low![0] && x <= high![0] && y >= low![1] && y <= high![1];
  const curves = Object.keys(sketch.curves).filter((id) =>
    primitivesFor(sketch, id).every((p) => [0, 0.25, 0.5, 0.75, 1].every((t) => inside(pointAt(p, t)))),
  );
  const covered = new Set(curves.flatMap((id) => pointsOf(sketch.curves[id]!)));
  const points = Object.keys(sketch.points).filter((id) => !covered.has(id) && inside(placeOf(sketch, id)));
  return [...curves, ...points];
}

/** The point or curve under the pointer; else an axis. */
export function entityAt(sketch: SketchGeometry, map: PlaneMap, px: number, py: number): string | null {
  const found = pointNear(sketch, map, px, py) ?? curveNear(sketch, map, px, py);
  if (found) return found;
  const [u, v] = map.toPlane(px, py);
  if (Math.abs(v) * map.scale < CURVE_REACH_PX) return BUILT_IN.xAxis;
  return Math.abs(u) * map.scale < CURVE_REACH_PX ? BUILT_IN.yAxis : null;
}
