import { KernelError, type BooleanKind } from '@helb/core';
import type { NCollection_List_TopoDS_Shape, OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { distinct, facesOf, ShapeIndex } from './explore.ts';
import type { Scope } from './scope.ts';

interface Combined {
  readonly shape: TopoDS_Shape;
  readonly faces: readonly { argument: number; face: number }[];
}

/** One call with all tools at once: many times faster than one after the other. */
export function combineSolids(
  oc: OpenCascadeInstance,
  scope: Scope,
  kind: BooleanKind,
  targets: readonly TopoDS_Shape[],
  tools: readonly TopoDS_Shape[],
): Combined[] {
  const algorithm = scope.keep(kind === 'join' ? new oc.BRepAlgoAPI_Fuse() : new oc.BRepAlgoAPI_Cut());
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
  const origins: ({ argument: number; face: number } | undefined)[] = faces.flat().map(() => undefined);
  [...targets, ...tools].forEach((argument, a) => {
    facesOf(oc, scope, argument).forEach((face, f) => {
      if (algorithm.IsDeleted(face)) return;
      const modified = scope.keep(algorithm.Modified(face));
      const images = modified.IsEmpty() ? [face] : itemsOf(scope, modified);
      for (const image of images) {
        const at = index.indexOf(image);
        if (at >= 0) origins[at] ??= { argument: a, face: f };
      }
    });
  });
  let next = 0;
  return solids.map((solid, s) => {
    const own = faces[s]!.map(() => origins[next++] ?? { argument: -1, face: -1 });
    // The scope deletes its own handle; this copy stays with the caller.
    return { shape: oc.TopoDS.Solid(solid), faces: own };
  });
}

function listOf(oc: OpenCascadeInstance, scope: Scope, shapes: readonly TopoDS_Shape[]): NCollection_List_TopoDS_Shape {
  const list = scope.keep(new oc.NCollection_List_TopoDS_Shape());
  for (const shape of shapes) list.Append(shape);
  return list;
}

/** The list has no iterator here; it is emptied from the front. */
function itemsOf(scope: Scope, list: NCollection_List_TopoDS_Shape): TopoDS_Shape[] {
  const items: TopoDS_Shape[] = [];
  while (!list.IsEmpty()) {
    items.push(scope.keep(list.First()));
    list.RemoveFirst();
  }
  return items;
}
