import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import type { Scope } from './scope.ts';

/** Swept against its profile's normal, the kernel's solid is inside out; here it is turned about. */
export function facingOut(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): TopoDS_Shape {
  const properties = scope.keep(new oc.GProp_GProps());
  oc.BRepGProp.VolumeProperties(shape, properties, false, false, false);
  if (properties.Mass() < 0) shape.Reverse();
  return shape;
}
