/** What of a sketch lies under the pointer, and where a drawn point would land. */
import { BUILT_IN, type Anchor, type SketchGeometry, type Vec2 } from '@helb/core';
import type { PlaneMap } from './plane-map.ts';

const POINT_REACH_PX = 9;
const CURVE_REACH_PX = 6;

/** Position of a point id, the origin included. */
export function placeOf(sketch: SketchGeometry, id: string): Vec2 {
  return id === BUILT_IN.origin ? [0, 0] : (sketch.points[id] ?? [0, 0]);
}

/** The nearest place on a curve to `at`, in mm. */
export function nearestOnCurve(sketch: SketchGeometry, id: string, at: Vec2): Vec2 {
  const curve = sketch.curves[id]!;
  if (curve.kind === 'line') {
    const a = placeOf(sketch, curve.from);
    const b = placeOf(sketch, curve.to);
    const dx = b[0] - a[0];
    const dy = b[1] - a[1];
    const length2 = dx * dx + dy * dy;
    const t = length2 > 0 ? Math.min(1, Math.max(0, ((at[0] - a[0]) * dx + (at[1] - a[1]) * dy) / length2)) : 0;
    return [a[0] + t * dx, a[1] + t * dy];
  }
  const c = placeOf(sketch, curve.center);
  const from = curve.kind === 'arc' ? placeOf(sketch, curve.from) : null;
  const radius = curve.kind === 'circle' ? curve.radius : Math.hypot(from![0] - c[0], from![1] - c[1]);
  const angle = Math.atan2(at[1] - c[1], at[0] - c[0]);
  if (curve.kind === 'arc') {
    const to = placeOf(sketch, curve.to);
    const turn = (a: number) => ((a % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
    const start = Math.atan2(from![1] - c[1], from![0] - c[0]);
    const sweep = turn(Math.atan2(to[1] - c[1], to[0] - c[0]) - start);
    if (turn(angle - start) > sweep) {
      const away = (p: Vec2) => Math.hypot(p[0] - at[0], p[1] - at[1]);
      return away(from!) < away(to) ? from! : to;
    }
  }
  return [c[0] + radius * Math.cos(angle), c[1] + radius * Math.sin(angle)];
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
): string | null {
  let best: string | null = null;
  let least = POINT_REACH_PX;
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

export function curveNear(sketch: SketchGeometry, map: PlaneMap, px: number, py: number): string | null {
  const at = map.toPlane(px, py);
  let best: string | null = null;
  let least = CURVE_REACH_PX;
  for (const id of Object.keys(sketch.curves)) {
    const away = pixelsBetween(map, nearestOnCurve(sketch, id, at), px, py);
    if (away < least) {
      best = id;
      least = away;
    }
  }
  return best;
}

/** The point or curve under the pointer; else an axis. */
export function entityAt(sketch: SketchGeometry, map: PlaneMap, px: number, py: number): string | null {
  const found = pointNear(sketch, map, px, py) ?? curveNear(sketch, map, px, py);
  if (found) return found;
  const [u, v] = map.toPlane(px, py);
  if (Math.abs(v) * map.scale < CURVE_REACH_PX) return BUILT_IN.xAxis;
  return Math.abs(u) * map.scale < CURVE_REACH_PX ? BUILT_IN.yAxis : null;
}

export interface Snap extends Anchor {
  /** A line drawn to here would be level or upright. */
  readonly level?: 'horizontal' | 'vertical';
}

/**
 * Where a point drawn here lands.
 * @param start the other end of the line being drawn
 * @param free holds all inference off
 */
export function snapAt(
  sketch: SketchGeometry,
  map: PlaneMap,
  px: number,
  py: number,
  start: Vec2 | null,
  free: boolean,
): Snap {
  const at = map.toPlane(px, py);
  if (free) return { at };
  const point = pointNear(sketch, map, px, py);
  if (point) return { at: placeOf(sketch, point), point };
  const curve = curveNear(sketch, map, px, py);
  if (curve) return { at: nearestOnCurve(sketch, curve, at), on: curve };
  for (const [axis, k] of [
    [BUILT_IN.xAxis, 1],
    [BUILT_IN.yAxis, 0],
  ] as const) {
    // Along an axis there is no side to miss: the nearest place on it is straight across.
    if (Math.abs(at[k]) * map.scale < CURVE_REACH_PX) return { at: k === 1 ? [at[0], 0] : [0, at[1]], on: axis };
  }
  if (start) {
    const reach = CURVE_REACH_PX / map.scale;
    if (Math.abs(at[1] - start[1]) < reach) return { at: [at[0], start[1]], level: 'horizontal' };
    if (Math.abs(at[0] - start[0]) < reach) return { at: [start[0], at[1]], level: 'vertical' };
  }
  return { at };
}
