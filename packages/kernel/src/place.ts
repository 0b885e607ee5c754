/** Copies of shapes elsewhere. */
import { KernelError, type Transform } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { facesOf } from './explore.ts';
import type { Made } from './extrude.ts';
import type { Scope } from './scope.ts';

/** Not owned by the scope. @throws KernelError */
export function moved(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape, [a, b, c]: Transform): TopoDS_Shape {
  const transform = scope.keep(new oc.gp_Trsf());
  transform.SetValues(...a, ...b, ...c);
  const maker = scope.keep(new oc.BRepBuilderAPI_Transform(shape, transform, true, false));
  if (!maker.IsDone()) throw new KernelError('The kernel could not put this body elsewhere.');
  return maker.Shape();
}

export function placeSolid(oc: OpenCascadeInstance, scope: Scope, solid: TopoDS_Shape, to: Transform): Made {
  const shape = moved(oc, scope, solid, to);
  const faces = facesOf(oc, scope, shape).map((_, index) => [{ argument: 0, kind: 'face', index, how: 'modified' } as const]); // prettier-ignore
  return { shape, faces };
}
