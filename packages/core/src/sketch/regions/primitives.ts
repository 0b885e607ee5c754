/** Curves of a sketch as plain geometry, for finding regions. Lengths mm, angles rad. */
import { basisAt, basisOf, bezierSpans, controlPoints, type Vec2 } from '../curves/spline.ts';
import { letteringContours } from '../lettering/lettering.ts';
import type { Curve, SketchGeometry } from '../schema.ts';

export type { Vec2 } from '../curves/spline.ts';

export interface Segment {
  readonly kind: 'line';
  readonly curve: string;
  readonly from: Vec2;
  readonly to: Vec2;
}

/** Counter-clockwise from angle `start` over `sweep` > 0; a full circle sweeps 2π. */
export interface Round {
  readonly kind: 'arc';
  readonly curve: string;
  readonly center: Vec2;
  readonly radius: number;
  readonly start: number;
  readonly sweep: number;
}

/** Center + major·cos + minor·sin of the parameter, counter-clockwise from `start` over `sweep` > 0. */
export interface Oval {
  readonly kind: 'ellipse';
  readonly curve: string;
  readonly center: Vec2;
  /** Both half axes as vectors; minor is major turned left, at its own length. */
  readonly major: Vec2;
  readonly minor: Vec2;
  readonly start: number;
  readonly sweep: number;
}

/** A B-spline over its whole range 0 … 1. */
export interface Wave {
  readonly kind: 'spline';
  readonly curve: string;
  readonly degree: number;
  readonly knots: readonly number[];
  readonly control: readonly Vec2[];
}

export type Primitive = Segment | Round | Oval | Wave;

export const TAU = 2 * Math.PI;

/** Into [0, 2π). */
export function turn(angle: number): number {
  const a = angle % TAU;
  return a < 0 ? a + TAU : a;
}

/** All curves that bound regions; construction and zero-sized ones do not. */
export function primitivesOf(sketch: SketchGeometry, tolerance: number): Primitive[] {
  return Object.entries(sketch.curves).flatMap(([id, c]) =>
    c.construction ? [] : primitivesOfCurve(sketch, id, c, tolerance),
  );
}

/** One curve as plain geometry: one piece, or for lettering many; none where it has no size. */
export function primitivesOfCurve(sketch: SketchGeometry, curve: string, c: Curve, tolerance = 1e-9): Primitive[] {
  const at = (id: string): Vec2 => sketch.points[id] ?? [0, 0];
  switch (c.kind) {
    case 'line': {
      const [from, to] = [at(c.from), at(c.to)];
      return distance(from, to) > tolerance ? [{ kind: 'line', curve, from, to }] : [];
    }
    case 'circle':
      return c.radius > tolerance
        ? [{ kind: 'arc', curve, center: at(c.center), radius: c.radius, start: 0, sweep: TAU }]
        : [];
    case 'arc': {
      const center = at(c.center);
      const radius = distance(center, at(c.from));
      const start = turn(angleAt(center, at(c.from)));
      const sweep = turn(angleAt(center, at(c.to)) - start) || TAU;
      return radius > tolerance ? [{ kind: 'arc', curve, center, radius, start, sweep }] : [];
    }
    case 'spline': {
      const points = c.points.map(at);
      const size = points.reduce((most, p) => Math.max(most, distance(p, points[0]!)), 0);
      if (size <= tolerance) return [];
      const basis = basisOf(c);
      return [
        { kind: 'spline', curve, degree: basis.degree, knots: basis.knots, control: controlPoints(basis, points) },
      ];
    }
    case 'text':
      return letteringContours(c.text, at(c.from), at(c.to)).flatMap((contour, i) =>
        contour.map(({ kind, points }): Primitive => {
          const own = `${curve}_${i}`;
          if (kind === 'line') return { kind: 'line', curve: own, from: points[0], to: points[1] };
          return { kind: 'spline', curve: own, degree: 3, knots: [0, 0, 0, 0, 1, 1, 1, 1], control: points };
        }),
      );
    default: {
      const center = at(c.center);
      const m: Vec2 = [at(c.major)[0] - center[0], at(c.major)[1] - center[1]];
      const long = Math.hypot(...m);
      if (long <= tolerance || c.minor <= tolerance) return [];
      const minor: Vec2 = [(-m[1] / long) * c.minor, (m[0] / long) * c.minor];
      const oval = { kind: 'ellipse', curve, center, major: m, minor } as const;
      if (c.kind === 'ellipse') return [{ ...oval, start: 0, sweep: TAU }];
      const start = turn(ovalAngle(oval, at(c.from)));
      return [{ ...oval, start, sweep: turn(ovalAngle(oval, at(c.to)) - start) || TAU }];
    }
  }
}

