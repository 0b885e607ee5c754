import { KernelError, type FaceParent, type Frame, type Loop } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { facesOf, ShapeIndex } from './explore.ts';
import { along, faceOfLoops } from './profile.ts';
import type { Scope } from './scope.ts';

/** A made shape, not owned by any scope, and what each of its faces came from. */
export interface Made {
  readonly shape: TopoDS_Shape;
  readonly faces: readonly (readonly FaceParent[])[];
}

export const cap = (how: 'start' | 'end'): FaceParent => ({ argument: 0, kind: 'face', index: 0, how });
export const side = (index: number): FaceParent => ({ argument: 0, kind: 'edge', index, how: 'generated' });

export function extrudeLoops(
  oc: OpenCascadeInstance,
  scope: Scope,
  frame: Frame,
  loops: readonly Loop[],
  from: number,
  to: number,
): Made {
  const base: Frame = { ...frame, origin: along(frame, 0, 0, from) };
  const { face, edges } = faceOfLoops(oc, scope, base, loops);
  const reach = to - from;
  const vector = scope.keep(new oc.gp_Vec(base.normal[0] * reach, base.normal[1] * reach, base.normal[2] * reach));
  const prism = scope.keep(new oc.BRepPrimAPI_MakePrism(face, vector, false, true));
  if (!prism.IsDone()) throw new KernelError('The kernel could not extrude this region.');
  const shape = prism.Shape();
  const index = new ShapeIndex(oc, facesOf(oc, scope, shape));
  const parents: FaceParent[][] = index.shapes.map(() => []);
  parents[index.indexOf(scope.keep(prism.FirstShape()))]?.push(cap('start'));
  parents[index.indexOf(scope.keep(prism.LastShape()))]?.push(cap('end'));
  edges.forEach((edge, i) => {
    const generated = scope.keep(prism.Generated(edge));
    if (!generated.IsEmpty()) parents[index.indexOf(scope.keep(generated.First()))]?.push(side(i));
  });
  return { shape, faces: parents };
}
