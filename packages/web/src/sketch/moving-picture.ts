/** What of a sketch stands still while something in it moves, so that only the rest is drawn anew. */
import { boxOf, pointsOf, type Region, type RegionMap, type SketchGeometry, type Vec2 } from '@helb/core';
import type { SheetBox } from '../stage/sheet.ts';
import type { DimensionDrawing } from './dimension-layout.ts';
import { primitivesFor } from './hit.ts';
import type { PlaneMap } from './plane-map.ts';

/**
 * Points, curves, patterns and constraints that stand elsewhere in `now` than in `rest`.
 * @param reach smaller moves are none, mm
 */
export function movedBetween(rest: SketchGeometry, now: SketchGeometry, reach: number): Set<string> {
  const moved = new Set<string>();
  for (const [id, p] of Object.entries(now.points)) {
    const was = rest.points[id];
    if (!was || Math.abs(p[0] - was[0]) > reach || Math.abs(p[1] - was[1]) > reach) moved.add(id);
  }
  for (const [id, c] of Object.entries(now.curves)) {
    const was = rest.curves[id];
    const resized =
      !was ||
      (c.kind === 'circle' && was.kind === 'circle' && Math.abs(c.radius - was.radius) > reach) ||
      ('minor' in c && 'minor' in was && Math.abs(c.minor - was.minor) > reach);
    if (resized || pointsOf(c).some((p) => moved.has(p))) moved.add(id);
  }
  for (const [id, p] of Object.entries(now.patterns ?? {})) {
    const steps = rest.patterns?.[id]?.steps;
    if (p.of.some((e) => moved.has(e)) || p.steps.some((s, i) => s !== steps?.[i])) moved.add(id);
  }
  for (const [id, c] of Object.entries(now.constraints)) if (c.of.some((e) => moved.has(e))) moved.add(id);
  return moved;
}

/** A ring round an open end, or a wider one round a gap between two. */
export interface Ring {
  readonly ends: readonly Vec2[];
  readonly at: Vec2;
  readonly radius: number;
}

const END_RING_PX = 7;
const GAP_RING_PX = 11;

export const ringsOf = ({ openEnds, gaps }: RegionMap): Ring[] => [
  ...openEnds.map((at) => ({ ends: [at], at, radius: END_RING_PX })),
  ...gaps.map(({ from, to }): Ring => ({
    ends: [from, to],
    at: [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2],
    radius: GAP_RING_PX,
  })),
];

export interface Fillings {
  readonly regions: readonly Region[];
  readonly rings: readonly Ring[];
}

/** Regions and rings, told by whether anything in `moved` bounds them. */
export function splitFillings(
  sketch: SketchGeometry,
  found: RegionMap,
  moved: ReadonlySet<string>,
): { still: Fillings; moving: Fillings } {
  const places = new Set([...moved].flatMap((id) => (sketch.points[id] ? [placeKey(sketch.points[id])] : [])));
  const regionMoves = ({ loops }: Region) => loops.some((l) => l.pieces.some((p) => moved.has(p.curve)));
  const ringMoves = ({ ends }: Ring) => ends.some((e) => places.has(placeKey(e)));
  const rings = ringsOf(found);
  return {
    still: { regions: found.regions.filter((r) => !regionMoves(r)), rings: rings.filter((r) => !ringMoves(r)) },
    moving: { regions: found.regions.filter(regionMoves), rings: rings.filter(ringMoves) },
  };
}

const placeKey = ([x, y]: Vec2) => `${x.toFixed(6)} ${y.toFixed(6)}`;

/** The same for fillings that look the same, as long as their curves stand still. */
export const keyOf = ({ regions, rings }: Fillings): string =>
  [...regions.map((r) => `${r.outer.join()}/${r.loops.length}`), ...rings.map((r) => placeKey(r.at))].join(' ');

const TEXT_HALF_WIDTH_PX = 60;
const MARGIN_PX = 14;
/** Boxes end on multiples of this, so that they seldom change. */
const MESH_PX = 64;

/** Grows round what is drawn, px. */
export class Extent {
  private left = Infinity;
  private top = Infinity;
  private right = -Infinity;
  private bottom = -Infinity;

  constructor(private readonly map: PlaneMap) {}

  /** A place on the stage, px. */
  pixel([x, y]: Vec2, round = 0): void {
    this.left = Math.min(this.left, x - round);
    this.top = Math.min(this.top, y - round);
    this.right = Math.max(this.right, x + round);
    this.bottom = Math.max(this.bottom, y + round);
  }

  private box([x0, y0, x1, y1]: readonly [number, number, number, number]): void {
    for (const [x, y] of [[x0, y0], [x0, y1], [x1, y0], [x1, y1]] as const) this.pixel(this.map.toPixel([x, y])); // prettier-ignore
  }

  curve(sketch: SketchGeometry, id: string): void {
    for (const p of primitivesFor(sketch, id)) this.box(boxOf(p));
  }

  fillings({ regions, rings }: Fillings): void {
    for (const { loops } of regions) for (const { pieces } of loops) for (const p of pieces) this.box(boxOf(p));
    for (const { at, radius } of rings) this.pixel(this.map.toPixel(at), radius);
  }

  point(at: Vec2): void {
    this.pixel(this.map.toPixel(at));
  }

  dimension({ lines, arcs, arrows, text }: DimensionDrawing): void {
    for (const [a, b] of lines) {
      this.pixel(a);
      this.pixel(b);
    }
    for (const { center, radius } of arcs) this.pixel(center, radius);
    for (const { tip } of arrows) this.pixel(tip);
    this.pixel(text.at, TEXT_HALF_WIDTH_PX);
  }

  /** The part of a stage of this size that holds it all, together with `before`; null when there is nothing on the stage. */
  within(width: number, height: number, before: SheetBox | null): SheetBox | null {
    if (before) {
      this.pixel([before[0] + MARGIN_PX, before[1] + MARGIN_PX]);
      this.pixel([before[0] + before[2] - MARGIN_PX, before[1] + before[3] - MARGIN_PX]);
    }
    const down = (n: number) => Math.max(0, Math.floor((n - MARGIN_PX) / MESH_PX) * MESH_PX);
    const up = (n: number, most: number) => Math.min(most, Math.ceil((n + MARGIN_PX) / MESH_PX) * MESH_PX);
    const [left, top] = [down(this.left), down(this.top)];
    const [right, bottom] = [up(this.right, width), up(this.bottom, height)];
    return right > left && bottom > top ? [left, top, right - left, bottom - top] : null;
  }
}
