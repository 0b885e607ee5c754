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
const MOST_PLACED = 80;
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
  return at ? labelled(c, map, at) : c;
}

const labelled = (c: DimensionConstraint, map: PlaneMap, at: Px): DimensionConstraint => ({
  ...c,
  label: [...map.toPlane(...at)],
});

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
      for (const [place, at] of labelPlaces(sketch, c, map).entries()) {
        const unusual = place * COST.unusual;
        if (unusual >= best.cost) break;
        const drawing = layOut(place === 0 ? c : labelled(c, map, at));
        const cost = drawing ? unusual + ground.costOf(drawing, best.cost - unusual) : Infinity;
        if (cost < best.cost) best = { cost, place, drawing };
      }
      places.set(id, best.place);
      ground.take(best.drawing);
    }
  }
  taken.set(sketch.constraints, { sketch, scale: map.scale, places });
  return places;
}

interface Line {
  readonly at: Segment;
  readonly box: Box;
}

/** What stands on the stage already. */
class Ground {
  private readonly outline: Line[];
  private readonly numbers: Box[] = [];
  private readonly lines: Line[] = [];

  constructor(
    sketch: SketchGeometry,
    map: PlaneMap,
    private readonly stage: Px | undefined,
  ) {
    this.outline = Object.keys(sketch.curves).flatMap((id) =>
      primitivesFor(sketch, id).flatMap((p) => {
        const pieces = p.kind === 'line' ? 1 : isWhole(p) ? 16 : 8;
        const at = (i: number) => map.toPixel(pointAt(p, i / pieces));
        return Array.from({ length: pieces }, (_, i) => lineOf([at(i), at(i + 1)]));
      }),
    );
  }

  take(drawing: DimensionDrawing | null): void {
    if (!drawing) return;
    this.numbers.push(numberBox(drawing));
    this.lines.push(...linesOf(drawing));
  }

  /** @param most dearer than this, it need not be known exactly */
  costOf(drawing: DimensionDrawing, most: number): number {
    const box = numberBox(drawing);
    const [x, y] = drawing.text.at;
    const { stage } = this;
    const off = stage && (x < HALF_WIDTH || y < HALF_HEIGHT || x > stage[0] - HALF_WIDTH || y > stage[1] - HALF_HEIGHT);
    let cost = off ? COST.offStage : 0;
    for (const number of this.numbers) if (overlap(box, number)) cost += COST.number;
    let crossed = 0;
    for (const line of this.outline) if (crossed < 2 && overlap(box, line.box) && crosses(box, line.at)) crossed++;
    cost += COST.outline * crossed;
    if (cost >= most) return cost;
    const own = linesOf(drawing);
    // Only what is near can be met.
    const room = own.reduce((all, line) => around(all, line.box), box);
    const reach: Box = [room[0] - LINE_GAP, room[1] - LINE_GAP, room[2] + LINE_GAP, room[3] + LINE_GAP];
    for (const number of this.numbers)
      if (overlap(reach, number) && own.some((o) => overlap(o.box, number) && crosses(number, o.at))) cost += COST.line;
    for (const line of this.lines) {
      if (!overlap(reach, line.box)) continue;
      if (overlap(box, line.box) && crosses(box, line.at)) cost += COST.line;
      let [together, met] = [false, false];
      for (const o of own) {
        if (!isNear(o.box, line.box)) continue;
        together ||= runTogether(o.at, line.at);
        met ||= meet(o.at, line.at);
      }
      if (together) cost += COST.number;
      if (met) cost += COST.crossing;
      if (cost >= most) return cost;
    }
    return cost;
  }
}

/** Boxes of level and upright lines have some breadth, so that they can overlap. */
const lineOf = (at: Segment): Line => ({
  at,
  box: [
    Math.min(at[0][0], at[1][0]) - 0.5,
    Math.min(at[0][1], at[1][1]) - 0.5,
    Math.max(at[0][0], at[1][0]) + 0.5,
    Math.max(at[0][1], at[1][1]) + 0.5,
  ],
});

const around = (a: Box, b: Box): Box => [
  Math.min(a[0], b[0]),
  Math.min(a[1], b[1]),
  Math.max(a[2], b[2]),
  Math.max(a[3], b[3]),
];

/** The room a number takes, turned or not. */
export function numberBox({ text: { at, angle } }: DimensionDrawing): Box {
  const [c, s] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))];
  const [w, h] = [HALF_WIDTH * c + HALF_HEIGHT * s, HALF_WIDTH * s + HALF_HEIGHT * c];
  return [at[0] - w, at[1] - h, at[0] + w, at[1] + h];
}

/** Straight lines, and the arcs as chords. */
function linesOf({ lines, arcs }: DimensionDrawing): Line[] {
  const chords = arcs.flatMap(({ center, radius, from, to }) => {
    const sweep = to < from ? to + 2 * Math.PI - from : to - from;
    const at = (i: number): Px => [
      center[0] + radius * Math.cos(from + (sweep * i) / 6),
      center[1] + radius * Math.sin(from + (sweep * i) / 6),
    ];
    return Array.from({ length: 6 }, (_, i) => lineOf([at(i), at(i + 1)]));
  });
  return [...lines.map(lineOf), ...chords];
}

const isNear = (a: Box, b: Box) =>
  a[0] < b[2] + LINE_GAP && b[0] < a[2] + LINE_GAP && a[1] < b[3] + LINE_GAP && b[1] < a[3] + LINE_GAP;

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
