/** The corner that two faces would make if they were carried on to each other over what lies between them. */
import { StepFailure, type Body } from '../../names/body.ts';
import type { EdgeCurve, SolidKernel } from '../../solid/kernel.ts';
import { frameOfFace, meeting } from '../../space/planes.ts';
import { cross, dot, further, minus, opposite, unit, type Axis, type Frame, type Vec3 } from '../../space/vector.ts';

/** Directions nearer than this are the same; sine. */
const SAME = 1e-7;

export interface Corner {
  /** Its origin is the corner, x runs along the first face, and the second lies on the side of y. */
  readonly frame: Frame;
  /** Between the faces, rad. */
  readonly angle: number;
  /** Is material taken off, as from an outer corner? */
  readonly outer: boolean;
  /** From the corner along each face: where it begins, and where it ends; mm. */
  readonly reach: readonly [Reach, Reach];
  /** Along the frame's normal, mm, of a straight one. */
  readonly length: number;
  /** About which a round one runs. */
  readonly axis: Axis | null;
  /** What lies between them. */
  readonly between: readonly number[];
}

interface Reach {
  readonly from: number;
  readonly to: number;
}

interface Bound {
  readonly curve: EdgeCurve;
  readonly beside: number;
}

/** @throws StepFailure where they make none */
export function cornerOf(body: Body, one: number, other: number, kernel: SolidKernel): Corner {
  const { faces, edges } = body.facts;
  const curves = kernel.curves(body.solid);
  const bounds = (face: number): Bound[] =>
    edges.flatMap((e, i) => {
      const beside = e.faces.find((f) => f !== face);
      return e.faces.includes(face) && beside !== undefined ? [{ curve: curves[i]!, beside }] : [];
    });
  const beside = (face: number) => new Set(bounds(face).map((b) => b.beside));
  const between = [...beside(one)].filter((f) => beside(other).has(f) && lies(f, bounds, one, other, faces));
  if (between.length === 0)
    throw new StepFailure('These faces neither meet nor have one face alone between them; pick two that do.');
  const [a, b] = [faces[one]!, faces[other]!];
  if (a.normal && b.normal) return straight(body, [one, other], between, bounds);
  const round = [a, b].findIndex((f) => f.axis);
  const flat = [a, b].findIndex((f) => f.normal);
  if (round < 0 || flat < 0 || Math.hypot(...cross([a, b][round]!.axis!.direction, [a, b][flat]!.normal!)) > SAME)
    throw new StepFailure('Over what lies between them only two flat faces are rounded, or a flat one and a cylinder that stands square on it; fillet edges instead.'); // prettier-ignore
  const ring = turned(body, [one, other][flat]!, [one, other][round]!, between, bounds);
  return flat === 0 ? ring : swapped(ring);
}

/** What lies between two flat faces runs along both; what is beside both at their ends does not. */
function lies(
  face: number,
  bounds: (face: number) => Bound[],
  one: number,
  other: number,
  faces: Body['facts']['faces'],
): boolean {
  const [n, m] = [faces[one]!.normal, faces[other]!.normal];
  if (!n || !m) return true;
  const along = unit(cross(n, m));
  if (!along) return true;
  return bounds(face).some(({ curve, beside }) => beside === one && Math.abs(dot(unit(minus(curve.to, curve.from)) ?? n, along)) > 1 - SAME); // prettier-ignore
}

