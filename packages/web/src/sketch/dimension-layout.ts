/** Where a dimension's lines, arrows and number stand, after drafting practice. All in pixels. */
import {
  lineIn,
  pointAt,
  pointsOf,
  radiusIn,
  type DimensionConstraint,
  type SketchGeometry,
  type Vec2,
} from '@helb/core';
import { along, anchors, dot, sub, unit, type Px } from './dimension-anchors.ts';
import { placeOf, primitivesFor } from './hit.ts';
import type { PlaneMap } from './plane-map.ts';

export interface DimensionDrawing {
  readonly lines: readonly (readonly [Px, Px])[];
  readonly arcs: readonly {
    readonly center: Px;
    readonly radius: number;
    readonly from: number;
    readonly to: number;
  }[];
  /** Filled arrowheads: tip, and the direction it points. */
  readonly arrows: readonly { readonly tip: Px; readonly angle: number }[];
  readonly text: { readonly at: Px; readonly angle: number };
  readonly prefix: '' | 'Ø' | 'R' | '⌒';
  /** Stands after the number, as the × of a count. */
  readonly suffix?: string;
}

/** Gap between geometry and extension line, and how far that line overshoots. */
const GAP = 4;
const OVERSHOOT = 5;
/** How far the number stands above its line. */
const RAISE = 9;
const DEFAULT_OFFSET = 30;
const DEFAULT_RADIUS = 44;
/** Shorter dimension lines carry their arrows outside. */
const ROOM_FOR_ARROWS = 34;

export function layoutDimension(
  sketch: SketchGeometry,
  c: DimensionConstraint,
  map: PlaneMap,
): DimensionDrawing | null {
  const label = c.label ? map.toPixel(c.label) : null;
  switch (c.kind) {
    case 'radius':
    case 'diameter':
      return ofRound(sketch, c, map, label);
    case 'angle':
      return ofAngle(sketch, c, map, label);
    case 'arc_length':
      return ofArcLength(sketch, c, map, label);
    case 'count':
    case 'count_across':
    case 'step_angle':
      return ofPattern(sketch, c, map, label);
    default: {
      const drawing = linear(sketch, c, map, label);
      return drawing && c.kind === 'across' ? { ...drawing, prefix: 'Ø' } : drawing;
    }
  }
}

/** A dimension's line on the stage: its ends, the way it runs, and where it stands when nothing says otherwise. */
function lineOf(sketch: SketchGeometry, c: DimensionConstraint, map: PlaneMap) {
  const found = anchors(sketch, c);
  if (!found) return null;
  const a = map.toPixel(found.ends[0]);
  const b = map.toPixel(found.ends[1]);
  let d = unit(found.along ? sub(map.toPixel(found.along), map.toPixel([0, 0])) : sub(b, a));
  if (c.kind === 'horizontal_distance') d = unit(map.view.x);
  if (c.kind === 'vertical_distance') d = unit(map.view.y);
  const n: Px = [-d[1], d[0]];
  const middle: Px = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  // Outside the sketch, on the far side from its middle.
  const outwards = dot(sub(middle, map.toPixel(middleOf(sketch))), n) < 0 ? -1 : 1;
  return { a, b, d, middle, outwards: along([0, 0], n, outwards) };
}

/** How far from what it measures a length may stand, px, in the order in which they are tried; below nothing, on the inner side. */
const OFFSETS = [DEFAULT_OFFSET, 52, 74, -DEFAULT_OFFSET, 96, -52, 118, -74];
/** Directions, in turns, and distances from the rim, px, at which the number of a round may stand. */
const ROUND_PLACES = [32, 58].flatMap((away) =>
  [-0.102, 0.102, 0.398, -0.398, -0.2, 0.2, 0.3, -0.3].map((turn) => ({ away, turn })),
);
/** Radii at which the arc of an angle may run, px. */
const ANGLE_RADII = [DEFAULT_RADIUS, 66, 30, 90, 116];
const FURTHER_OUT = [0, 22, 44];

