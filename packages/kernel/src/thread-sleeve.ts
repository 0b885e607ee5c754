/**
 * A sleeve with a thread on one side and a plain cylinder on the other, flat at both ends. No boolean is asked for: the
 * flanks, crest and root are written down as surfaces that end on the two planes, and sewn with their caps.
 *
 * Of a corner of the thread's form at height o within the pitch p and radius r, the place at height z is
 * r cos φ, r sin φ, z with φ = 2π (z − o) / p. Between two corners r and o run evenly, so that x = U(s) C(z) + V(s) S(z)
 * is a sum of products of functions of one variable each: quintic Hermite splines (Farin, Curves and Surfaces for CAGD)
 * of those give the poles of the surface, and neighbours share their helix exactly.
 */
import { KernelError, TAU, type ThreadSleeve, type Vec2, type Vec3 } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Edge, TopoDS_Face, TopoDS_Shape, TopoDS_Solid, TopoDS_Wire } from 'replicad-opencascadejs'; // prettier-ignore
import { distinct } from './explore.ts';
import { point } from './profile.ts';
import { SEWN, sewnSolid } from './sewn.ts';
import type { Scope } from './scope.ts';
import { faceOfPoles, type Knots } from './spline-surface.ts';

/** Over this angle, rad, a quintic Hermite spline is off a circle by 5e-6 of its radius (h⁶ / 46080): with more spans all that measures it takes longer. */
const SPAN = TAU / 8;
const DEGREE = 5;

/** @throws KernelError */
export function threadSleeve(oc: OpenCascadeInstance, scope: Scope, sleeve: ThreadSleeve): TopoDS_Solid {
  const { from, to, form, plain } = sleeve;
  const strips = form.slice(1).map((corner, i) => stripFace(oc, scope, sleeve, form[i]!, corner));
  const cylinder = scope.keep(new oc.gp_Cylinder(axesAt(oc, scope, 0), plain));
  const wall = scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeFace(cylinder, 0, TAU, from, to)).Face());
  const outside = plain < Math.min(...form.map(([, radius]) => radius));
  const caps = [from, to].map((height) => {
    const ring = ringAt(oc, scope, height, plain);
    const spiral = wireOf(oc, scope, strips.map((face) => edgeAt(oc, scope, face, height))); // prettier-ignore
    return capOf(oc, scope, height, outside ? [spiral, ring] : [ring, spiral]);
  });
  const failed = () => new KernelError('The kernel could not close this thread; give another pitch or length.');
  return sewnSolid(oc, scope, [...strips, wall, ...caps], failed).solid;
}

function axesAt(oc: OpenCascadeInstance, scope: Scope, height: number) {
  return scope.keep(new oc.gp_Ax3(point(oc, scope, [0, 0, height]), scope.keep(new oc.gp_Dir(0, 0, 1)), scope.keep(new oc.gp_Dir(1, 0, 0)))); // prettier-ignore
}

/** The surface between the helices of two corners of the form. */
function stripFace(
  oc: OpenCascadeInstance,
  scope: Scope,
  { from, to, pitch, left }: ThreadSleeve,
  [low, inner]: Vec2,
  [high, outer]: Vec2,
): TopoDS_Face {
  const turn = (left ? -1 : 1) * (TAU / pitch);
  const [alongSpans, acrossSpans] = [(to - from) / pitch, (high - low) / pitch].map((turns) => Math.max(1, Math.ceil((turns * TAU) / SPAN))); // prettier-ignore
  const lean = (outer - inner) / (high - low);
  // Of o, over low … high: r cos ωo and r sin ωo with their slopes; of z, over from … to: cos ωz, sin ωz and z.
  const across = (f: (o: number) => Jet) => hermite(low, high, acrossSpans!, f);
  const along = (f: (z: number) => Jet) => hermite(from, to, alongSpans!, f);
  const [cos, sin] = [cosine(turn), sine(turn)];
  const times =
    (g: (o: number) => Jet) =>
    (o: number): Jet => {
      const [r, [g0, g1, g2]] = [inner + lean * (o - low), g(o)];
      return [r * g0, lean * g0 + r * g1, 2 * lean * g1 + r * g2];
    };
  const [u, v] = [across(times(cos)), across(times(sin))];
  const [c, s, z] = [along(cos), along(sin), along((at) => [at, 1, 0])];
  const rows = u.map((_, i) =>
    // cos(ωz − ωo) and sin(ωz − ωo).
    c.map((__, j): Vec3 => [u[i]! * c[j]! + v[i]! * s[j]!, u[i]! * s[j]! - v[i]! * c[j]!, z[j]!]),
  );
  return faceOfPoles(oc, scope, rows, knotsOf(low, high, acrossSpans!), knotsOf(from, to, alongSpans!));
}