export function distance(a: Vec2, b: Vec2): number {
  return Math.hypot(b[0] - a[0], b[1] - a[1]);
}

function angleAt(center: Vec2, p: Vec2): number {
  return Math.atan2(p[1] - center[1], p[0] - center[0]);
}

/** The parameter of an ellipse on the ray through a point, rad. */
export function ovalAngle(o: Pick<Oval, 'center' | 'major' | 'minor'>, [x, y]: Vec2): number {
  const [dx, dy] = [x - o.center[0], y - o.center[1]];
  const along = (dx * o.major[0] + dy * o.major[1]) / (o.major[0] ** 2 + o.major[1] ** 2);
  const across = (dx * o.minor[0] + dy * o.minor[1]) / (o.minor[0] ** 2 + o.minor[1] ** 2);
  return Math.atan2(across, along);
}

export function onRound(c: { center: Vec2; radius: number }, angle: number): Vec2 {
  return [c.center[0] + c.radius * Math.cos(angle), c.center[1] + c.radius * Math.sin(angle)];
}

export function onOval(o: Pick<Oval, 'center' | 'major' | 'minor'>, angle: number): Vec2 {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [o.center[0] + o.major[0] * c + o.minor[0] * s, o.center[1] + o.major[1] * c + o.minor[1] * s];
}

/** The point at parameter t in [0, 1] along a primitive. */
export function pointAt(p: Primitive, t: number): Vec2 {
  if (p.kind === 'line') return [p.from[0] + t * (p.to[0] - p.from[0]), p.from[1] + t * (p.to[1] - p.from[1])];
  if (p.kind === 'arc') return onRound(p, p.start + t * p.sweep);
  // Past a whole turn, parameters run on; a spline has no such thing.
  return p.kind === 'ellipse' ? onOval(p, p.start + t * p.sweep) : waveAt(p, t, 0);
}

/** Derivatives by t, of order 0, 1 or 2. */
export function derivativeAt(p: Primitive, t: number, order: 0 | 1 | 2): Vec2 {
  if (order === 0) return pointAt(p, t);
  if (p.kind === 'line') return order === 1 ? [p.to[0] - p.from[0], p.to[1] - p.from[1]] : [0, 0];
  if (p.kind === 'spline') return waveAt(p, t, order);
  const [major, minor]: readonly [Vec2, Vec2] =
    p.kind === 'arc' ? [[p.radius, 0], [0, p.radius]] : [p.major, p.minor]; // prettier-ignore
  const a = p.start + t * p.sweep + (order * Math.PI) / 2;
  const [c, s] = [Math.cos(a) * p.sweep ** order, Math.sin(a) * p.sweep ** order];
  return [major[0] * c + minor[0] * s, major[1] * c + minor[1] * s];
}

function waveAt(p: Wave, t: number, order: number): Vec2 {
  const b = basisAt(p.knots, p.degree, t, order);
  let [x, y] = [0, 0];
  b.forEach((w, i) => {
    if (w === 0) return;
    x += w * p.control[i]![0];
    y += w * p.control[i]![1];
  });
  return [x, y];
}

export function isWhole(p: Primitive): p is Round | Oval {
  return (p.kind === 'arc' || p.kind === 'ellipse') && p.sweep >= TAU - 1e-12;
}

