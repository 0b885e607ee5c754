/** Where numbers stand of which nobody said where: off each other, off the outline, and on the stage. */
import { isDimension, isWhole, pointAt, type DimensionConstraint, type SketchGeometry } from '@helb/core';
import type { Px } from './dimension-anchors.ts';
import { labelPlaces, layoutDimension, type DimensionDrawing } from './dimension-layout.ts';
import { primitivesFor } from './hit.ts';
import type { PlaneMap } from './plane-map.ts';

export interface DrawnDimension {
  readonly id: string;
  readonly drawing: DimensionDrawing;
}

/** left, top, right, bottom, px. */
export type Box = readonly [number, number, number, number];
type Segment = readonly [Px, Px];

/** About the room a number takes. */
const [HALF_WIDTH, HALF_HEIGHT] = [24, 9];
/** What it costs a place to lie on another number, on another dimension's line, across an outline, off the stage; and to be less usual. */
const COST = { number: 100, line: 40, crossing: 12, outline: 20, offStage: 30, unusual: 3 };
/** Of more dimensions than this nobody reads all at once; they stand where they usually do. */
const MOST_PLACED = 120;
/** Parallel lines of dimensions nearer than this, px, run into each other. */
const LINE_GAP = 14;

/** Which of its places each number took, in which picture and at which scale, px per mm. */
interface Taken {
  readonly sketch: SketchGeometry;
  readonly scale: number;
  readonly places: ReadonlyMap<string, number>;
}
const taken = new WeakMap<SketchGeometry['constraints'], Taken>();
/** While the view is moved or made a little larger, numbers do not change sides. */
const SAME_SCALE = 1.25;

/**
 * All dimensions of a sketch, or `only` these, as they stand on the stage.
 * @param stage its size, to place anew what nobody placed; without it numbers stay on the side they took
 */
export function drawnDimensions(
  sketch: SketchGeometry,
  map: PlaneMap,
  { only, stage }: { only?: ReadonlySet<string>; stage?: Px } = {},
): DrawnDimension[] {
  const known = taken.get(sketch.constraints);
  const zoomed = known ? Math.max(known.scale / map.scale, map.scale / known.scale) : Infinity;
  const stay = known && zoomed < SAME_SCALE && (!stage || known.sketch === sketch);
  const places = stay ? known.places : placesOf(sketch, map, stage);
  return Object.entries(sketch.constraints).flatMap(([id, c]) => {
    if (!isDimension(c) || (only && !only.has(id))) return [];
    const drawing = layoutDimension(sketch, placed(sketch, c, map, places.get(id) ?? 0), map);
    return drawing ? [{ id, drawing }] : [];
  });
}

function placed(sketch: SketchGeometry, c: DimensionConstraint, map: PlaneMap, place: number): DimensionConstraint {
  if (c.label || place === 0) return c;
  const at = labelPlaces(sketch, c, map)[place];
  return at ? { ...c, label: [...map.toPlane(...at)] } : c;
}

function placesOf(sketch: SketchGeometry, map: PlaneMap, stage: Px | undefined): ReadonlyMap<string, number> {
  const places = new Map<string, number>();
  const all = Object.entries(sketch.constraints).flatMap(([id, c]) => (isDimension(c) ? [{ id, c }] : []));
  if (all.length <= MOST_PLACED) {
    const ground = new Ground(sketch, map, stage);
    const layOut = (c: DimensionConstraint) => layoutDimension(sketch, c, map);
    for (const { c } of all) if (c.label) ground.take(layOut(c));
    for (const { id, c } of all) {
      if (c.label) continue;
      let best = { cost: Infinity, place: 0, drawing: null as DimensionDrawing | null };
      for (let place = 0; place < Math.max(1, labelPlaces(sketch, c, map).length); place++) {
        const drawing = layOut(placed(sketch, c, map, place));
        const cost = drawing ? ground.costOf(drawing) + place * COST.unusual : Infinity;
        if (cost < best.cost) best = { cost, place, drawing };
        if (cost <= place * COST.unusual) break;
      }
      places.set(id, best.place);
      ground.take(best.drawing);
    }
  }
  taken.set(sketch.constraints, { sketch, scale: map.scale, places });
  return places;
}

/** What stands on the stage already. */
class Ground {
  private readonly outline: Segment[];
  private readonly numbers: Box[] = [];
  private readonly lines: Segment[] = [];

