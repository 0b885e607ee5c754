/** Where a dimension's lines, arrows and number stand, after drafting practice. All in pixels. */
import {
  lineIn, memberId, placeIn, pointAt, pointsOf, radiusIn, type DimensionConstraint, type SketchGeometry, type Vec2,
} from '@helb/core'; // prettier-ignore
import { placeOf, primitivesFor } from './hit.ts';
import type { PlaneMap } from './plane-map.ts';

type Px = readonly [number, number];

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
/** Shorter dimension lines carry their arrows outside. */
const ROOM_FOR_ARROWS = 34;

const sub = (a: Px, b: Px): Px => [a[0] - b[0], a[1] - b[1]];
const along = (a: Px, d: Px, t: number): Px => [a[0] + d[0] * t, a[1] + d[1] * t];
const dot = (a: Px, b: Px) => a[0] * b[0] + a[1] * b[1];
const unit = (v: Px): Px => {
  const size = Math.hypot(...v) || 1;
  return [v[0] / size, v[1] / size];
};

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

/** The two places a distance runs between, and the way it is measured where that is not from one to the other. */
interface Anchors {
  readonly ends: readonly [Vec2, Vec2];
  readonly along?: Vec2;
}

function anchors(sketch: SketchGeometry, c: DimensionConstraint): Anchors | null {
  const { of, label } = c;
  const special = anchorsOfKind(sketch, c);
  if (special !== undefined) return special;
  const lines = of.map((id) => lineIn(sketch, id));
  if (of.length === 1) return lines[0] ? { ends: lines[0] } : null;
  const places = of.map((id) => placeIn(sketch, id));
  if (places[0] && places[1]) {
    const ends = atRims(sketch, c, [places[0], places[1]]);
    return { ends };
  }
  // A centre line comes second.
  const at = c.kind === 'across' || !lines[0] ? 1 : 0;
  const line = lines[at];
  const other = of[1 - at]!;
  const otherLine = lineIn(sketch, other);
  let point = placeIn(sketch, other) ?? (otherLine && nearestEnd(otherLine, label));
  if (!line || !point) return null;
  const d = unit(sub(line[1], line[0]));
  let foot = along(line[0], d, dot(sub(point, line[0]), d));
  const way = unit(sub(foot, point));
  const rim = c.kind === 'distance' ? c.rims?.[of.indexOf(other)] : undefined;
  if (rim && rim !== 'center') point = along(point, way, (rim === 'near' ? 1 : -1) * radiusIn(sketch, other));
  // Across a centre line, the number spans both sides of it.
  if (c.kind === 'across') foot = along(point, way, 2 * Math.hypot(...sub(foot, point)));
  // From a drawn line the extension starts at its end, so that it does not run along the line itself.
  const isDrawn = c.kind !== 'across' && of.find((id) => id !== other)! in sketch.curves;
  return { ends: [point, isDrawn ? nearestEnd(line, label ?? point) : foot], along: way };
}

