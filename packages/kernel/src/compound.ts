/** Several shapes as one. */
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import type { Scope } from './scope.ts';

export function compoundOf(oc: OpenCascadeInstance, scope: Scope, shapes: readonly TopoDS_Shape[]): TopoDS_Shape {
  const compound = scope.keep(new oc.TopoDS_Compound());
  const builder = scope.keep(new oc.TopoDS_Builder());
  builder.MakeCompound(compound);
  for (const shape of shapes) builder.Add(compound, shape);
  return compound;
}
