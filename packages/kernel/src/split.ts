/** Solids cut apart along a plane. */
import { KernelError, type Frame } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { listOf, solidsOf } from './combine.ts';
import { boxOf } from './describe.ts';
import type { Made } from './extrude.ts';
import { along, point } from './profile.ts';
import type { Scope } from './scope.ts';

/** @returns all pieces; faces along the cut come from the plane, the argument after the last solid */
export function splitSolids(
  oc: OpenCascadeInstance,
  scope: Scope,
  solids: readonly TopoDS_Shape[],
  plane: Frame,
): Made[] {
  const sheet = sheetThrough(oc, scope, solids, plane);
  const algorithm = scope.keep(new oc.BRepAlgoAPI_Splitter());
  algorithm.SetArguments(listOf(oc, scope, solids));
  algorithm.SetTools(listOf(oc, scope, [sheet]));
  algorithm.SetToFillHistory(true);
  algorithm.Build(scope.keep(new oc.Message_ProgressRange()));
  if (!algorithm.IsDone() || algorithm.HasErrors())
    throw new KernelError('The kernel could not split these bodies along the plane; move the plane a little.');
  const made = solidsOf(oc, scope, algorithm, [...solids, sheet]);
  algorithm.Clear();
  return made;
}

/** The part of the plane that reaches beyond all of them. */
function sheetThrough(
  oc: OpenCascadeInstance,
  scope: Scope,
  solids: readonly TopoDS_Shape[],
  plane: Frame,
): TopoDS_Shape {
  const boxes = solids.map((s) => boxOf(oc, scope, s));
  const corners = boxes.flatMap(({ min, max }) =>
    [min[0], max[0]].flatMap((x) => [min[1], max[1]].flatMap((y) => [min[2], max[2]].map((z) => [x, y, z] as const))),
  );
  const reach = Math.max(...corners.map((c) => Math.hypot(c[0] - plane.origin[0], c[1] - plane.origin[1], c[2] - plane.origin[2]))); // prettier-ignore
  const side = 2 * reach + 1;
  const normal = scope.keep(new oc.gp_Dir(...plane.normal));
  const surface = scope.keep(new oc.gp_Pln(point(oc, scope, along(plane, 0, 0, 0)), normal));
  return scope.keep(scope.keep(new oc.BRepBuilderAPI_MakeFace(surface, -side, side, -side, side)).Face());
}
