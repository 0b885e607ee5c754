/** Places and normals of surfaces, along lines and circles of them with as few questions to the kernel as can be. */
import type { Vec3 } from '@helb/core';
import type { BRepAdaptor_Surface } from 'replicad-opencascadejs';

/** Place, and normal as long as the parameters stretch there. */
export interface Local {
  readonly p: Vec3;
  readonly n: Vec3;
}

export function localAt(surface: BRepAdaptor_Surface, u: number, v: number): Local {
  // Of offset surfaces the kernel's EvalDN along u is wrong by tenths; this is right.
  const { Point: point, D1U: du, D1V: dv } = surface.EvalD1(u, v);
  const p: Vec3 = [point.X(), point.Y(), point.Z()];
  du.Cross(dv);
  const n: Vec3 = [du.X(), du.Y(), du.Z()];
  for (const used of [point, du, dv]) used.delete();
  return { p, n };
}

export const derivative = (surface: BRepAdaptor_Surface, u: number, v: number, inU: number, inV: number): Vec3 => {
  const d = surface.EvalDN(u, v, inU, inV);
  const own: Vec3 = [d.X(), d.Y(), d.Z()];
  d.delete();
  return own;
};

/** Along a straight line of the surface, from the place at 0 on: the kernel is asked once for the whole line. */
export function alongLine({ p, n }: Local, way: Vec3): (t: number) => Local {
  return (t) => ({ p: [p[0] + t * way[0], p[1] + t * way[1], p[2] + t * way[2]], n });
}

/** A circle about the axis of a turned surface, u the angle: C + X cos u + Y sin u, and how Sᵥ leaves it at u = 0. */
interface Circle {
  readonly c: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
  readonly up: Vec3;
}

/** It follows from three places and one derivative: X = S(0) − C, Y = S(π/2) − C. */
function circleAt(surface: BRepAdaptor_Surface, v: number): Circle {
  const at = (u: number): Vec3 => {
    const point = surface.EvalD0(u, v);
    const own: Vec3 = [point.X(), point.Y(), point.Z()];
    point.delete();
    return own;
  };
  const [first, quarter, half] = [at(0), at(Math.PI / 2), at(Math.PI)];
  const c = first.map((x, i) => (x + half[i]!) / 2) as unknown as Vec3;
  return { c, x: minus(first, c), y: minus(quarter, c), up: derivative(surface, 0, v, 0, 1) };
}

/** Of cylinders, cones, spheres and tori all circles follow from one or two, and the kernel is asked no more. */
export function circlesOf(surface: BRepAdaptor_Surface): (v: number) => Circle {
  const first = circleAt(surface, 0);
  switch (String(surface.GetType())) {
    case 'GeomAbs_Cylinder':
    case 'GeomAbs_Cone': {
      const other = circleAt(surface, 1);
      return (v) => ({ c: mixed(first.c, other.c, v), x: mixed(first.x, other.x, v), y: mixed(first.y, other.y, v), up: first.up }); // prettier-ignore
    }
    case 'GeomAbs_Sphere':
      return (v) => circleUp(first, ORIGIN, ORIGIN, v);
    case 'GeomAbs_Torus': {
      const inmost = circleAt(surface, Math.PI);
      return (v) => circleUp(first, mixed(first.x, inmost.x, 0.5), mixed(first.y, inmost.y, 0.5), v);
    }
    default:
      return (v) => circleAt(surface, v);
  }
}
const ORIGIN: Vec3 = [0, 0, 0];
const mixed = (p: Vec3, q: Vec3, t: number): Vec3 => [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1]), p[2] + t * (q[2] - p[2])]; // prettier-ignore

/** Of a round turned about the axis: v is the angle in it, from the equator; its middle goes round at (mx, my). */
function circleUp({ c, x, y, up }: Circle, mx: Vec3, my: Vec3, v: number): Circle {
  const [cos, sin] = [Math.cos(v), Math.sin(v)];
  const of = (make: (i: number) => number): Vec3 => [make(0), make(1), make(2)];
  return {
    c: of((i) => c[i]! + sin * up[i]!),
    x: of((i) => mx[i]! + cos * (x[i]! - mx[i]!)),
    y: of((i) => my[i]! + cos * (y[i]! - my[i]!)),
    up: of((i) => cos * up[i]! - sin * (x[i]! - mx[i]!)),
  };
}

/** Along such a circle: Sᵤ = Y cos u − X sin u, and Sᵥ turns with u. */
export function alongCircle({ c, x, y, up }: Circle): (u: number) => Local {
  const r = Math.hypot(...x);
  const rate = r > 0 ? 1 / (r * r) : 0;
  // The part of Sᵥ along X, along Y, and along the axis.
  const [a, b] = [dot(up, x) * rate, dot(up, y) * rate];
  const rise: Vec3 = [up[0] - a * x[0] - b * y[0], up[1] - a * x[1] - b * y[1], up[2] - a * x[2] - b * y[2]];
  return (u) => {
    const [cos, sin] = [Math.cos(u), Math.sin(u)];
    const [outX, outY, outZ] = [0, 1, 2].map((i) => x[i]! * cos + y[i]! * sin) as [number, number, number];
    const [onX, onY, onZ] = [0, 1, 2].map((i) => y[i]! * cos - x[i]! * sin) as [number, number, number];
    const [sx, sy, sz] = [a * outX + b * onX + rise[0], a * outY + b * onY + rise[1], a * outZ + b * onZ + rise[2]];
    return {
      p: [c[0] + outX, c[1] + outY, c[2] + outZ],
      n: [onY * sz - onZ * sy, onZ * sx - onX * sz, onX * sy - onY * sx],
    };
  };
}

const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