/** [least x, least y, most x, most y]; for curves that of the whole curve, which is enough for a first test. */
export function boxOf(
  p:
    | Pick<Segment, 'kind' | 'from' | 'to'>
    | Pick<Round, 'kind' | 'center' | 'radius'>
    | Pick<Oval, 'kind' | 'center' | 'major' | 'minor'>
    | Pick<Wave, 'kind' | 'control'>,
): [number, number, number, number] {
  if (p.kind === 'arc') {
    const [x, y] = p.center;
    return [x - p.radius, y - p.radius, x + p.radius, y + p.radius];
  }
  if (p.kind === 'ellipse') {
    const [x, y] = p.center;
    const [w, h] = [Math.hypot(p.major[0], p.minor[0]), Math.hypot(p.major[1], p.minor[1])];
    return [x - w, y - h, x + w, y + h];
  }
  const points = p.kind === 'line' ? [p.from, p.to] : p.control;
  const xs = points.map((q) => q[0]);
  const ys = points.map((q) => q[1]);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

/** Length, mm; of ellipses and splines near enough to judge parameters by. */
export function lengthOf(p: Primitive): number {
  if (p.kind === 'line') return distance(p.from, p.to);
  if (p.kind === 'arc') return p.radius * p.sweep;
  if (p.kind === 'ellipse') return ((Math.hypot(...p.major) + Math.hypot(...p.minor)) / 2) * p.sweep;
  return p.control.slice(1).reduce((sum, q, i) => sum + distance(p.control[i]!, q), 0);
}

/** Polynomial spans of a spline piece between two of its parameters, as Bézier control points with their ranges. */
export const spansOf = (p: Pick<Wave, 'degree' | 'knots' | 'control'>) => bezierSpans(p.degree, p.knots, p.control);

const WHOLE: readonly [number, number] = [0, 1];

/**
 * The parameter of the nearest place on a primitive, within its ends.
 * @param range of parameters, of splines and ellipses
 */
export function nearestOn(p: Primitive, at: Vec2, [from, to] = WHOLE): { t: number; point: Vec2 } {
  if (p.kind === 'line') {
    const [dx, dy] = [p.to[0] - p.from[0], p.to[1] - p.from[1]];
    const t = Math.min(1, Math.max(0, ((at[0] - p.from[0]) * dx + (at[1] - p.from[1]) * dy) / (dx * dx + dy * dy)));
    return { t, point: pointAt(p, t) };
  }
  if (p.kind === 'arc') {
    let t = turn(angleAt(p.center, at) - p.start) / p.sweep;
    if (t > 1) t = distance(at, pointAt(p, 0)) < distance(at, pointAt(p, 1)) ? 0 : 1;
    return { t, point: pointAt(p, t) };
  }
  const samples = p.kind === 'ellipse' ? 48 : 12 * (p.control.length - p.degree);
  const shares = Array.from({ length: samples + 1 }, (_, i) => from + (i / samples) * (to - from));
  const away = shares.map((t) => distance(pointAt(p, t), at));
  // A curve that turns comes near in several places, and the nearest may lie between samples.
  const low = (i: number) => away[i]! <= (away[i - 1] ?? Infinity) && away[i]! <= (away[i + 1] ?? Infinity);
  let best = { t: from, off: Infinity };
  shares.forEach((t, i) => {
    if (!low(i)) return;
    const own = descended(p, at, t, from, to);
    if (own.off < best.off) best = own;
  });
  return { t: best.t, point: pointAt(p, best.t) };
}

/** From a parameter on to where the distance is least: Newton on the slope of its square, in shorter steps where that overshoots. */
function descended(p: Primitive, at: Vec2, start: number, from: number, to: number): { t: number; off: number } {
  const offAt = (t: number) => distance(pointAt(p, t), at);
  let [t, off] = [start, offAt(start)];
  for (let k = 0; k < 20; k++) {
    const [q, d1, d2] = [pointAt(p, t), derivativeAt(p, t, 1), derivativeAt(p, t, 2)];
    const [rx, ry] = [q[0] - at[0], q[1] - at[1]];
    const slope = rx * d1[0] + ry * d1[1];
    const bend = d1[0] ** 2 + d1[1] ** 2 + rx * d2[0] + ry * d2[1];
    let step = slope / (bend > 0 ? bend : d1[0] ** 2 + d1[1] ** 2 || 1);
    let next = Math.min(to, Math.max(from, t - step));
    for (let halved = 0; offAt(next) > off && halved < 20; halved++)
      next = Math.min(to, Math.max(from, t - (step /= 2)));
    if (offAt(next) > off || Math.abs(next - t) < 1e-14) break;
    [t, off] = [next, offAt(next)];
  }
  return { t, off };
}
