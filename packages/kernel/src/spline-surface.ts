/** Curves and surfaces as B-splines in homogeneous coordinates, so that arcs stay arcs. */
import { KernelError } from '@helb/core';
import type { Geom_BSplineCurve, OpenCascadeInstance, TopoDS_Edge, TopoDS_Face } from 'replicad-opencascadejs';
import { point } from './profile.ts';
import { SEWN } from './sewn.ts';
import type { Scope } from './scope.ts';

/** x, y, z times the weight, and the weight. */
export type Pole = readonly [number, number, number, number];

/** Where a B-spline bends: each knot once, how often it counts, and the degree. */
export interface Knots {
  readonly at: readonly number[];
  readonly counts: readonly number[];
  readonly degree: number;
}

/** Parameters and weights nearer than this are the same. */
const SAME = 1e-9;

/** An edge's curve as a B-spline over 0 … 1 that begins with weight 1. */
export function curveOf(oc: OpenCascadeInstance, scope: Scope, edge: TopoDS_Edge): Geom_BSplineCurve {
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
export function alike(curves: readonly Geom_BSplineCurve[]): readonly Geom_BSplineCurve[] {
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

export const polesOf = (scope: Scope, curve: Geom_BSplineCurve): Pole[] =>
  Array.from({ length: curve.NbPoles() }, (_, i) => {
    const [p, w] = [scope.keep(curve.Pole(i + 1)), curve.Weight(i + 1)];
    return [p.X() * w, p.Y() * w, p.Z() * w, w];
  });

export function knotsOf(curve: Geom_BSplineCurve): Knots {
  const index = Array.from({ length: curve.NbKnots() }, (_, i) => i + 1);
  return {
    at: index.map((i) => curve.Knot(i)),
    counts: index.map((i) => curve.Multiplicity(i)),
    degree: curve.Degree(),
  };
}

/**
 * @param rows one for each pole in the first direction, each as long as there are poles in the second
 * @param insideOut what to say where weights vanish
 * @throws KernelError
 */
export function faceOfPoles(
  oc: OpenCascadeInstance,
  scope: Scope,
  rows: readonly (readonly Pole[])[],
  u: Knots,
  v: Knots,
  insideOut: string,
): TopoDS_Face {
  const count = rows[0]!.length;
  const poles = scope.keep(new oc.NCollection_Array2_gp_Pnt(1, rows.length, 1, count));
  const weights = scope.keep(new oc.NCollection_Array2_double(1, rows.length, 1, count));
  rows.forEach((row, i) =>
    row.forEach(([x, y, z, w], j) => {
      if (!(w > 0)) throw new KernelError(insideOut);
      poles.SetValue(i + 1, j + 1, point(oc, scope, [x / w, y / w, z / w]));
      weights.SetValue(i + 1, j + 1, w);
    }),
  );
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
  const surface = scope.keep(
    new oc.Geom_BSplineSurface(
      poles, weights, numbers(u.at), numbers(v.at), counts(u.counts), counts(v.counts), u.degree, v.degree, false, false,
    ),
  ); // prettier-ignore
  return scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeFace(surface, SEWN)).Face());
}
