/** Curves of a sketch as plain geometry, for finding regions. Lengths mm, angles rad. */
import type { SketchGeometry } from '../schema.ts';

export type Vec2 = readonly [number, number];

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

export type Primitive = Segment | Round;

export const TAU = 2 * Math.PI;

/** Into [0, 2π). */
export function turn(angle: number): number {
  const a = angle % TAU;
  return a < 0 ? a + TAU : a;
}

/** All curves that bound regions; construction and zero-sized ones do not. */
export function primitivesOf(sketch: SketchGeometry, tolerance: number): Primitive[] {
  const at = (id: string): Vec2 => sketch.points[id] ?? [0, 0];
  const primitives: Primitive[] = [];
  for (const [curve, c] of Object.entries(sketch.curves)) {
    if (c.construction) continue;
    if (c.kind === 'line') {
      const from = at(c.from);
      const to = at(c.to);
      if (distance(from, to) > tolerance) primitives.push({ kind: 'line', curve, from, to });
    } else if (c.kind === 'circle') {
      if (c.radius > tolerance)
        primitives.push({ kind: 'arc', curve, center: at(c.center), radius: c.radius, start: 0, sweep: TAU });
    } else {
      const center = at(c.center);
      const radius = distance(center, at(c.from));
      const start = turn(angleAt(center, at(c.from)));
      const sweep = turn(angleAt(center, at(c.to)) - start) || TAU;
      if (radius > tolerance) primitives.push({ kind: 'arc', curve, center, radius, start, sweep });
    }
  }
  return primitives;
}

export function distance(a: Vec2, b: Vec2): number {
  return Math.hypot(b[0] - a[0], b[1] - a[1]);
}

function angleAt(center: Vec2, p: Vec2): number {
  return Math.atan2(p[1] - center[1], p[0] - center[0]);
}

export function onRound(c: { center: Vec2; radius: number }, angle: number): Vec2 {
  return [c.center[0] + c.radius * Math.cos(angle), c.center[1] + c.radius * Math.sin(angle)];
}

/** The point at parameter t in [0, 1] along a primitive. */
export function pointAt(p: Primitive, t: number): Vec2 {
  if (p.kind === 'line') return [p.from[0] + t * (p.to[0] - p.from[0]), p.from[1] + t * (p.to[1] - p.from[1])];
  return onRound(p, p.start + t * p.sweep);
}

export function isFullCircle(p: Primitive): p is Round {
  return p.kind === 'arc' && p.sweep >= TAU - 1e-12;
}

/** [least x, least y, most x, most y]; for arcs that of the whole circle, which is enough for a first test. */
export function boxOf(p: Primitive): [number, number, number, number] {
  if (p.kind === 'line') {
    return [
      Math.min(p.from[0], p.to[0]),
      Math.min(p.from[1], p.to[1]),
      Math.max(p.from[0], p.to[0]),
      Math.max(p.from[1], p.to[1]),
    ];
  }
  const [x, y] = p.center;
  return [x - p.radius, y - p.radius, x + p.radius, y + p.radius];
}

export function lengthOf(p: Primitive): number {
  return p.kind === 'line' ? distance(p.from, p.to) : p.radius * p.sweep;
}
