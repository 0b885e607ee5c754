/**
 * Lofts that leave their end sections square. The kernel's own know no tangents, so the sides are made here: of each
 * piece of the outlines a B-spline surface, along it as the outlines are, across it a cubic Hermite spline through
 * them (Farin, Curves and Surfaces for CAGD, piecewise cubic interpolation), in homogeneous coordinates, so that arcs
 * stay arcs. Sides and caps are then sewn to a solid.
 */
import { KernelError, type FaceParent, type Frame, type LoftSection, type Vec3 } from '@helb/core';
import type { Geom_BSplineCurve, OpenCascadeInstance, TopoDS_Edge, TopoDS_Shape } from 'replicad-opencascadejs';
import { facesOf, ShapeIndex } from './explore.ts';
import { cap, side, type Made } from './extrude.ts';
import { edgeOfPiece, faceOfLoops, point } from './profile.ts';
import { SEWN, sewnSolid } from './sewn.ts';
import type { Scope } from './scope.ts';

export type Outline = Exclude<LoftSection, { readonly at: Vec3 }>;
/** x, y, z times the weight, and the weight. */
type Pole = readonly [number, number, number, number];

/** How strongly the first and the last section are left square, 1 being as the distance to the next; null leaves them as it comes. */
export interface Pulls {
  readonly start: number | null;
  readonly end: number | null;
}

/** Parameters and weights nearer than this are the same. */
const SAME = 1e-9;

export function pulledLoft(oc: OpenCascadeInstance, scope: Scope, sections: readonly Outline[], pulls: Pulls): Made {
  const failed = () => new KernelError('The kernel could not make a body through these sections; move or turn one of them, or pull less.'); // prettier-ignore
  const centres = sections.map((s) => centreOf(oc, scope, s));
  const gaps = centres.slice(1).map((c, i) => Math.hypot(...[0, 1, 2].map((k) => c[k]! - centres[i]![k]!)));
  if (gaps.some((gap) => gap < SEWN)) throw failed();
  const leaving = endTangents(sections, centres, pulls);
  const sides = sections[0]!.pieces.map((_, k) => {
    const curves = alike(sections.map((s) => curveOf(oc, scope, edgeOfPiece(oc, scope, s.frame, s.pieces[k]!)))); // prettier-ignore
    return surfaceThrough(oc, scope, curves, gaps, leaving);
  });
  const caps = [sections[0]!, sections.at(-1)!].map((s) => faceOfLoops(oc, scope, s.frame, [{ pieces: s.pieces, area: 0 }]).face); // prettier-ignore
  const all: readonly TopoDS_Shape[] = [...sides, ...caps];
  const { solid: shape, became } = sewnSolid(oc, scope, all, failed);
  const index = new ShapeIndex(oc, facesOf(oc, scope, shape));
  const parents: FaceParent[][] = index.shapes.map(() => []);
  all.forEach((face, i) => {
    const from = i < sides.length ? side(i) : cap(i === sides.length ? 'start' : 'end');
    parents[index.indexOf(became(face))]?.push(from);
  });
  return { shape, faces: parents };
}

function centreOf(oc: OpenCascadeInstance, scope: Scope, { frame, pieces }: Outline): Vec3 {
  const { face } = faceOfLoops(oc, scope, frame, [{ pieces, area: 0 }]);
  const properties = scope.keep(new oc.GProp_GProps());
  oc.BRepGProp.SurfaceProperties(face, properties, false, false);
  const at = scope.keep(properties.CentreOfMass());
  return [at.X(), at.Y(), at.Z()];
}

/** Directions in which the ends are left, as long as they pull; null where it comes as it does. */
function endTangents(sections: readonly Outline[], centres: readonly Vec3[], { start, end }: Pulls) {
  const square = ({ normal }: Frame, from: Vec3, to: Vec3, pull: number): Vec3 => {
    const ahead = normal.reduce((sum, n, k) => sum + n * (to[k]! - from[k]!), 0);
    const sign = Math.sign(ahead) * pull;
    return [normal[0] * sign, normal[1] * sign, normal[2] * sign];
  };
  const [a, b] = [centres.at(-2)!, centres.at(-1)!];
  return {
    start: start === null ? null : square(sections[0]!.frame, centres[0]!, centres[1]!, start),
    end: end === null ? null : square(sections.at(-1)!.frame, a, b, end),
  };
}

/** An edge's curve as a B-spline over 0 … 1 that begins with weight 1. */
function curveOf(oc: OpenCascadeInstance, scope: Scope, edge: TopoDS_Edge): Geom_BSplineCurve {
  const told = oc.BRep_Tool.Curve(edge, 0, 1);
  const trimmed = scope.keep(new oc.Geom_TrimmedCurve(scope.keep(told.returnValue), told.First, told.Last, true, true));
  const curve = scope.keep(oc.GeomConvert.CurveToBSplineCurve(trimmed, oc.Convert_ParameterisationType.Convert_TgtThetaOver2)); // prettier-ignore
  if (curve.IsPeriodic()) curve.SetNotPeriodic();
  const [first, last] = [curve.Knot(1), curve.Knot(curve.NbKnots())];
  const knots = scope.keep(new oc.NCollection_Array1_double(1, curve.NbKnots()));
  for (let i = 1; i <= curve.NbKnots(); i++) knots.SetValue(i, (curve.Knot(i) - first) / (last - first));
  curve.SetKnots(knots);
  return curve;
}