/** Kinds that are measured between places of their own; undefined for all others. */
function anchorsOfKind(sketch: SketchGeometry, c: DimensionConstraint): Anchors | null | undefined {
  const curve = sketch.curves[c.of[0]!];
  switch (c.kind) {
    case 'major_radius':
      return curve && 'major' in curve ? { ends: [placeOf(sketch, curve.center), placeOf(sketch, curve.major)] } : null;
    case 'minor_radius': {
      if (!curve || !('major' in curve)) return null;
      const [center, major] = [placeOf(sketch, curve.center), placeOf(sketch, curve.major)];
      const u = unit(sub(major, center));
      return { ends: [center, along(center, [-u[1], u[0]], curve.minor)] };
    }
    case 'text_height': {
      const ends = lineIn(sketch, c.of[0]!);
      if (!ends || curve?.kind !== 'text') return null;
      const u = unit(sub(ends[1], ends[0]));
      const boxes = primitivesFor(sketch, c.of[0]!).flatMap((p) => [pointAt(p, 0), pointAt(p, 0.5)]);
      const top = Math.max(0, ...boxes.map((p) => dot(sub(p, ends[0]), [-u[1], u[0]])));
      return { ends: [ends[0], along(ends[0], [-u[1], u[0]], top)] };
    }
    case 'spacing':
    case 'spacing_across': {
      const pattern = sketch.patterns?.[c.of[0]!];
      const first =
        pattern && (sketch.curves[pattern.of[0]!] ? pointsOf(sketch.curves[pattern.of[0]!]!)[0]! : pattern.of[0]!);
      const member =
        first && memberId(first, c.of[0]!, ...((c.kind === 'spacing' ? [1, 0] : [0, 1]) as [number, number]));
      return first && member && sketch.points[member]
        ? { ends: [placeOf(sketch, first), placeOf(sketch, member)] }
        : null;
    }
    case 'offset': {
      const [line, copy] = [lineIn(sketch, c.of[0]!), lineIn(sketch, c.of[1]!)];
      if (line && copy) {
        const middle = along(copy[0], sub(copy[1], copy[0]), 0.5);
        const d = unit(sub(line[1], line[0]));
        return { ends: [middle, along(line[0], d, dot(sub(middle, line[0]), d))] };
      }
      const center = placeIn(sketch, c.of[0]!);
      const u: Vec2 = [Math.SQRT1_2, Math.SQRT1_2];
      const rim = (id: string) => along(center!, u, radiusIn(sketch, id));
      return center ? { ends: [rim(c.of[0]!), rim(c.of[1]!)] } : null;
    }
    default:
      return undefined;
  }
}

/** Two places, each moved to the edge of its circle where the number is measured from there. */
function atRims(sketch: SketchGeometry, c: DimensionConstraint, [a, b]: readonly [Vec2, Vec2]): [Vec2, Vec2] {
  const rims = c.kind === 'distance' ? (c.rims ?? []) : [];
  const u = unit(sub(b, a));
  const shift = (p: Vec2, i: 0 | 1): Vec2 => {
    const rim = rims[i];
    if (!rim || rim === 'center') return p;
    const inwards = (i === 0 ? 1 : -1) * (rim === 'near' ? 1 : -1);
    return along(p, u, inwards * radiusIn(sketch, c.of[i]!));
  };
  return [shift(a, 0), shift(b, 1)];
}

/** The end of a line nearer to where the number stands; its first without one. */
function nearestEnd([a, b]: readonly [Vec2, Vec2], to: Vec2 | undefined): Vec2 {
  return to && Math.hypot(...sub(b, to)) < Math.hypot(...sub(a, to)) ? b : a;
}

function linear(
  sketch: SketchGeometry,
  c: DimensionConstraint,
  map: PlaneMap,
  label: Px | null,
): DimensionDrawing | null {
  const found = anchors(sketch, c);
  if (!found) return null;
  const a = map.toPixel(found.ends[0]);
  const b = map.toPixel(found.ends[1]);
  let d = unit(found.along ? sub(map.toPixel(found.along), map.toPixel([0, 0])) : sub(b, a));
  if (c.kind === 'horizontal_distance') d = unit(map.view.x);
  if (c.kind === 'vertical_distance') d = unit(map.view.y);
  const n: Px = [-d[1], d[0]];
  const at = label ?? defaultLabel(sketch, a, b, n, map);
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

/** Outside the sketch, on the far side from its middle. */
function defaultLabel(sketch: SketchGeometry, a: Px, b: Px, n: Px, map: PlaneMap): Px {
  const center = map.toPixel(middleOf(sketch));
  const middle: Px = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const side = dot(sub(middle, center), n) < 0 ? -1 : 1;
  return along(middle, n, side * DEFAULT_OFFSET);
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
  const radius = label ? Math.max(12, Math.hypot(...sub(label, apex))) : 44;
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