/** Where a dimension's number may stand, px, likeliest first; the first is where it stands when nothing is in its way. */
export function labelPlaces(sketch: SketchGeometry, c: DimensionConstraint, map: PlaneMap): Px[] {
  const curve = sketch.curves[c.of[0]!];
  switch (c.kind) {
    case 'radius':
    case 'diameter': {
      if (curve?.kind !== 'circle' && curve?.kind !== 'arc') return [];
      const center = map.toPixel(placeOf(sketch, curve.center));
      const radius = radiusIn(sketch, c.of[0]!) * map.scale;
      return ROUND_PLACES.map(({ away, turn }) =>
        along(center, [Math.cos(turn * 2 * Math.PI), Math.sin(turn * 2 * Math.PI)], radius + away),
      );
    }
    case 'angle':
    case 'arc_length': {
      const [arc] = layoutDimension(sketch, { ...c, label: undefined }, map)?.arcs ?? [];
      if (!arc) return [];
      const half = (arc.from + arc.to) / 2;
      const radii = c.kind === 'angle' ? ANGLE_RADII : FURTHER_OUT.map((further) => arc.radius + further);
      return radii.map((radius) => along(arc.center, [Math.cos(half), Math.sin(half)], radius));
    }
    case 'count':
    case 'count_across':
    case 'step_angle': {
      const drawing = layoutDimension(sketch, { ...c, label: undefined }, map);
      if (!drawing) return [];
      const at: Px = [drawing.text.at[0] - 14, drawing.text.at[1] + 4];
      return [at, ...FURTHER_OUT.slice(1).map((further): Px => [at[0], at[1] - further])];
    }
    default: {
      const line = lineOf(sketch, c, map);
      return line ? OFFSETS.map((offset) => along(line.middle, line.outwards, offset)) : [];
    }
  }
}

function linear(
  sketch: SketchGeometry,
  c: DimensionConstraint,
  map: PlaneMap,
  label: Px | null,
): DimensionDrawing | null {
  const line = lineOf(sketch, c, map);
  if (!line) return null;
  const { a, b, d } = line;
  const at = label ?? along(line.middle, line.outwards, DEFAULT_OFFSET);
  const footOf = (p: Px) => along(at, d, dot(sub(p, at), d));
  const [fa, fb] = [footOf(a), footOf(b)];
  const lines: [Px, Px][] = [];
  for (const [p, foot] of [
    [a, fa],
    [b, fb],
  ] as const) {
    const reach = Math.hypot(...sub(foot, p));
    if (reach <= GAP) continue;
    const u = unit(sub(foot, p));
    lines.push([along(p, u, GAP), along(foot, u, OVERSHOOT)]);
  }
  const span = Math.hypot(...sub(fb, fa));
  const towards = unit(sub(fb, fa));
  const inside = span >= ROOM_FOR_ARROWS;
  const angle = Math.atan2(towards[1], towards[0]);
  const t = dot(sub(at, fa), towards);
  lines.push([
    along(fa, towards, Math.min(0, t) - (inside ? 0 : 14)),
    along(fa, towards, Math.max(span, t) + (inside ? 0 : 14)),
  ]);
  const textAngle = readable(Math.atan2(d[1], d[0]));
  return {
    lines,
    arcs: [],
    arrows: [
      { tip: fa, angle: inside ? angle + Math.PI : angle },
      { tip: fb, angle: inside ? angle : angle + Math.PI },
    ],
    text: { at: above(at, textAngle), angle: textAngle },
    prefix: '',
  };
}

const middles = new WeakMap<SketchGeometry, Vec2>();

/** The middle of all points; found once per picture. */
function middleOf(sketch: SketchGeometry): Vec2 {
  let middle = middles.get(sketch);
  if (!middle) {
    const points = Object.values(sketch.points);
    const mean = (k: 0 | 1) => points.reduce((sum, p) => sum + p[k], 0) / Math.max(points.length, 1);
    middles.set(sketch, (middle = [mean(0), mean(1)]));
  }
  return middle;
}

/** Turned so that it reads from below or from the right. */
function readable(angle: number): number {
  let a = angle;
  while (a > Math.PI / 2 - 1e-6) a -= Math.PI;
  while (a < -Math.PI / 2 - 1e-6) a += Math.PI;
  return a;
}

function above(at: Px, angle: number): Px {
  return [at[0] + Math.sin(angle) * RAISE, at[1] - Math.cos(angle) * RAISE];
}

function ofRound(
  sketch: SketchGeometry,
  c: DimensionConstraint,
  map: PlaneMap,
  label: Px | null,
): DimensionDrawing | null {
  const curve = sketch.curves[c.of[0]!];
  if (curve?.kind !== 'circle' && curve?.kind !== 'arc') return null;
  const center = map.toPixel(placeOf(sketch, curve.center));
  const radius = radiusIn(sketch, c.of[0]!) * map.scale;
  const at: Px = label ?? along(center, unit([0.8, -0.6]), radius + 32);
  const u = unit(sub(at, center));
  const rim = along(center, u, radius);
  const outside = Math.hypot(...sub(at, center)) > radius;
  const angle = Math.atan2(u[1], u[0]);
  // The leader ends in a short level shelf that carries the number.
  const side = u[0] < 0 ? -1 : 1;
  const shelf: Px = [at[0] + side * 30, at[1]];
  return {
    lines: [
      [rim, at],
      [at, shelf],
    ],
    arcs: [],
    arrows: [{ tip: rim, angle: outside ? angle + Math.PI : angle }],
    text: { at: [at[0] + side * 16, at[1] - RAISE], angle: 0 },
    prefix: c.kind === 'radius' ? 'R' : 'Ø',
  };
}

