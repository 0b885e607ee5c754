/** All closed regions of a sketch, nested and overlapping, each with an identity that survives edits. */
import type { RegionRef } from '../../references/references.ts';
import type { SketchGeometry } from '../schema.ts';
import { sketchSize } from '../settle.ts';
import { arrange, type Arrangement, type HalfEdge } from './arrange.ts';
import { isInside, loopOf, pointInside, type Loop } from './loop.ts';
import { distance, pointAt, primitivesOf, type Vec2 } from './primitives.ts';

/** Ends nearer than this share of the sketch's size meet. */
const MEETING_TOLERANCE = 1e-8;
/** Gaps up to this share of the size are pointed out as likely mistakes. */
const SMALL_GAP = 0.02;

export interface Region {
  /** Outer loop first, counter-clockwise; then holes, clockwise. */
  readonly loops: readonly Loop[];
  /** Signed curve ids around the outside, sorted: + where the region lies left of the curve. */
  readonly outer: readonly string[];
  /** A point inside, mm. */
  readonly at: Vec2;
  /** mm², holes taken off. */
  readonly area: number;
  /** Half-edges of the outline, for merging neighbours. */
  readonly halves: readonly number[];
}

export interface RegionMap {
  readonly regions: readonly Region[];
  /** Loose ends of open chains. */
  readonly openEnds: readonly Vec2[];
  /** Pairs of loose ends that nearly meet. */
  readonly gaps: readonly { readonly from: Vec2; readonly to: Vec2; readonly size: number }[];
  readonly arrangement: Arrangement;
}

export function findRegions(sketch: SketchGeometry): RegionMap {
  const size = sketchSize(sketch);
  const tolerance = MEETING_TOLERANCE * size;
  const arrangement = arrange(primitivesOf(sketch, tolerance), tolerance);
  const regions = assemble(arrangement, arrangement.walks);
  return {
    regions,
    openEnds: arrangement.openEnds,
    gaps: gapsBetween(arrangement.openEnds, size * SMALL_GAP),
    arrangement,
  };
}

/** Group closed walks into outlines with their holes. */
function assemble({ halves }: Arrangement, walks: readonly (readonly number[])[]): Region[] {
  const outlines: { walk: readonly number[]; loop: Loop; holes: { walk: readonly number[]; loop: Loop }[] }[] = [];
  const inner: { walk: readonly number[]; loop: Loop }[] = [];
  for (const walk of walks) {
    const loop = loopOf(walk.map((h) => halves[h]!));
    if (loop.area > 0) outlines.push({ walk, loop, holes: [] });
    else inner.push({ walk, loop });
  }
  for (const hole of inner) {
    // The outside walk of a group of curves is a hole of the smallest outline around the group.
    const own = new Set(hole.walk.map((h) => halves[h]!.twin));
    const within = outlines
      .filter(
        (o) =>
          o.loop.area > -hole.loop.area &&
          !o.walk.some((h) => own.has(h)) &&
          isInside([o.loop], middleOf(halves[hole.walk[0]!]!)),
      )
      .sort((a, b) => a.loop.area - b.loop.area)[0];
    within?.holes.push(hole);
  }
  return outlines.map(({ walk, loop, holes }) => {
    const loops = [loop, ...holes.map((h) => h.loop)];
    return {
      loops,
      outer: signedCurves(loop),
      at: pointInside(loops),
      area: loops.reduce((sum, l) => sum + l.area, 0),
      halves: [...walk, ...holes.flatMap((h) => h.walk)],
    };
  });
}

function middleOf(h: HalfEdge): Vec2 {
  return pointAt(h.primitive, (h.t0 + h.t1) / 2);
}

function signedCurves(loop: Loop): string[] {
  return [...new Set(loop.pieces.map((p) => `${p.forward ? '+' : '-'}${p.curve}`))].sort();
}

function gapsBetween(ends: readonly Vec2[], most: number): { from: Vec2; to: Vec2; size: number }[] {
  const gaps: { from: Vec2; to: Vec2; size: number }[] = [];
  for (let i = 0; i < ends.length; i++) {
    for (let j = i + 1; j < ends.length; j++) {
      const size = distance(ends[i]!, ends[j]!);
      if (size <= most) gaps.push({ from: ends[i]!, to: ends[j]!, size });
    }
  }
  return gaps;
}

/** What the document stores for a picked region. @param all every region it was picked among */
export function refOf(region: Region, all: readonly Region[] = [region]): RegionRef {
  const alike = all.filter((r) => r.outer.join() === region.outer.join());
  const at: [number, number] = [rounded(region.at[0]), rounded(region.at[1])];
  return { outer: [...region.outer], at, ...(alike.length > 1 ? { piece: true as const } : {}) };
}

const rounded = (n: number) => Number(n.toFixed(4));

/** Does the region lie just where the referenced one did, to what is stored of it? */
export const isUnmoved = (region: Region, { at }: RegionRef): boolean =>
  at !== undefined && region.at.every((n, i) => rounded(n) === rounded(at[i]!));

/** The region under a point, if any. */
export function regionAt(map: RegionMap, at: Vec2): Region | null {
  return map.regions.find((r) => isInside(r.loops, at)) ?? null;
}

/** All but those that are holes in others, as the counters of letters; what lies within such a hole is filled again. */
export function withHolesOpen({ regions }: RegionMap): Region[] {
  // Only what has holes has anything in it.
  const around = regions.filter((r) => r.loops.length > 1);
  return regions.filter((r) => around.filter((o) => o !== r && isInside([o.loops[0]!], r.at)).length % 2 === 0);
}

/**
 * Several picked regions as few separate areas: the lines between neighbours go away.
 */
export function mergeRegions(map: RegionMap, picked: readonly Region[]): Region[] {
  const chosen = new Set(picked.flatMap((r) => r.halves));
  const kept = new Set([...chosen].filter((h) => !chosen.has(map.arrangement.halves[h]!.twin)));
  if (kept.size === chosen.size) return [...picked];
  return assemble(map.arrangement, rewalk(map.arrangement, kept));
}

/** Walk the outline again after inner edges went away. */
function rewalk({ halves }: Arrangement, kept: ReadonlySet<number>): number[][] {
  const leaving = new Map<number, number[]>();
  for (const h of kept) {
    const list = leaving.get(halves[h]!.from);
    if (list) list.push(h);
    else leaving.set(halves[h]!.from, [h]);
  }
  const done = new Set<number>();
  const walks: number[][] = [];
  for (const first of kept) {
    if (done.has(first)) continue;
    const walk: number[] = [];
    for (let h: number | undefined = first; h !== undefined && !done.has(h);) {
      done.add(h);
      walk.push(h);
      h = leaving.get(halves[h]!.to)?.find((n) => !done.has(n));
    }
    walks.push(walk);
  }
  return walks;
}

/** A place where a region's outline touches itself, which no solid can be made from; or null. */
export function touchingPoint(region: Region, arrangement: Arrangement): Vec2 | null {
  const seen = new Set<number>();
  for (const h of region.halves) {
    const v = arrangement.halves[h]!.from;
    if (seen.has(v)) return arrangement.vertices[v]!;
    seen.add(v);
  }
  return null;
}
