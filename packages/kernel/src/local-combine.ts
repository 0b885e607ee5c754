/**
 * What joins or cuts a body only through flat faces, away from all their lines, changes nothing else of it: it is worked
 * out on a small block that stands for the body there, and what comes of the block is put in the body’s place. The time
 * it takes hangs on the tool, not on the body; tools that are copies of one another are worked out once.
 */
import { followedBy, undone, type FaceParent, type Transform } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { facesOf, occurrences } from './explore.ts';
import {
  extentOf,
  isClearOfLines,
  isThere,
  overlap,
  squareFaceOf,
  type Extent,
  type FacePlace,
} from './face-places.ts';
import { graftOf, isLike, movedGraft, type Gain, type Graft } from './graft.ts';
import type { Made } from './extrude.ts';
import type { Scope } from './scope.ts';

export interface LocalTool {
  readonly shape: TopoDS_Shape;
  /** Tools of one origin are copies of one another, each moved from there. */
  readonly origin: number;
  readonly moved: Transform;
}

export interface LocallyMade extends Made {
  readonly places: readonly FacePlace[];
  readonly gained: Gain;
}

/** mm; what comes so near counts as touching. */
const NEAR = 1e-4;

/**
 * Null where a tool meets more than that, or what comes of it is not one sound body: then it is the kernel’s affair.
 * @param places of the target’s faces, in order
 * @returns `argument` 0 is the target, and the tools follow
 */
export function combineLocally(
  oc: OpenCascadeInstance,
  scope: Scope,
  target: TopoDS_Shape,
  places: readonly FacePlace[],
  tools: readonly LocalTool[],
  combine: (block: TopoDS_Shape, tool: TopoDS_Shape) => readonly Made[],
): LocallyMade | null {
  const extents = tools.map((tool) => extentOf(oc, scope, tool.shape));
  if (anyMeet(extents)) return null;
  const { TopAbs_SHELL } = oc.TopAbs_ShapeEnum;
  if (occurrences(oc, scope, target, TopAbs_SHELL).length !== 1) return null;
  const faces = facesOf(oc, scope, target);
  const grafts: Graft[] = [];
  const known = new Map<number, { graft: Graft; tool: LocalTool }[]>();
  for (const [t, tool] of tools.entries()) {
    const met = facesMet(oc, scope, faces, places, extents[t]!);
    if (!met) return null;
    const like = known
      .get(tool.origin)
      ?.find((k) => isLike(k.graft, met, places, followedBy(undone(k.tool.moved), tool.moved)));
    const graft = like
      ? movedGraft(oc, scope, like.graft, followedBy(undone(like.tool.moved), tool.moved))
      : graftOf(oc, scope, met, places, tool.shape, extents[t]!, combine);
    if (!graft) return null;
    grafts.push(graft);
    if (!like) known.set(tool.origin, [...(known.get(tool.origin) ?? []), { graft, tool }]);
  }
  return grafted(oc, scope, faces, places, grafts);
}

/** By sweeping along x. */
function anyMeet(extents: readonly Extent[]): boolean {
  const sorted = [...extents].sort((a, b) => a[0] - b[0]);
  return sorted.some((extent, i) => {
    for (let j = i + 1; j < sorted.length && sorted[j]![0] <= extent[3] + NEAR; j++)
      if (overlap(extent, sorted[j]!, NEAR)) return true;
    return false;
  });
}

/** One flat face that the tool passes through, or two with the body between them; null where it meets anything else. */
function facesMet(
  oc: OpenCascadeInstance,
  scope: Scope,
  faces: readonly TopoDS_Shape[],
  places: readonly FacePlace[],
  extent: Extent,
): number[] | null {
  const met: number[] = [];
  for (const [f, place] of places.entries()) {
    if (!overlap(place.extent, extent, NEAR)) continue;
    if (place.square === undefined) place.square = squareFaceOf(oc, scope, faces[f]!);
    const { square } = place;
    if (!square || !isClearOfLines(square, extent, NEAR)) return null;
    if (isThere(square, extent)) met.push(f);
  }
  const [a, b] = met.map((f) => places[f]!.square!);
  if (!a || met.length > 2) return null;
  if (b && (a.axis !== b.axis || a.looks === b.looks || (a.at - b.at) * a.looks < NEAR)) return null;
  return met;
}

function grafted(
  oc: OpenCascadeInstance,
  scope: Scope,
  faces: readonly TopoDS_Shape[],
  places: readonly FacePlace[],
  grafts: readonly Graft[],
): LocallyMade {
  const gaps = new Map<number, TopoDS_Shape[]>();
  const parents: FaceParent[][] = faces.map((_, index) => [{ argument: 0, kind: 'face', index, how: 'modified' }]);
  for (const [t, graft] of grafts.entries())
    for (const [k, f] of graft.met.entries()) {
      gaps.set(f, [...(gaps.get(f) ?? []), ...graft.gaps[k]!]);
      parents[f]!.push(...graft.merged[k]!.map((p) => ({ ...p, argument: t + 1 })));
    }
  const all = faces.map((face, f) => (gaps.has(f) ? withGaps(oc, scope, face, gaps.get(f)!) : face));
  const now = places.map((place, f) => (gaps.has(f) ? placeWithGaps(oc, scope, place, gaps.get(f)!) : place));
  let volume = 0;
  const moment: [number, number, number] = [0, 0, 0];
  for (const [t, graft] of grafts.entries()) {
    all.push(...graft.faces);
    now.push(...graft.faces.map((face) => ({ extent: extentOf(oc, scope, face) })));
    parents.push(...graft.parents.map((own) => own.map((p) => (p.argument === 0 ? { ...p, index: graft.met[p.index]! } : { ...p, argument: t + 1 })))); // prettier-ignore
    volume += graft.gained.volume;
    graft.gained.moment.forEach((m, k) => (moment[k]! += m));
  }
  return { shape: solidOf(oc, scope, all), faces: parents, places: now, gained: { volume, moment } };
}

function withGaps(
  oc: OpenCascadeInstance,
  scope: Scope,
  face: TopoDS_Shape,
  gaps: readonly TopoDS_Shape[],
): TopoDS_Shape {
  const maker = scope.keep(new oc.BRepBuilderAPI_MakeFace(scope.keep(oc.TopoDS.Face(face))));
  for (const wire of gaps) maker.Add(scope.keep(oc.TopoDS.Wire(wire)));
  return scope.keep(maker.Face());
}

function placeWithGaps(
  oc: OpenCascadeInstance,
  scope: Scope,
  place: FacePlace,
  gaps: readonly TopoDS_Shape[],
): FacePlace {
  const square = place.square!;
  return {
    ...place,
    square: { ...square, inner: [...square.inner, ...gaps.map((wire) => extentOf(oc, scope, wire))] },
  };
}

/** Not owned by the scope. */
function solidOf(oc: OpenCascadeInstance, scope: Scope, faces: readonly TopoDS_Shape[]): TopoDS_Shape {
  const builder = scope.keep(new oc.TopoDS_Builder());
  const shell = scope.keep(new oc.TopoDS_Shell());
  builder.MakeShell(shell);
  for (const face of faces) builder.Add(shell, face);
  shell.Closed(true);
  const solid = new oc.TopoDS_Solid();
  builder.MakeSolid(solid);
  builder.Add(solid, shell);
  return solid;
}
