import { KernelError, type BooleanKind, type FaceParent } from '@helb/core';
import type { NCollection_List_TopoDS_Shape, OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { distinct, facesOf, ShapeIndex } from './explore.ts';
import type { Made } from './extrude.ts';
import type { Scope } from './scope.ts';

/** One call with all tools at once: many times faster than one after the other. */
export function combineSolids(
  oc: OpenCascadeInstance,
  scope: Scope,
  kind: BooleanKind,
  targets: readonly TopoDS_Shape[],
  tools: readonly TopoDS_Shape[],
): Made[] {
  const algorithm = scope.keep(booleanOf(oc, kind));
  algorithm.SetArguments(listOf(oc, scope, targets));
  algorithm.SetTools(listOf(oc, scope, tools));
  algorithm.SetToFillHistory(true);
  algorithm.Build(scope.keep(new oc.Message_ProgressRange()));
  if (!algorithm.IsDone() || algorithm.HasErrors()) {
    throw new KernelError('The kernel could not combine these bodies; look for faces that nearly coincide.');
  }
  // Faces that now lie in one plane become one, edges between them go.
  algorithm.SimplifyResult(true, true, 1e-6);
  const result = scope.keep(algorithm.Shape());
  const solids = distinct(oc, scope, result, oc.TopAbs_ShapeEnum.TopAbs_SOLID);
  const faces = solids.map((solid) => facesOf(oc, scope, solid));
  const index = new ShapeIndex(oc, faces.flat());
  const parents: FaceParent[][] = faces.flat().map(() => []);
  [...targets, ...tools].forEach((body, argument) => {
    facesOf(oc, scope, body).forEach((face, f) => {
      if (algorithm.IsDeleted(face)) return;
      const modified = scope.keep(algorithm.Modified(face));
      const images = modified.IsEmpty() ? [face] : itemsOf(scope, modified);
      for (const image of images)
        parents[index.indexOf(image)]?.push({ argument, kind: 'face', index: f, how: 'modified' });
    });
  });
  // What the algorithm holds beside the result stays behind unless told to go.
  algorithm.Clear();
  let next = 0;
  return solids.map((solid, s) => ({
    // The scope deletes its own handle; this copy stays with the caller.
    shape: oc.TopoDS.Solid(solid),
    faces: faces[s]!.map(() => parents[next++]!),
  }));
}

function booleanOf(oc: OpenCascadeInstance, kind: BooleanKind) {
  if (kind === 'join') return new oc.BRepAlgoAPI_Fuse();
  return kind === 'cut' ? new oc.BRepAlgoAPI_Cut() : new oc.BRepAlgoAPI_Common();
}

export function listOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  shapes: readonly TopoDS_Shape[],
): NCollection_List_TopoDS_Shape {
  const list = scope.keep(new oc.NCollection_List_TopoDS_Shape());
  for (const shape of shapes) list.Append(shape);
  return list;
}

/** The list has no iterator here; it is emptied from the front. */
export function itemsOf(scope: Scope, list: NCollection_List_TopoDS_Shape): TopoDS_Shape[] {
  const items: TopoDS_Shape[] = [];
  while (!list.IsEmpty()) {
    items.push(scope.keep(list.First()));
    list.RemoveFirst();
  }
  return items;
}