/** Of one degree and with the same knots. */
function alike(curves: readonly Geom_BSplineCurve[]): readonly Geom_BSplineCurve[] {
  const degree = Math.max(...curves.map((c) => c.Degree()));
  for (const curve of curves) curve.IncreaseDegree(degree);
  const wanted: { at: number; times: number }[] = [];
  for (const curve of curves)
    for (let i = 1; i <= curve.NbKnots(); i++) {
      const [at, times] = [curve.Knot(i), curve.Multiplicity(i)];
      const known = wanted.find((w) => Math.abs(w.at - at) < SAME);
      if (known) known.times = Math.max(known.times, times);
      else wanted.push({ at, times });
    }
  for (const curve of curves) for (const { at, times } of wanted) if (at > SAME && at < 1 - SAME) curve.InsertKnot(at, times, SAME, false); // prettier-ignore
  const [first] = curves;
  const ends = curves.map((c) => [c.Weight(1), c.Weight(c.NbPoles())]);
  if (curves.some((c) => c.NbPoles() !== first!.NbPoles()) || ends.flat().some((w) => Math.abs(w - 1) > SAME))
    throw new KernelError('The outlines of these sections cannot be brought together smoothly; redraw one of them with lines, arcs or splines alone.'); // prettier-ignore
  return curves;
}

const polesOf = (scope: Scope, curve: Geom_BSplineCurve): Pole[] =>
  Array.from({ length: curve.NbPoles() }, (_, i) => {
    const [p, w] = [scope.keep(curve.Pole(i + 1)), curve.Weight(i + 1)];
    return [p.X() * w, p.Y() * w, p.Z() * w, w];
  });

function surfaceThrough(
  oc: OpenCascadeInstance,
  scope: Scope,
  curves: readonly Geom_BSplineCurve[],
  gaps: readonly number[],
  leaving: { readonly start: Vec3 | null; readonly end: Vec3 | null },
): TopoDS_Shape {
  const sections = curves.map((c) => polesOf(scope, c));
  const rows = sections[0]!.map((_, j) => rowsAcross(sections.map((s) => s[j]!), gaps, leaving)); // prettier-ignore
  const count = rows[0]!.length;
  const poles = scope.keep(new oc.NCollection_Array2_gp_Pnt(1, rows.length, 1, count));
  const weights = scope.keep(new oc.NCollection_Array2_double(1, rows.length, 1, count));
  rows.forEach((row, u) =>
    row.forEach(([x, y, z, w], v) => {
      if (!(w > 0)) throw new KernelError('Pulled so much, the sides of this loft turn inside out; pull less.');
      poles.SetValue(u + 1, v + 1, point(oc, scope, [x / w, y / w, z / w]));
      weights.SetValue(u + 1, v + 1, w);
    }),
  );
  const [model] = curves as [Geom_BSplineCurve];
  const numbers = (values: readonly number[]) => {
    const array = scope.keep(new oc.NCollection_Array1_double(1, values.length));
    values.forEach((value, i) => array.SetValue(i + 1, value));
    return array;
  };
  const counts = (values: readonly number[]) => {
    const array = scope.keep(new oc.NCollection_Array1_int(1, values.length));
    values.forEach((value, i) => array.SetValue(i + 1, value));
    return array;
  };
  const along = Array.from({ length: model.NbKnots() }, (_, i) => i + 1);
  const across = gaps.reduce<number[]>((all, gap) => [...all, all.at(-1)! + gap], [0]);
  const surface = scope.keep(
    new oc.Geom_BSplineSurface(
      poles, weights, numbers(along.map((i) => model.Knot(i))), numbers(across),
      counts(along.map((i) => model.Multiplicity(i))), counts(across.map((_, i) => (i === 0 || i === gaps.length ? 4 : 2))),
      model.Degree(), 3, false, false,
    ),
  ); // prettier-ignore
  return scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeFace(surface, SEWN)).Face());
}

/** The poles across one pole of the outlines: Bézier points of the spans, those between them left away (knots are double). */
function rowsAcross(
  through: readonly Pole[],
  gaps: readonly number[],
  leaving: { readonly start: Vec3 | null; readonly end: Vec3 | null },
): Pole[] {
  const last = through.length - 1;
  const slope = (i: number): Pole => {
    const [from, to] = [Math.max(0, i - 1), Math.min(last, i + 1)];
    const way = gaps.slice(from, to).reduce((sum, gap) => sum + gap, 0);
    return through[i]!.map((_, k) => (through[to]![k]! - through[from]![k]!) / way) as unknown as Pole;
  };
  const tangent = (i: number): Pole => {
    const pull = i === 0 ? leaving.start : i === last ? leaving.end : null;
    const w = through[i]![3];
    return pull ? [pull[0] * w, pull[1] * w, pull[2] * w, 0] : slope(i);
  };
  const moved = (i: number, by: number): Pole => through[i]!.map((c, k) => c + by * tangent(i)[k]!) as unknown as Pole;
  return [through[0]!, ...gaps.flatMap((gap, i) => [moved(i, gap / 3), moved(i + 1, -gap / 3)]), through[last]!];
}
