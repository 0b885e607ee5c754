/** Distances between faces and edges, exact. */
import { KernelError, type SolidPiece } from '@helb/core';
import type { BRepExtrema_DistShapeShape, OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { edgesOf, facesOf } from './explore.ts';
import type { Scope } from './scope.ts';

export function pieceOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  shape: TopoDS_Shape,
  { kind, index }: Pick<SolidPiece, 'kind' | 'index'>,
): TopoDS_Shape {
  if (kind === 'whole') return shape;
  const piece = (kind === 'face' ? facesOf : edgesOf)(oc, scope, shape)[index];
  if (!piece) throw new KernelError(`This ${kind} is no longer there.`);
  return piece;
}

/** One for each kernel: of one that is let go of, what it measured stays in memory. */
const searches = new WeakMap<OpenCascadeInstance, BRepExtrema_DistShapeShape>();

export function shortestDistance(
  oc: OpenCascadeInstance,
  scope: Scope,
  one: TopoDS_Shape,
  other: TopoDS_Shape,
): number {
  const range = scope.keep(new oc.Message_ProgressRange());
  const search = searches.get(oc) ?? new oc.BRepExtrema_DistShapeShape();
  searches.set(oc, search);
  search.LoadS1(one);
  search.LoadS2(other);
  if (!search.Perform(range) || !search.IsDone()) throw new KernelError('The kernel could not measure this distance.');
  return search.Value();
}