/** A value with its first and second derivative. */
type Jet = readonly [number, number, number];
const cosine = (w: number) => (t: number): Jet => [Math.cos(w * t), -w * Math.sin(w * t), -w * w * Math.cos(w * t)]; // prettier-ignore
const sine = (w: number) => (t: number): Jet => [Math.sin(w * t), w * Math.cos(w * t), -w * w * Math.sin(w * t)]; // prettier-ignore

/** Poles of the spline of degree 5 with triple knots that has these values and derivatives at even knots. */
function hermite(from: number, to: number, spans: number, f: (t: number) => Jet): number[] {
  const h = (to - from) / spans;
  const at = Array.from({ length: spans + 1 }, (_, i) => f(from + i * h));
  const ahead = ([a, b, c]: Jet, k: 0 | 1 | 2) => [a, a + (h * b) / 5, a + (2 * h * b) / 5 + (h * h * c) / 20][k]!;
  const behind = ([a, b, c]: Jet, k: 0 | 1 | 2) => [a, a - (h * b) / 5, a - (2 * h * b) / 5 + (h * h * c) / 20][k]!;
  const poles = [ahead(at[0]!, 0), ahead(at[0]!, 1)];
  for (let i = 0; i < spans; i++) {
    poles.push(ahead(at[i]!, 2), behind(at[i + 1]!, 2));
    // Between two spans the blossom of the neighbouring knots and the knot itself three times.
    if (i < spans - 1) poles.push(2 * ahead(at[i + 1]!, 1) - ahead(at[i + 1]!, 2));
  }
  poles.push(behind(at[spans]!, 1), behind(at[spans]!, 0));
  return poles;
}

function knotsOf(from: number, to: number, spans: number): Knots {
  return {
    at: Array.from({ length: spans + 1 }, (_, i) => from + ((to - from) * i) / spans),
    counts: Array.from({ length: spans + 1 }, (_, i) => (i === 0 || i === spans ? DEGREE + 1 : 3)),
    degree: DEGREE,
  };
}

/** The edge of a face that lies at this height. */
function edgeAt(oc: OpenCascadeInstance, scope: Scope, face: TopoDS_Shape, height: number): TopoDS_Edge {
  const { TopAbs_EDGE, TopAbs_VERTEX } = oc.TopAbs_ShapeEnum;
  const level = (edge: TopoDS_Shape) =>
    distinct(oc, scope, edge, TopAbs_VERTEX).every((v) => Math.abs(scope.keep(oc.BRep_Tool.Pnt(scope.keep(oc.TopoDS.Vertex(v)))).Z() - height) < SEWN); // prettier-ignore
  return scope.keep(oc.TopoDS.Edge(distinct(oc, scope, face, TopAbs_EDGE).find(level)!));
}

function ringAt(oc: OpenCascadeInstance, scope: Scope, height: number, radius: number): TopoDS_Wire {
  const axis = scope.keep(new oc.gp_Ax2(point(oc, scope, [0, 0, height]), scope.keep(new oc.gp_Dir(0, 0, 1)), scope.keep(new oc.gp_Dir(1, 0, 0)))); // prettier-ignore
  const circle = scope.keep(new oc.gp_Circ(axis, radius));
  return wireOf(oc, scope, [scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeEdge(circle)).Edge())]);
}

function wireOf(oc: OpenCascadeInstance, scope: Scope, edges: readonly TopoDS_Edge[]): TopoDS_Wire {
  const maker = scope.keep(new oc.BRepBuilderAPI_MakeWire());
  for (const edge of edges) maker.Add(edge);
  if (!maker.IsDone()) throw new KernelError('The kernel could not close the end of this thread.');
  return scope.keep(maker.Wire());
}

/** The flat end between an outer and an inner wire. */
function capOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  height: number,
  [outer, inner]: readonly TopoDS_Wire[],
): TopoDS_Face {
  // prettier-ignore
  const plane = scope.keep(new oc.gp_Pln(axesAt(oc, scope, height)));
  const disc = (wire: TopoDS_Wire) => scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeFace(plane, wire, true)).Face());
  // Wires are turned so that what they bound lies within; a hole runs the other way.
  const hole = scope.keep(oc.BRepTools.OuterWire(disc(inner!)));
  const maker = scope.keep(new oc.BRepBuilderAPI_MakeFace(disc(outer!), scope.keep(oc.TopoDS.Wire(scope.keep(hole.Reversed()))))); // prettier-ignore
  return scope.keep(maker.Face());
}