function straight(
  { facts: { faces } }: Body,
  [one, other]: readonly [number, number],
  between: readonly number[],
  bounds: (face: number) => Bound[],
): Corner {
  const [a, b] = [faces[one]!, faces[other]!];
  const [n, m] = [a.normal!, b.normal!];
  const along = unit(cross(n, m));
  if (!along || Math.hypot(...cross(n, m)) < SAME)
    throw new StepFailure('These faces are parallel, and no corner lies between them; round the one between fully instead.'); // prettier-ignore
  const at = meeting(frameOfFace(a.center, n), frameOfFace(b.center, m));
  const away = (center: Vec3, normal: Vec3): Vec3 => {
    const way = cross(along, normal);
    return dot(minus(center, at), way) < 0 ? opposite(way) : way;
  };
  const [e1, e2] = [away(a.center, n), away(b.center, m)];
  const outer = dot(n, e2) < 0;
  if (outer !== dot(m, e1) < 0) throw new StepFailure('These faces look past each other, and no corner lies between them; pick others.'); // prettier-ignore
  for (const face of between)
    for (const { beside } of bounds(face)) {
      const end = faces[beside]!;
      if (beside === one || beside === other || between.includes(beside)) continue;
      if (!end.normal || Math.abs(dot(end.normal, along)) < 1 - SAME)
        throw new StepFailure('What lies between these faces does not end square; round it before it is cut off, or fillet edges.'); // prettier-ignore
    }
  const places = between.flatMap((f) => bounds(f).flatMap(({ curve }) => curve.samples.map((p) => dot(minus(p, at), along)))); // prettier-ignore
  const [low, high] = [Math.min(...places), Math.max(...places)];
  const angle = Math.acos(Math.max(-1, Math.min(1, dot(e1, e2))));
  const y = unit(minus(e2, [e1[0] * dot(e1, e2), e1[1] * dot(e1, e2), e1[2] * dot(e1, e2)]))!;
  const normal = cross(e1, y);
  const ahead = dot(normal, along) > 0;
  const reach = (face: number, way: Vec3): Reach => {
    const far = (of: readonly Bound[]) => Math.max(...of.flatMap(({ curve }) => curve.samples.map((p) => dot(minus(p, at), way)))); // prettier-ignore
    return { from: far(bounds(face).filter((e) => between.includes(e.beside))), to: far(bounds(face)) };
  };
  return {
    frame: { origin: further(at, along, ahead ? low : high), x: e1, y, normal },
    angle,
    outer,
    reach: [reach(one, e1), reach(other, e2)],
    length: high - low,
    axis: null,
    between,
  };
}

/** Of a flat face and a cylinder that stands on it, all round. */
function turned(
  { facts: { faces } }: Body,
  flat: number,
  round: number,
  between: readonly number[],
  bounds: (face: number) => Bound[],
): Corner {
  const { normal, center } = faces[flat]!;
  const { axis, radius } = faces[round]!;
  const up = normal!;
  const level = dot(minus(center, axis!.origin), up);
  const height = (p: Vec3) => dot(minus(p, axis!.origin), up) - level;
  const off = (p: Vec3) => {
    const out = minus(p, axis!.origin);
    return Math.hypot(...minus(out, [up[0] * dot(out, up), up[1] * dot(out, up), up[2] * dot(out, up)]));
  };
  const near = (face: number) => bounds(face).filter((e) => between.includes(e.beside));
  if (
    ![...near(flat), ...near(round)].every(
      ({ curve }) => curve.kind === 'ellipse' && curve.whole && curve.major === curve.minor,
    )
  )
    // prettier-ignore
    throw new StepFailure('What lies between these faces does not run all round; fillet edges instead.');
  const of = (edges: readonly Bound[], value: (p: Vec3) => number) => edges.flatMap(({ curve }) => curve.samples.map(value)); // prettier-ignore
  const begins = Math.max(...of(near(flat), off));
  const inwards = begins >= Math.max(...of(bounds(flat), off)) - SAME;
  const heights = of(bounds(round), height);
  const upwards = Math.max(...heights) > -Math.min(...heights);
  const r = radius!;
  const aside = (value: number) => (inwards ? r - value : value - r);
  const others = bounds(flat).filter((e) => !between.includes(e.beside));
  // Begun where the circles begin: seams that do not lie on each other the kernel joins badly.
  const begin = minus(near(flat)[0]!.curve.from, axis!.origin);
  const x0 = unit(minus(begin, [up[0] * dot(begin, up), up[1] * dot(begin, up), up[2] * dot(begin, up)]))!;
  const x = inwards ? opposite(x0) : x0;
  const y = upwards ? up : opposite(up);
  const foot = further(axis!.origin, up, level);
  return {
    frame: { origin: further(foot, x0, r), x, y, normal: cross(x, y) },
    angle: Math.PI / 2,
    outer: !upwards,
    reach: [
      { from: Math.max(...of(near(flat), (p) => aside(off(p)))), to: others.length > 0 ? Math.min(...of(others, (p) => aside(off(p)))) : r }, // prettier-ignore
      { from: Math.max(...of(near(round), (p) => Math.abs(height(p)))), to: Math.max(...heights.map(Math.abs)) },
    ],
    length: 0,
    axis: { origin: foot, direction: up },
    between,
  };
}

/** The same corner, the second face first: only where they stand square on each other. */
function swapped(corner: Corner): Corner {
  const { frame, reach } = corner;
  return { ...corner, frame: { ...frame, x: frame.y, y: frame.x, normal: opposite(frame.normal) }, reach: [reach[1], reach[0]] }; // prettier-ignore
}
