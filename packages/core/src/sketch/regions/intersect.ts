/** Where two primitives meet: as parameters on each. Tangent touches and shared ends count. */
import { meetCurved } from './intersect-curved.ts';
import {
  distance,
  lengthOf,
  pointAt,
  TAU,
  turn,
  type Primitive,
  type Round,
  type Segment,
  type Vec2,
} from './primitives.ts';

/** Parameter in [0, 1] of a point known to lie on the primitive's carrier, or null if off its ends. */
function parameterOf(p: Segment | Round, at: Vec2, tolerance: number): number | null {
  const slack = tolerance / lengthOf(p);
  let t: number;
  if (p.kind === 'line') {
    const dx = p.to[0] - p.from[0];
    const dy = p.to[1] - p.from[1];
    t = ((at[0] - p.from[0]) * dx + (at[1] - p.from[1]) * dy) / (dx * dx + dy * dy);
  } else {
    t = turn(Math.atan2(at[1] - p.center[1], at[0] - p.center[0]) - p.start) / p.sweep;
    // Just before the start reads as a whole turn.
    if (t > 1 + slack && TAU / p.sweep - t < slack) t = 0;
  }
  if (t < -slack || t > 1 + slack) return null;
  return Math.min(1, Math.max(0, t));
}

function lineLine(a: Segment, b: Segment, tolerance: number): Vec2[] {
  const d1: Vec2 = [a.to[0] - a.from[0], a.to[1] - a.from[1]];
  const d2: Vec2 = [b.to[0] - b.from[0], b.to[1] - b.from[1]];
  const cross = d1[0] * d2[1] - d1[1] * d2[0];
  const w: Vec2 = [b.from[0] - a.from[0], b.from[1] - a.from[1]];
  if (Math.abs(cross) <= 1e-12 * Math.hypot(...d1) * Math.hypot(...d2)) {
    const off = Math.abs(d1[0] * w[1] - d1[1] * w[0]) / Math.hypot(...d1);
    // Collinear: each end may split the other.
    return off <= tolerance ? [a.from, a.to, b.from, b.to] : [];
  }
  const t = (w[0] * d2[1] - w[1] * d2[0]) / cross;
  return [pointAt(a, t)];
}

function lineRound(line: Segment, round: Round, tolerance: number): Vec2[] {
  const dx = line.to[0] - line.from[0];
  const dy = line.to[1] - line.from[1];
  const length = Math.hypot(dx, dy);
  const ux = dx / length;
  const uy = dy / length;
  const fx = round.center[0] - line.from[0];
  const fy = round.center[1] - line.from[1];
  const along = fx * ux + fy * uy;
  const off = fx * uy - fy * ux;
  const foot: Vec2 = [line.from[0] + along * ux, line.from[1] + along * uy];
  if (Math.abs(Math.abs(off) - round.radius) <= tolerance) return [foot];
  if (Math.abs(off) > round.radius) return [];
  const half = Math.sqrt(round.radius ** 2 - off ** 2);
  return [
    [foot[0] - half * ux, foot[1] - half * uy],
    [foot[0] + half * ux, foot[1] + half * uy],
  ];
}

function roundRound(a: Round, b: Round, tolerance: number): Vec2[] {
  const d = distance(a.center, b.center);
  if (d <= tolerance && Math.abs(a.radius - b.radius) <= tolerance) {
    // The same circle: ends split the other.
    return [pointAt(a, 0), pointAt(a, 1), pointAt(b, 0), pointAt(b, 1)];
  }
  if (d > a.radius + b.radius + tolerance || d < Math.abs(a.radius - b.radius) - tolerance || d === 0) return [];
  const ux = (b.center[0] - a.center[0]) / d;
  const uy = (b.center[1] - a.center[1]) / d;
  const touchesOutside = Math.abs(d - a.radius - b.radius) <= tolerance;
  const touchesInside = Math.abs(d - Math.abs(a.radius - b.radius)) <= tolerance;
  if (touchesOutside || touchesInside) {
    const sign = touchesInside && a.radius < b.radius ? -1 : 1;
    return [[a.center[0] + sign * a.radius * ux, a.center[1] + sign * a.radius * uy]];
  }
  const along = (d * d + a.radius ** 2 - b.radius ** 2) / (2 * d);
  const half = Math.sqrt(Math.max(0, a.radius ** 2 - along ** 2));
  const x = a.center[0] + along * ux;
  const y = a.center[1] + along * uy;
  return [
    [x - half * uy, y + half * ux],
    [x + half * uy, y - half * ux],
  ];
}

export interface Meeting {
  readonly at: Vec2;
  readonly onFirst: number;
  readonly onSecond: number;
}

/** All places where two primitives meet, within `tolerance` mm. */
export function meetings(a: Primitive, b: Primitive, tolerance: number): Meeting[] {
  if (a.kind === 'ellipse' || a.kind === 'spline' || b.kind === 'ellipse' || b.kind === 'spline')
    return meetCurved(a, b, tolerance).map((m) => ({ ...m, at: pointAt(a, m.onFirst) }));
  let points: Vec2[];
  if (a.kind === 'line') points = b.kind === 'line' ? lineLine(a, b, tolerance) : lineRound(a, b, tolerance);
  else points = b.kind === 'line' ? lineRound(b, a, tolerance) : roundRound(a, b, tolerance);
  return points.flatMap((at) => {
    const onFirst = parameterOf(a, at, tolerance);
    const onSecond = parameterOf(b, at, tolerance);
    return onFirst === null || onSecond === null ? [] : [{ at, onFirst, onSecond }];
  });
}
