/** B-splines that are written down by their poles. */
import type { Vec3 } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Face } from 'replicad-opencascadejs';
import { point } from './profile.ts';
import { SEWN } from './sewn.ts';
import type { Scope } from './scope.ts';

/** Where a B-spline bends: each knot once, how often it counts, and the degree. */
export interface Knots {
  readonly at: readonly number[];
  readonly counts: readonly number[];
  readonly degree: number;
}

/** As the kernel takes them. */
export function knotArrays(oc: OpenCascadeInstance, scope: Scope, { at, counts }: Knots) {
  const places = scope.keep(new oc.NCollection_Array1_double(1, at.length));
  const times = scope.keep(new oc.NCollection_Array1_int(1, at.length));
  at.forEach((value, i) => places.SetValue(i + 1, value));
  counts.forEach((value, i) => times.SetValue(i + 1, value));
  return { at: places, counts: times };
}

/** @param rows one for each pole in the first direction, each as long as there are poles in the second */
export function faceOfPoles(
  oc: OpenCascadeInstance,
  scope: Scope,
  rows: readonly (readonly Vec3[])[],
  u: Knots,
  v: Knots,
): TopoDS_Face {
  const poles = scope.keep(new oc.NCollection_Array2_gp_Pnt(1, rows.length, 1, rows[0]!.length));
  rows.forEach((row, i) => row.forEach((place, j) => poles.SetValue(i + 1, j + 1, point(oc, scope, place))));
  const [inU, inV] = [knotArrays(oc, scope, u), knotArrays(oc, scope, v)];
  const surface = scope.keep(new oc.Geom_BSplineSurface(poles, inU.at, inV.at, inU.counts, inV.counts, u.degree, v.degree, false, false)); // prettier-ignore
  return scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeFace(surface, SEWN)).Face());
}
