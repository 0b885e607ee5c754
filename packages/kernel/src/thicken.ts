/** A face of a solid made a slab of its own. */
import { KernelError, type FaceParent } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { itemsOf } from './combine.ts';
import { distinct, edgesOf, facesOf, ShapeIndex } from './explore.ts';
import type { Made } from './extrude.ts';
import { refuseOverRadius } from './hollow.ts';
import { facingOut } from './orient.ts';
import type { Scope } from './scope.ts';

/** @param by mm along the outward normal; below 0 into the solid */
export function thickenFace(
  oc: OpenCascadeInstance,
  scope: Scope,
  solid: TopoDS_Shape,
  face: number,
  by: number,
): Made {
  const own = facesOf(oc, scope, solid)[face]!;
  refuseOverRadius(oc, scope, [own], Math.abs(by), by > 0);
  // A copy: of solids that share a face and its curves the kernel’s booleans make nothing at all.
  const copy = scope.keep(new oc.BRepBuilderAPI_Transform(own, scope.keep(new oc.gp_Trsf()), true, false));
  const base = scope.keep(copy.Shape());
  const maker = scope.keep(new oc.BRepOffsetAPI_MakeThickSolid());
  maker.MakeThickSolidBySimple(base, by);
  if (!maker.IsDone()) throw new KernelError('The kernel could not thicken this face; give a smaller thickness, or another face.'); // prettier-ignore
  const shape = facingOut(oc, scope, maker.Shape());
  const sides = facesOf(oc, scope, shape);
  const index = new ShapeIndex(oc, sides);
  const moved = new Set(itemsOf(scope, scope.keep(maker.Generated(base))).map((image) => index.indexOf(image)));
  // Copied in the same order.
  const borders = new ShapeIndex(oc, edgesOf(oc, scope, base));
  const edges = new ShapeIndex(oc, edgesOf(oc, scope, solid));
  const origin = edgesOf(oc, scope, own).map((edge) => edges.indexOf(edge));
  const parents = sides.map((image, i): FaceParent[] => {
    const parent = { argument: 0, kind: 'face', index: face } as const;
    if (image.IsSame(base)) return [{ ...parent, how: 'start' }];
    if (moved.has(i)) return [{ ...parent, how: 'end' }];
    // Its other sides stand on the edges of the face.
    return distinct(oc, scope, image, oc.TopAbs_ShapeEnum.TopAbs_EDGE).flatMap((edge): FaceParent[] => {
      const at = borders.indexOf(edge);
      return at < 0 ? [] : [{ argument: 0, kind: 'edge', index: origin[at]!, how: 'generated' }];
    });
  });
  return { shape, faces: parents };
}
