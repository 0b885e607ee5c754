/** What comes of joining a tool to a body, or cutting it away, where it meets flat faces alone: worked out on a block. */
import { dot, isMirrored, type FaceParent, type SolidBulk, type Transform, type Vec3 } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { isSound } from './describe.ts';
import { volumeOf } from './exact-measures.ts';
import { facesOf, occurrences, ShapeIndex } from './explore.ts';
import type { Made } from './extrude.ts';
import { squareFaceOf, type Extent, type FacePlace, type SquareFace } from './face-places.ts';
import type { Scope } from './scope.ts';

/** mm beyond the tool, and as a share of its size */
const MARGIN = 1;
const WIDER = 0.1;
const SAME = 1e-9;

/** What a body gained in volume, and the volume’s moment about the origin. mm³, mm⁴; less than nothing when cut. */
export interface Gain {
  readonly volume: number;
  readonly moment: Vec3;
}

/** What comes of a tool: what is put in the body’s place. */
export interface Graft {
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

/** Null where what comes of it is not one sound body, or nothing. */
export function graftOf(
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
  const [shape, ...others] = made.map((m) => scope.keep(m.shape));
  if (!shape || others.length > 0) return null;
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

function gainOf(now: SolidBulk, before: SolidBulk): Gain {
  const moment = (k: 0 | 1 | 2) => now.volume * now.center[k] - before.volume * before.center[k];
  return { volume: now.volume - before.volume, moment: [moment(0), moment(1), moment(2)] };
}

/** Do the same faces lie the same way to what is moved so? */
export function isLike(graft: Graft, met: readonly number[], places: readonly FacePlace[], by: Transform): boolean {
  if (graft.met.length !== met.length || graft.met.some((f, i) => f !== met[i])) return false;
  if (isMirrored(by) || Math.abs(Math.hypot(by[0][0], by[0][1], by[0][2]) - 1) > SAME) return false;
  const { axis } = places[met[0]!]!.square!;
  return by[axis].every((x, k) => Math.abs(x - (k === axis ? 1 : 0)) < SAME);
}

/** On the same curves and surfaces, elsewhere. */
export function movedGraft(oc: OpenCascadeInstance, scope: Scope, graft: Graft, by: Transform): Graft {
  const [a, b, c] = by;
  const motion = scope.keep(new oc.gp_Trsf());
  motion.SetValues(...a, ...b, ...c);
  const location = scope.keep(new oc.TopLoc_Location(motion));
  const there = (shape: TopoDS_Shape) => scope.keep(shape.Moved(location, false));
  const { volume, moment } = graft.gained;
  const momentThere = (row: Transform[number]) => dot([row[0], row[1], row[2]], moment) + row[3] * volume;
  return {
    ...graft,
    gaps: graft.gaps.map((own) => own.map(there)),
    faces: graft.faces.map(there),
    gained: { volume, moment: [momentThere(a), momentThere(b), momentThere(c)] },
  };
}