  constructor(
    sketch: SketchGeometry,
    map: PlaneMap,
    private readonly stage: Px | undefined,
  ) {
    this.outline = Object.keys(sketch.curves).flatMap((id) =>
      primitivesFor(sketch, id).flatMap((p) => {
        const pieces = p.kind === 'line' ? 1 : isWhole(p) ? 16 : 8;
        const at = (i: number) => map.toPixel(pointAt(p, i / pieces));
        return Array.from({ length: pieces }, (_, i): Segment => [at(i), at(i + 1)]);
      }),
    );
  }

  take(drawing: DimensionDrawing | null): void {
    if (!drawing) return;
    this.numbers.push(numberBox(drawing));
    this.lines.push(...linesOf(drawing));
  }

  costOf(drawing: DimensionDrawing): number {
    const box = numberBox(drawing);
    const count = <T>(list: readonly T[], met: (item: T) => boolean) => list.filter(met).length;
    const own = linesOf(drawing);
    let cost = COST.number * count(this.numbers, (other) => overlap(box, other));
    cost += COST.line * count(this.lines, (line) => crosses(box, line));
    cost += COST.line * count(this.numbers, (number) => own.some((line) => crosses(number, line)));
    cost += COST.number * count(this.lines, (line) => own.some((o) => runTogether(o, line)));
    cost += COST.crossing * count(this.lines, (line) => own.some((o) => meet(o, line)));
    cost +=
      COST.outline *
      Math.min(
        2,
        count(this.outline, (line) => crosses(box, line)),
      );
    const [x, y] = drawing.text.at;
    if (
      this.stage &&
      (x < HALF_WIDTH || y < HALF_HEIGHT || x > this.stage[0] - HALF_WIDTH || y > this.stage[1] - HALF_HEIGHT)
    )
      cost += COST.offStage;
    return cost;
  }
}

/** The room a number takes, turned or not. */
export function numberBox({ text: { at, angle } }: DimensionDrawing): Box {
  const [c, s] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))];
  const [w, h] = [HALF_WIDTH * c + HALF_HEIGHT * s, HALF_WIDTH * s + HALF_HEIGHT * c];
  return [at[0] - w, at[1] - h, at[0] + w, at[1] + h];
}

/** Straight lines, and the arcs as chords. */
function linesOf({ lines, arcs }: DimensionDrawing): Segment[] {
  const chords = arcs.flatMap(({ center, radius, from, to }) => {
    const sweep = to < from ? to + 2 * Math.PI - from : to - from;
    const at = (i: number): Px => [
      center[0] + radius * Math.cos(from + (sweep * i) / 6),
      center[1] + radius * Math.sin(from + (sweep * i) / 6),
    ];
    return Array.from({ length: 6 }, (_, i): Segment => [at(i), at(i + 1)]);
  });
  return [...lines, ...chords];
}

export const overlap = (a: Box, b: Box) => a[0] < b[2] && b[0] < a[2] && a[1] < b[3] && b[1] < a[3];

/** Does a segment run through a box? By clipping it to the four sides (Liang and Barsky). */
function crosses([left, top, right, bottom]: Box, [a, b]: Segment): boolean {
  let [from, to] = [0, 1];
  for (const [d, low, high] of [
    [b[0] - a[0], left - a[0], right - a[0]],
    [b[1] - a[1], top - a[1], bottom - a[1]],
  ] as const) {
    if (Math.abs(d) < 1e-12) {
      if (low > 0 || high < 0) return false;
      continue;
    }
    const [t, u] = d > 0 ? [low / d, high / d] : [high / d, low / d];
    from = Math.max(from, t);
    to = Math.min(to, u);
  }
  return from < to;
}

/** Nearly parallel, near, and side by side for a stretch. */
function runTogether([a, b]: Segment, [c, d]: Segment): boolean {
  const [ux, uy] = [b[0] - a[0], b[1] - a[1]];
  const size = Math.hypot(ux, uy);
  const other = Math.hypot(d[0] - c[0], d[1] - c[1]);
  if (size < 20 || other < 20) return false;
  if (Math.abs(ux * (d[1] - c[1]) - uy * (d[0] - c[0])) > 0.05 * size * other) return false;
  const off = Math.abs(ux * (c[1] - a[1]) - uy * (c[0] - a[0])) / size;
  const along = (p: Px) => (ux * (p[0] - a[0]) + uy * (p[1] - a[1])) / size;
  const [low, high] = [Math.min(along(c), along(d)), Math.max(along(c), along(d))];
  return off < LINE_GAP && Math.min(high, size) - Math.max(low, 0) > 8;
}

function meet([a, b]: Segment, [c, d]: Segment): boolean {
  const side = (p: Px, q: Px, r: Px) => (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]);
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}
