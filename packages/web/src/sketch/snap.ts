/** Where a drawn point lands: on what is there, or in line with it. Shown before the click. */
import {
  angleFrom,
  BUILT_IN,
  departing,
  lineIn,
  SketchPen,
  type Anchor,
  type Chain,
  type SketchGeometry,
  type Vec2,
} from '@helb/core';
import { CURVE_REACH_PX, curveNear, nearestOnCurve, placeOf, pointNear, POINT_REACH_PX } from './hit.ts';
import type { PlaneMap } from './plane-map.ts';

export interface SnapContext {
  /** The other end of the line being drawn, if one is; and the point that stands there. */
  readonly start: Vec2 | null;
  readonly from?: string | undefined;
  /** What it goes on from. */
  readonly chain: Chain | null;
  /** The line last pointed at: new lines may run along or square to it. */
  readonly awake: string | null;
  /** Inference is held off. */
  readonly free: boolean;
  /** Only curves count. */
  readonly curvesOnly: boolean;
}

const AXES = [
  [BUILT_IN.xAxis, 1],
  [BUILT_IN.yAxis, 0],
] as const;

/** Of the way from the stroke's last place to the pointer, so much at most is within reach: a short step is kept. */
const SHARE_OF_STEP = 0.4;

/** Under way, a stroke ends on what it is brought to, and not on all it comes near. */
const STROKE_REACH = 2 / 3;
/** Two clicks this near, on the screen, are one. */
const SAME_PLACE_PX = 3;

export function snapAt(sketch: SketchGeometry, map: PlaneMap, px: number, py: number, context: SnapContext): Anchor {
  const at = map.toPlane(px, py);
  if (context.free && !context.curvesOnly) return { at };
  const step = context.start ? pixelsTo(map, context.start, px, py) : Infinity;
  if (step < SAME_PLACE_PX) return { at: context.start!, ...(context.from ? { point: context.from } : {}) };
  const within = (reach: number) => (context.start ? Math.min(STROKE_REACH * reach, SHARE_OF_STEP * step) : reach);
  const along = context.start
    ? inferred(sketch, map, at, context.start, Math.min(CURVE_REACH_PX, SHARE_OF_STEP * step), context)
    : null;
  // What the stroke goes on from is left, not landed on.
  const last = context.chain?.curve;
  if (!context.curvesOnly) {
    const point = pointNear(sketch, map, px, py, context.from, within(POINT_REACH_PX));
    if (point && !passesBy(sketch, map, point, along, px, py)) return { at: placeOf(sketch, point), point };
    const middle = middleNear(sketch, map, px, py, last, within(MIDDLE_REACH_PX));
    if (middle) return middle;
    if (point) return along!;
  }
  const curve = curveNear(sketch, map, px, py, last, within(CURVE_REACH_PX));
  if (curve) {
    const on = nearestOnCurve(sketch, curve, at);
    return sketch.curves[curve]!.kind === 'text' ? { at } : { at: on, on: curve };
  }
  for (const [axis, k] of AXES) {
    // Along an axis there is no side to miss: the nearest place on it is straight across.
    if (Math.abs(at[k]) * map.scale >= within(CURVE_REACH_PX)) continue;
    const onAxis: Vec2 = k === 1 ? [at[0], 0] : [0, at[1]];
    // Level with the start and on an axis: both hold where they cross.
    if (along?.inferred?.kind === (k === 1 ? 'vertical' : 'horizontal'))
      return { at: k === 1 ? [along.at[0], 0] : [0, along.at[1]], on: axis, inferred: along.inferred };
    if (along && Math.abs(along.at[k]) * map.scale < 1) continue;
    return { at: onAxis, on: axis };
  }
  return along ?? { at };
}

const MIDDLE_REACH_PX = 7;

function pixelsTo(map: PlaneMap, place: Vec2, px: number, py: number): number {
  const [x, y] = map.toPixel(place);
  return Math.hypot(x - px, y - py);
}

/**
 * Does the stroke run past this point, rather than to it? It does where the pointer follows a direction
 * closely, and the point lies well to the side: the step between the two is meant.
 */
function passesBy(
  sketch: SketchGeometry,
  map: PlaneMap,
  point: string,
  along: Anchor | null,
  px: number,
  py: number,
): boolean {
  if (!along) return false;
  const place = placeOf(sketch, point);
  return (
    pixelsTo(map, place, px, py) > POINT_REACH_PX / 3 &&
    pixelsTo(map, along.at, px, py) < CURVE_REACH_PX / 3 &&
    pixelsTo(map, place, ...map.toPixel(along.at)) > POINT_REACH_PX / 3
  );
}

function middleNear(
  sketch: SketchGeometry,
  map: PlaneMap,
  px: number,
  py: number,
  except: string | undefined,
  reach: number,
): Anchor | null {
  for (const [id, curve] of Object.entries(sketch.curves)) {
    if (curve.kind !== 'line' || id === except) continue;
    const [a, b] = [placeOf(sketch, curve.from), placeOf(sketch, curve.to)];
    const at: Vec2 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    if (pixelsTo(map, at, px, py) < reach) return { at, on: id, middle: true };
  }
  return null;
}

/** Snapped onto a direction from the start: level, upright, on from the last curve, along or square to a line. */
function inferred(
  sketch: SketchGeometry,
  map: PlaneMap,
  at: Vec2,
  start: Vec2,
  reachPx: number,
  { chain, awake }: SnapContext,
): Anchor | null {
  const reach = reachPx / map.scale;
  const away: Vec2 = [at[0] - start[0], at[1] - start[1]];
  const onto = (u: Vec2): Vec2 | null => {
    const along = away[0] * u[0] + away[1] * u[1];
    const off = Math.abs(away[0] * u[1] - away[1] * u[0]);
    return off < reach ? [start[0] + along * u[0], start[1] + along * u[1]] : null;
  };
  if (Math.abs(away[1]) < reach) return { at: [at[0], start[1]], inferred: { kind: 'horizontal' } };
  if (Math.abs(away[0]) < reach) return { at: [start[0], at[1]], inferred: { kind: 'vertical' } };
  const last = chain && sketch.curves[chain.curve];
  if (chain && last && last.kind !== 'text') {
    const u = departing(new SketchPen(sketch), chain);
    const tangent = last.kind === 'line' ? null : onto(u);
    if (tangent) return { at: tangent, inferred: { kind: 'tangent', to: chain.curve } };
    const square = last.kind === 'line' ? onto([-u[1], u[0]]) : null;
    if (square) return { at: square, inferred: { kind: 'perpendicular', to: chain.curve } };
  }
  const line = awake && awake !== chain?.curve ? lineIn(sketch, awake) : null;
  if (line && sketch.curves[awake!]?.kind === 'line') {
    const angle = angleFrom([[0, 0], [1, 0]], line); // prettier-ignore
    const u: Vec2 = [Math.cos(angle), Math.sin(angle)];
    const parallel = onto(u);
    if (parallel) return { at: parallel, inferred: { kind: 'parallel', to: awake! } };
    const square = onto([-u[1], u[0]]);
    if (square) return { at: square, inferred: { kind: 'perpendicular', to: awake! } };
  }
  return null;
}
