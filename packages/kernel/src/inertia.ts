import type { Inertia, Vec3 } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { isMeasuredExactly } from './exact-measures.ts';
import type { Scope } from './scope.ts';

/**
 * About axes through the centre. The kernel's own matrix is out of reach, so its rows come from moments about six axes:
 * about n it is nᵀ I n, and about (x + y)/√2 that is (Ixx + Iyy)/2 + Ixy.
 */
export function inertiaOf(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): Inertia {
  const properties = scope.keep(new oc.GProp_GProps());
  oc.BRepGProp.VolumeProperties(shape, properties, false, false, false);
  const center = scope.keep(properties.CentreOfMass());
  const about = (...n: Vec3) =>
    properties.MomentOfInertia(scope.keep(new oc.gp_Ax1(center, scope.keep(new oc.gp_Dir(...n)))));
  const [x, y, z] = [about(1, 0, 0), about(0, 1, 0), about(0, 0, 1)];
  const [xy, yz, zx] = [about(1, 1, 0) - (x + y) / 2, about(0, 1, 1) - (y + z) / 2, about(1, 0, 1) - (z + x) / 2];
  return { rows: [[x, xy, zx], [xy, y, yz], [zx, yz, z]], exact: isMeasuredExactly(oc, scope, shape) }; // prettier-ignore
}