function ofAngle(
  sketch: SketchGeometry,
  c: DimensionConstraint,
  map: PlaneMap,
  label: Px | null,
): DimensionDrawing | null {
  const one = lineIn(sketch, c.of[0]!);
  const other = lineIn(sketch, c.of[1]!);
  if (!one || !other || c.kind !== 'angle') return null;
  const pixels = (ends: readonly Vec2[], turned: boolean) =>
    (turned ? [...ends].reverse() : ends).map((p) => map.toPixel(p));
  const [a, b] = pixels(one, c.reversed === 'first' || c.reversed === 'both');
  const [p, q] = pixels(other, c.reversed === 'second' || c.reversed === 'both');
  const d1 = sub(b!, a!);
  const d2 = sub(q!, p!);
  const cross = d1[0] * d2[1] - d1[1] * d2[0];
  if (Math.abs(cross) < 1e-9) return null;
  const w = sub(p!, a!);
  const apex = along(a!, d1, (w[0] * d2[1] - w[1] * d2[0]) / cross);
  const from = Math.atan2(d1[1], d1[0]);
  const to = Math.atan2(d2[1], d2[0]);
  const radius = label ? Math.max(12, Math.hypot(...sub(label, apex))) : DEFAULT_RADIUS;
  // On screen y runs down, so the plane's counter-clockwise is the canvas's decreasing angle.
  const sweep = (((from - to) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
  const half = from - sweep / 2;
  const at: Px = along(apex, [Math.cos(half), Math.sin(half)], radius + 14);
  const end = (angle: number) => along(apex, [Math.cos(angle), Math.sin(angle)], radius);
  return {
    lines: [],
    arcs: [{ center: apex, radius, from: from - sweep, to: from }],
    arrows: [
      { tip: end(from), angle: from + Math.PI / 2 },
      { tip: end(from - sweep), angle: from - sweep - Math.PI / 2 },
    ],
    text: { at, angle: 0 },
    prefix: '',
  };
}

/** Along the arc, a little outside it. */
function ofArcLength(
  sketch: SketchGeometry,
  c: DimensionConstraint,
  map: PlaneMap,
  label: Px | null,
): DimensionDrawing | null {
  const [p] = sketch.curves[c.of[0]!] ? primitivesFor(sketch, c.of[0]!) : [];
  if (p?.kind !== 'arc') return null;
  const center = map.toPixel(p.center);
  const radius = label ? Math.max(12, Math.hypot(...sub(label, center))) : p.radius * map.scale + 22;
  const angleOf = (t: number) => {
    const [x, y] = sub(map.toPixel(pointAt(p, t)), center);
    return Math.atan2(y, x);
  };
  const [from, to] = [angleOf(1), angleOf(0)];
  const end = (a: number, r = radius) => along(center, [Math.cos(a), Math.sin(a)], r);
  const rim = p.radius * map.scale;
  return {
    lines: [from, to].map((a) => [end(a, rim + GAP), end(a, radius + OVERSHOOT)] as const),
    arcs: [{ center, radius, from, to }],
    arrows: [
      { tip: end(from), angle: from - Math.PI / 2 },
      { tip: end(to), angle: to + Math.PI / 2 },
    ],
    text: { at: end(angleOf(0.5), radius + 12), angle: 0 },
    prefix: '⌒',
  };
}

/** How many, or how far apart in angle: a note beside the first member. */
function ofPattern(
  sketch: SketchGeometry,
  c: DimensionConstraint,
  map: PlaneMap,
  label: Px | null,
): DimensionDrawing | null {
  const pattern = sketch.patterns?.[c.of[0]!];
  if (!pattern) return null;
  const first = sketch.curves[pattern.of[0]!] ? pointsOf(sketch.curves[pattern.of[0]!]!)[0]! : pattern.of[0]!;
  const from = map.toPixel(placeOf(sketch, first));
  const row = { count: 0, count_across: 1, step_angle: 1 }[c.kind as 'count'];
  const at: Px = label ?? [from[0] + 26, from[1] - 30 - row * 20];
  return {
    lines: c.kind === 'count' ? [[from, at]] : [],
    arcs: [],
    arrows: [],
    text: { at: [at[0] + 14, at[1] - 4], angle: 0 },
    prefix: '',
    ...(c.kind === 'step_angle' ? {} : { suffix: '×' }),
  };
}
