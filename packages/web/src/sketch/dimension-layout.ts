/** Where a dimension's lines, arrows and number stand, after drafting practice. All in pixels. */
import { type DimensionConstraint, type SketchGeometry, type Vec2 } from '@helb/core';
import { placeOf } from './hit.ts';
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
  readonly prefix: '' | 'Ø' | 'R';
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
    default:
      return linear(sketch, c, map, label);
  }
}

/** The two places a distance runs between, and the way it is measured where that is not from one to the other. */
interface Anchors {
  readonly ends: readonly [Vec2, Vec2];
  readonly along?: Vec2;
}

function anchors(sketch: SketchGeometry, of: readonly string[], label: Vec2 | undefined): Anchors | null {
  const lines = of.map((id) => endsOf(sketch, id));
  if (of.length === 1) return lines[0] ? { ends: lines[0] } : null;
  const places = of.map((id) => pointOf(sketch, id));
  if (places[0] && places[1]) return { ends: [places[0], places[1]] };
  const line = lines[0] ?? lines[1];
  const other = lines[0] ? of[1]! : of[0]!;
  const otherLine = endsOf(sketch, other);
  const point = pointOf(sketch, other) ?? (otherLine && nearestEnd(otherLine, label));
  if (!line || !point) return null;
  const d = unit(sub(line[1], line[0]));
  const foot = along(line[0], d, dot(sub(point, line[0]), d));
  // From a drawn line the extension starts at its end, so that it does not run along the line itself.
  const isDrawn = of.find((id) => id !== other)! in sketch.curves;
  return { ends: [point, isDrawn ? nearestEnd(line, label ?? point) : foot], along: unit(sub(foot, point)) };
}

/** The end of a line nearer to where the number stands; its first without one. */
function nearestEnd([a, b]: readonly [Vec2, Vec2], to: Vec2 | undefined): Vec2 {
  return to && Math.hypot(...sub(b, to)) < Math.hypot(...sub(a, to)) ? b : a;
}

function endsOf(sketch: SketchGeometry, id: string): [Vec2, Vec2] | null {
  if (id === 'x_axis') return [[0, 0], [1, 0]]; // prettier-ignore
  if (id === 'y_axis') return [[0, 0], [0, 1]]; // prettier-ignore
  const curve = sketch.curves[id];
  return curve?.kind === 'line' ? [placeOf(sketch, curve.from), placeOf(sketch, curve.to)] : null;
}

function pointOf(sketch: SketchGeometry, id: string): Vec2 | null {
  const curve = sketch.curves[id];
  if (curve) return curve.kind === 'line' ? null : placeOf(sketch, curve.center);
  return id === 'origin' || id in sketch.points ? placeOf(sketch, id) : null;
}

function linear(
  sketch: SketchGeometry,
  c: DimensionConstraint,
  map: PlaneMap,
  label: Px | null,
): DimensionDrawing | null {
  const found = anchors(sketch, c.of, c.label);
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

/** Outside the sketch, on the far side from its middle. */
function defaultLabel(sketch: SketchGeometry, a: Px, b: Px, n: Px, map: PlaneMap): Px {
  const points = Object.values(sketch.points);
  const center = map.toPixel([
    points.reduce((s, p) => s + p[0], 0) / Math.max(points.length, 1),
    points.reduce((s, p) => s + p[1], 0) / Math.max(points.length, 1),
  ]);
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
  if (!curve || curve.kind === 'line') return null;
  const [cx, cy] = placeOf(sketch, curve.center);
  const [fx, fy] = curve.kind === 'arc' ? placeOf(sketch, curve.from) : [cx + curve.radius, cy];
  const center = map.toPixel([cx, cy]);
  const radius = Math.hypot(fx - cx, fy - cy) * map.scale;
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
  const one = endsOf(sketch, c.of[0]!);
  const other = endsOf(sketch, c.of[1]!);
  if (!one || !other) return null;
  const [a, b] = one.map((p) => map.toPixel(p));
  const [p, q] = other.map((x) => map.toPixel(x));
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

const ARROW_LENGTH = 9;
const ARROW_WIDTH = 2.6;

export function paintDimension(ctx: CanvasRenderingContext2D, drawing: DimensionDrawing, color: string): void {
  ctx.setLineDash([]);
  ctx.lineWidth = 1;
  ctx.strokeStyle = color;
  ctx.fillStyle = color;
  ctx.beginPath();
  for (const [a, b] of drawing.lines) {
    ctx.moveTo(a[0], a[1]);
    ctx.lineTo(b[0], b[1]);
  }
  ctx.stroke();
  for (const arc of drawing.arcs) {
    ctx.beginPath();
    ctx.arc(arc.center[0], arc.center[1], arc.radius, arc.from, arc.to);
    ctx.stroke();
  }
  for (const { tip, angle } of drawing.arrows) {
    const back: Px = [tip[0] - ARROW_LENGTH * Math.cos(angle), tip[1] - ARROW_LENGTH * Math.sin(angle)];
    const side: Px = [-Math.sin(angle) * ARROW_WIDTH, Math.cos(angle) * ARROW_WIDTH];
    ctx.beginPath();
    ctx.moveTo(tip[0], tip[1]);
    ctx.lineTo(back[0] + side[0], back[1] + side[1]);
    ctx.lineTo(back[0] - side[0], back[1] - side[1]);
    ctx.closePath();
    ctx.fill();
  }
}
