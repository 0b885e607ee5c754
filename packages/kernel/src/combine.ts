import { KernelError, type BooleanKind, type FaceParent } from '@helb/core';
import type { NCollection_List_TopoDS_Shape, OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { isSound } from './describe.ts';
import { distinct, edgesOf, facesOf, ShapeIndex } from './explore.ts';
import type { Made } from './extrude.ts';
import type { Scope } from './scope.ts';

/**
 * All tools at once: many times faster than one after the other. What is cut or kept in common is each target's own
 * affair, and is done one by one: of targets that touch, the kernel loses one, and reports success.
 * @param whole faces that come to lie in one plane or round become one, and edges between them go
 */
export function combineSolids(
  oc: OpenCascadeInstance,
  scope: Scope,
  kind: BooleanKind,
  targets: readonly TopoDS_Shape[],
  tools: readonly TopoDS_Shape[],
  whole = true,
): Made[] {
  if (kind === 'join') return atOnce(oc, scope, kind, targets, tools, whole);
  return targets.flatMap((target, t) => {
    const argument = (own: number) => (own === 0 ? t : targets.length + own - 1);
    return atOnce(oc, scope, kind, [target], tools, whole).map(({ shape, faces }) => ({
      shape,
      faces: faces.map((parents) => parents.map((p) => ({ ...p, argument: argument(p.argument) }))),
    }));
  });
}

/**
 * The same, and whether each is sound: merging faces can break what was sound before, and is left out then.
 * @param rings one of them has a whole torus for a face: merging would damage what goes in as well, and is never tried
 */
export function soundlyCombined(
  oc: OpenCascadeInstance,
  scope: Scope,
  kind: BooleanKind,
  targets: readonly TopoDS_Shape[],
  tools: readonly TopoDS_Shape[],
  rings: boolean,
): (Made & { readonly sound: boolean })[] {
  const looked = (made: readonly Made[]) => made.map((m) => ({ ...m, sound: isSound(oc, m.shape) }));
  if (rings) return looked(combineSolids(oc, scope, kind, targets, tools, false));
  const merged = looked(combineSolids(oc, scope, kind, targets, tools));
  if (merged.every((m) => m.sound)) return merged;
  const plain = looked(combineSolids(oc, scope, kind, targets, tools, false));
  const [taken, left] = plain.length > 0 && plain.every((m) => m.sound) ? [plain, merged] : [merged, plain];
  for (const { shape } of left) shape.delete();
  return taken;
}

/** Has it a face that is a whole torus? */
export const hasRing = (oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): boolean =>
  facesOf(oc, scope, shape).some((face) => {
    const surface = scope.keep(new oc.BRepAdaptor_Surface(scope.keep(oc.TopoDS.Face(face)), false));
    return String(surface.GetType()) === 'GeomAbs_Torus' && edgesOf(oc, scope, face).length <= 2;
  });

function atOnce(
  oc: OpenCascadeInstance,
  scope: Scope,
  kind: BooleanKind,
  targets: readonly TopoDS_Shape[],
  tools: readonly TopoDS_Shape[],
  whole: boolean,
): Made[] {
  const algorithm = scope.keep(booleanOf(oc, kind));
  algorithm.SetArguments(listOf(oc, scope, targets));
  algorithm.SetTools(listOf(oc, scope, tools));
  algorithm.SetToFillHistory(true);
  try {
    algorithm.Build(scope.keep(new oc.Message_ProgressRange()));
    const failed = () =>
      new KernelError('The kernel could not combine these bodies; look for faces that nearly coincide.');
    if (!algorithm.IsDone() || algorithm.HasErrors()) throw failed();
    if (whole) algorithm.SimplifyResult(true, true, 1e-6);
    const made = solidsOf(oc, scope, algorithm, [...targets, ...tools]);
    // Joining can come to nothing and report success.
    if (kind === 'join' && made.length === 0) throw failed();
    return made;
  } finally {
    // What the algorithm holds beside the result stays behind unless told to go.
    algorithm.Clear();
  }
}

interface Told {
  Shape(): TopoDS_Shape;
  IsDeleted(shape: TopoDS_Shape): boolean;
  Modified(shape: TopoDS_Shape): NCollection_List_TopoDS_Shape;
}

/** Every solid of a result, and which faces of what went in its faces are, or are part of. */
export function solidsOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  algorithm: Told,
  wentIn: readonly TopoDS_Shape[],
): Made[] {
  const result = scope.keep(algorithm.Shape());
  const solids = distinct(oc, scope, result, oc.TopAbs_ShapeEnum.TopAbs_SOLID);
  const faces = solids.map((solid) => facesOf(oc, scope, solid));
  // A face between two solids is a face of both.
  const indices = faces.map((own) => new ShapeIndex(oc, own));
  const parents: FaceParent[][][] = faces.map((own) => own.map(() => []));
  wentIn.forEach((body, argument) => {
    facesOf(oc, scope, body).forEach((face, f) => {
      if (algorithm.IsDeleted(face)) return;
      const modified = scope.keep(algorithm.Modified(face));
      const images = modified.IsEmpty() ? [face] : itemsOf(scope, modified);
      for (const image of images)
        indices.forEach((index, s) => {
          const at = index.indexOf(image);
          const turned = at >= 0 && index.shapes[at]!.Orientation() !== image.Orientation();
          parents[s]![at]?.push({ argument, kind: 'face', index: f, how: 'modified', ...(turned ? { turned } : {}) });
        });
    });
  });
  // The scope deletes its own handles; these copies stay with the caller.
  return solids.map((solid, s) => ({ shape: oc.TopoDS.Solid(solid), faces: parents[s]! }));
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
  // What it gives back is a copy.
  for (const shape of shapes) scope.keep(list.Append(shape));
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
