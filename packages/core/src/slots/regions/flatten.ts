/** Curves in space, seen straight onto a sketch plane, as what a sketch can hold. */
import { centripetal, type Vec2 } from '../../sketch/curves/spline.ts';
import type { FlatPiece } from '../../sketch/borrow/flat-piece.ts';
import type { EdgeCurve } from '../../solid/kernel.ts';
import { dot, type Frame, type Vec3 } from '../../space/vector.ts';

/** Shorter than this, mm, is a point. */
const NOTHING = 1e-7;
export function flatPoint(frame: Frame, p: Vec3): Vec2 {
  const d: Vec3 = [p[0] - frame.origin[0], p[1] - frame.origin[1], p[2] - frame.origin[2]];
  return [dot(d, frame.x), dot(d, frame.y)];
}

/** @returns what the curve looks like from straight above the plane */
export function flatten(frame: Frame, curve: EdgeCurve): FlatPiece {
  const at = (p: Vec3) => flatPoint(frame, p);
  const [from, to] = [at(curve.from), at(curve.to)];
  if (curve.kind === 'line') {
    return apart(from, to) ? { kind: 'line', points: [from, to] } : { kind: 'point', points: [from] };
  }
  if (curve.kind === 'ellipse') return flatOval(frame, curve, from, to);
  const points = curve.samples.map(at).filter((p, i, all) => i === 0 || apart(p, all[i - 1]!));
  if (points.length < 2) return { kind: 'point', points: [from] };
  return straight(points)
    ? { kind: 'line', points: extremes(points) }
    : { kind: 'spline', points, parameters: centripetal(points) };
}

const apart = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]) > NOTHING;

function straight(points: readonly Vec2[]): boolean {
  const [a, b] = extremes(points);
  const size = Math.hypot(b[0] - a[0], b[1] - a[1]);
  return points.every(
    (p) => Math.abs((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) < 1e-6 * size * size,
  );
}

/** The two points farthest apart along the run. */
function extremes(points: readonly Vec2[]): [Vec2, Vec2] {
  const first = points[0]!;
  const away = (p: Vec2, q: Vec2) => Math.hypot(p[0] - q[0], p[1] - q[1]);
  const far = points.reduce((best, p) => (away(p, first) > away(best, first) ? p : best));
  const other = points.reduce((best, p) => (away(p, far) > away(best, far) ? p : best));
  return [other, far];
}

/** A circle or ellipse in space is one again on the plane, or, seen from its side, a line. */
function flatOval(frame: Frame, curve: Extract<EdgeCurve, { kind: 'ellipse' }>, from: Vec2, to: Vec2): FlatPiece {
  const center = flatPoint(frame, curve.center);
  const across: Vec3 = [
    curve.normal[1] * curve.along[2] - curve.normal[2] * curve.along[1],
    curve.normal[2] * curve.along[0] - curve.normal[0] * curve.along[2],
    curve.normal[0] * curve.along[1] - curve.normal[1] * curve.along[0],
  ];
  // Conjugate half axes on the plane; their principal ones after Rytz, by the parameter of greatest reach.
  const flat = (v: Vec3, r: number): Vec2 => [dot(v, frame.x) * r, dot(v, frame.y) * r];
  const [p, q] = [flat(curve.along, curve.major), flat(across, curve.minor)];
  const t = Math.atan2(2 * (p[0] * q[0] + p[1] * q[1]), p[0] ** 2 + p[1] ** 2 - q[0] ** 2 - q[1] ** 2) / 2;
  const [c, s] = [Math.cos(t), Math.sin(t)];
  const m: Vec2 = [p[0] * c + q[0] * s, p[1] * c + q[1] * s];
  const n: Vec2 = [q[0] * c - p[0] * s, q[1] * c - p[1] * s];
  const [long, short] = [Math.hypot(...m), Math.hypot(...n)];
  if (short < NOTHING) return { kind: 'line', points: extremes(curve.samples.map((x) => flatPoint(frame, x))) };
  const round = Math.abs(long - short) < 1e-9 * long;
  // Seen from behind, the curve runs the other way round.
  const forward = p[0] * q[1] - p[1] * q[0] > 0;
  const [start, end] = forward ? [from, to] : [to, from];
  if (round)
    return curve.whole
      ? { kind: 'circle', points: [center], radius: long }
      : { kind: 'arc', points: [center, start, end] };
  const major: Vec2 = [center[0] + m[0], center[1] + m[1]];
  return curve.whole
    ? { kind: 'ellipse', points: [center, major], minor: short }
    : { kind: 'elliptical_arc', points: [center, major, start, end], minor: short };
}
