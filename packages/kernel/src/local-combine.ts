/**
 * What joins or cuts a body only through flat faces, away from all their lines, changes nothing else of it: it is worked
 * out on a small block that stands for the body there, and what comes of the block is put in the body’s place. The time
 * it takes hangs on the tool, not on the body; tools that are copies of one another are worked out once.
 */
import { followedBy, isMirrored, movedPoint, undone, type FaceParent, type SolidBulk as Bulk, type Transform, type Vec3 } from '@helb/core'; // prettier-ignore
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { isSound } from './describe.ts';
import { volumeOf } from './exact-measures.ts';
import { facesOf, occurrences, ShapeIndex } from './explore.ts';
import { extentOf, isClearOfLines, isThere, overlap, squareFaceOf, type Extent, type FacePlace, type SquareFace } from './face-places.ts'; // prettier-ignore
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

/** What a body gained in volume, and the volume’s moment about the origin. mm³, mm⁴; less than nothing when cut. */
interface Gain {
  readonly volume: number;
  readonly moment: Vec3;
}

/** mm; what comes so near counts as touching. */
const NEAR = 1e-4;
/** mm beyond the tool, and as a share of its size */
const MARGIN = 1;
const WIDER = 0.1;
const SAME = 1e-9;

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

/** What comes of a tool: what is put in the body’s place. */
interface Graft {
  /** The body’s faces that it passes through, and for each of them the outlines of the gaps it makes. */
  readonly met: readonly number[];
  readonly gaps: readonly (readonly TopoDS_Shape[])[];
  /** Faces of the tool that are one with a face met. */
  readonly merged: readonly (readonly FaceParent[])[];
  readonly faces: readonly TopoDS_Shape[];
  /** Of its faces; `argument` 0 is which of the faces met, 1 the tool. */
  readonly parents: readonly (readonly FaceParent[])[];
  readonly gained: Gain;
}

function graftOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  met: readonly number[],
  places: readonly FacePlace[],
  tool: TopoDS_Shape,
  extent: Extent,
  combine: (block: TopoDS_Shape, tool: TopoDS_Shape) => readonly Made[],
): Graft | null {
  const squares = met.map((f) => places[f]!.square!);
  const block = blockFor(oc, scope, squares, extent);
  const made = combine(block, tool);
  if (made.length !== 1) return null;
  const shape = scope.keep(made[0]!.shape);
  const { TopAbs_SHELL, TopAbs_WIRE, TopAbs_EDGE } = oc.TopAbs_ShapeEnum;
  if (occurrences(oc, scope, shape, TopAbs_SHELL).length !== 1 || !isSound(oc, shape)) return null;
  /** Of the block’s faces, which of those met each stands for; -1 for its sides. */
  const stands = facesOf(oc, scope, block).map((face) => {
    const own = squareFaceOf(oc, scope, face)!;
    return squares.findIndex((square) => square.axis === own.axis && square.looks === own.looks);
  });
  const faces = facesOf(oc, scope, shape);
  const parents = made[0]!.faces;
  const ofBlock = parents.map((own) => own.filter((p) => p.argument === 0).map((p) => stands[p.index]!));
  const sides = faces.filter((_, i) => ofBlock[i]!.includes(-1));
  // The block’s own sides are as they were.
  if (sides.length !== stands.filter((s) => s < 0).length) return null;
  if (sides.some((face) => occurrences(oc, scope, face, TopAbs_EDGE).length !== 4)) return null;
  const rims = new ShapeIndex(
    oc,
    sides.flatMap((face) => occurrences(oc, scope, face, TopAbs_EDGE)),
  );
  const gaps: TopoDS_Shape[][] = met.map(() => []);
  const merged: FaceParent[][] = met.map(() => []);
  const plates = new Set<number>();
  const put: number[] = [];
  for (const [i, face] of faces.entries()) {
    if (ofBlock[i]!.includes(-1)) continue;
    const wires = occurrences(oc, scope, face, TopAbs_WIRE);
    const rim = wires.find((wire) => rims.indexOf(occurrences(oc, scope, wire, TopAbs_EDGE)[0]!) >= 0);
    if (!rim) {
      put.push(i);
      continue;
    }
    const [of, ...more] = ofBlock[i]!;
    if (of === undefined || more.length > 0 || plates.has(of) || occurrences(oc, scope, rim, TopAbs_EDGE).length !== 4) return null; // prettier-ignore
    plates.add(of);
    gaps[of] = wires.filter((wire) => wire !== rim);
    merged[of] = parents[i]!.filter((p) => p.argument === 1);
  }
  if (plates.size !== met.length || gaps.every((own) => own.length === 0)) return null;
  return {
    met,
    gaps,
    merged,
    faces: put.map((i) => faces[i]!),
    parents: put.map((i) => parents[i]!.map((p) => (p.argument === 0 ? { ...p, index: stands[p.index]! } : p))),
    gained: gainOf(volumeOf(oc, scope, shape), volumeOf(oc, scope, block)),
  };
}

/** What stands for the body round the tool: between both faces, or from the one to beyond the tool. */
function blockFor(oc: OpenCascadeInstance, scope: Scope, squares: readonly SquareFace[], extent: Extent): TopoDS_Shape {
  const low = [extent[0], extent[1], extent[2]];
  const high = [extent[3], extent[4], extent[5]];
  const margin = MARGIN + WIDER * Math.max(...high.map((h, k) => h - low[k]!));
  for (let k = 0; k < 3; k++) {
    low[k]! -= margin;
    high[k]! += margin;
  }
  for (const { axis, looks, at } of squares) (looks > 0 ? high : low)[axis] = at;
  const corner = ([x, y, z]: number[]) => scope.keep(new oc.gp_Pnt(x!, y!, z!));
  return scope.keep(scope.keep(new oc.BRepPrimAPI_MakeBox(corner(low), corner(high))).Shape());
}

function gainOf(now: Bulk, before: Bulk): Gain {
  const moment = (k: 0 | 1 | 2) => now.volume * now.center[k] - before.volume * before.center[k];
  return { volume: now.volume - before.volume, moment: [moment(0), moment(1), moment(2)] };
}

/** Do the same faces lie the same way to what is moved so? */
function isLike(graft: Graft, met: readonly number[], places: readonly FacePlace[], by: Transform): boolean {
  if (graft.met.length !== met.length || graft.met.some((f, i) => f !== met[i])) return false;
  if (isMirrored(by) || Math.abs(Math.hypot(by[0][0], by[0][1], by[0][2]) - 1) > SAME) return false;
  const { axis } = places[met[0]!]!.square!;
  return by[axis].every((x, k) => Math.abs(x - (k === axis ? 1 : 0)) < SAME);
}

/** On the same curves and surfaces, elsewhere. */
function movedGraft(oc: OpenCascadeInstance, scope: Scope, graft: Graft, by: Transform): Graft {
  const [a, b, c] = by;
  const motion = scope.keep(new oc.gp_Trsf());
  motion.SetValues(...a, ...b, ...c);
  const location = scope.keep(new oc.TopLoc_Location(motion));
  const there = (shape: TopoDS_Shape) => scope.keep(shape.Moved(location, false));
  const { volume, moment } = graft.gained;
  const center = movedPoint(by, [moment[0] / volume, moment[1] / volume, moment[2] / volume]);
  return {
    ...graft,
    gaps: graft.gaps.map((own) => own.map(there)),
    faces: graft.faces.map(there),
    gained: { volume, moment: volume === 0 ? moment : [center[0] * volume, center[1] * volume, center[2] * volume] },
  };
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
