/** Solids of faces that were made one by one. */
import type { KernelError } from '@helb/core';
import type { BRepBuilderAPI_Sewing, OpenCascadeInstance, TopoDS_Shape, TopoDS_Solid } from 'replicad-opencascadejs';
import { distinct } from './explore.ts';
import type { Scope } from './scope.ts';

/** How near, mm, edges lie that are sewn together. */
export const SEWN = 1e-5;

export interface Sewn {
  readonly solid: TopoDS_Solid;
  /** What became of a face that went in. */
  became(face: TopoDS_Shape): TopoDS_Shape;
}

/** @param failed what to say where they do not close to one solid. @throws KernelError */
export function sewnSolid(
  oc: OpenCascadeInstance,
  scope: Scope,
  faces: readonly TopoDS_Shape[],
  failed: () => KernelError,
): Sewn {
  // prettier-ignore
  const sewing: BRepBuilderAPI_Sewing = scope.keep(new oc.BRepBuilderAPI_Sewing(SEWN, true, true, true, false));
  for (const face of faces) sewing.Add(face);
  sewing.Perform(scope.keep(new oc.Message_ProgressRange()));
  const shells = distinct(oc, scope, scope.keep(sewing.SewedShape()), oc.TopAbs_ShapeEnum.TopAbs_SHELL);
  if (sewing.NbFreeEdges() > 0 || shells.length !== 1) throw failed();
  const maker = scope.keep(new oc.BRepBuilderAPI_MakeSolid(scope.keep(oc.TopoDS.Shell(shells[0]!))));
  if (!maker.IsDone()) throw failed();
  const solid = maker.Solid();
  // Its shell may look inwards: then it is turned about.
  oc.BRepLib.OrientClosedSolid(solid);
  return { solid, became: (face) => (sewing.IsModified(face) ? scope.keep(sewing.Modified(face)) : face) };
}
