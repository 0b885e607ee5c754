/** Copies of solids elsewhere. */
import { KernelError, type Transform } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { facesOf } from './explore.ts';
import type { Made } from './extrude.ts';
import type { Scope } from './scope.ts';

export function placeSolid(oc: OpenCascadeInstance, scope: Scope, solid: TopoDS_Shape, to: Transform): Made {
  const [a, b, c] = to;
  const transform = scope.keep(new oc.gp_Trsf());
  transform.SetValues(...a, ...b, ...c);
  const maker = scope.keep(new oc.BRepBuilderAPI_Transform(solid, transform, true, false));
  if (!maker.IsDone()) throw new KernelError('The kernel could not put this body elsewhere.');
  const shape = maker.Shape();
  const faces = facesOf(oc, scope, shape).map((_, index) => [{ argument: 0, kind: 'face', index, how: 'modified' } as const]); // prettier-ignore
  return { shape, faces };
}
