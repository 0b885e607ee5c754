/** Draws a sketch: its state by the character of the line first, by colour second. */
import {
  pointAt, spansOf, type Curve, type Loop, type LoopPiece, type Primitive, type SketchGeometry, type Vec2,
} from '@helb/core'; // prettier-ignore
import { inks } from '../theme/theme.ts';
import type { DimensionDrawing } from './dimension-layout.ts';
import { placeOf, primitivesFor } from './hit.ts';
import type { PlaneMap } from './plane-map.ts';

export const INKS = inks({
  settled: 'petrol',
  loose: 'pencil',
  clashing: 'bad',
  signal: 'signal',
  quiet: 'quiet',
  hairline: 'axis',
  dimension: 'petrol',
  ground: 'panel',
  grid: 'grid',
  region: 'region',
});

export interface SketchState {
  readonly loose: ReadonlySet<string>;
  /** Entities under constraints that disagree. */
  readonly clashing: ReadonlySet<string>;
  readonly picked: ReadonlySet<string>;
  readonly hovered: string | null;
  /** Taken from the part: they move only with their source. */
  readonly borrowed?: ReadonlySet<string>;
}

type Ctx = CanvasRenderingContext2D;

/** Trace a curve as a path; the stroke is drawn later in pixels, so lines keep their width. */
export function traceCurve(ctx: Ctx, sketch: SketchGeometry, id: string, map: PlaneMap): void {
  tracePath(ctx, sketch, [id], map);
}

function tracePath(ctx: Ctx, sketch: SketchGeometry, ids: readonly string[], map: PlaneMap): void {
  ctx.beginPath();
  ctx.save();
  map.apply(ctx);
  for (const id of ids) {
    for (const p of primitivesFor(sketch, id)) {
      ctx.moveTo(...pointAt(p, 0));
      tracePrimitive(ctx, p);
    }
  }
  ctx.restore();
}

/** Go on along a curve from where the path stands. */
function tracePrimitive(ctx: Ctx, p: Primitive): void {
  if (p.kind === 'line') ctx.lineTo(p.to[0], p.to[1]);
  else if (p.kind === 'arc') ctx.arc(p.center[0], p.center[1], p.radius, p.start, p.start + p.sweep);
  else if (p.kind === 'ellipse') traceOval(ctx, p, p.start, p.sweep);
  else for (const { control } of spansOf(p)) traceBezier(ctx, control);
}

function traceOval(ctx: Ctx, o: { center: Vec2; major: Vec2; minor: Vec2 }, start: number, sweep: number): void {
  const turn = Math.atan2(o.major[1], o.major[0]);
  const [long, short] = [Math.hypot(...o.major), Math.hypot(...o.minor)];
  ctx.ellipse(o.center[0], o.center[1], long, short, turn, start, start + sweep, sweep < 0);
}

function traceBezier(ctx: Ctx, control: readonly Vec2[]): void {
  const [, b, c, d] = control;
  if (d) ctx.bezierCurveTo(b![0], b![1], c![0], c![1], d[0], d[1]);
  else if (c) ctx.quadraticCurveTo(b![0], b![1], c[0], c[1]);
  else ctx.lineTo(b![0], b![1]);
}

/**
 * Curves of one look are stroked together: that is many times quicker than one by one.
 * @param only which points and curves to draw
 */
export function paintSketch(
  ctx: Ctx,
  sketch: SketchGeometry,
  map: PlaneMap,
  state: SketchState,
  only: (id: string) => boolean = () => true,
): void {
  const looks = new Map<string, { look: CurveLook; ids: string[] }>();
  const curves = Object.entries(sketch.curves).filter(([id]) => only(id));
  for (const [id, curve] of curves) {
    const look = lookOf(id, curve, state);
    const key = `${look.color} ${look.width} ${look.dash.join()} ${look.borrowed}`;
    const same = looks.get(key);
    if (same) same.ids.push(id);
    else looks.set(key, { look, ids: [id] });
  }
  for (const { look, ids } of looks.values()) {
    tracePath(ctx, sketch, ids, map);
    ctx.setLineDash([...look.dash]);
    ctx.lineWidth = look.width;
    ctx.strokeStyle = look.color;
    if (look.borrowed) doubleHairline(ctx);
    else ctx.stroke();
    for (const id of ids) if (state.clashing.has(id)) crossTick(ctx, sketch, id, map);
  }
  ctx.setLineDash([]);
  for (const [, curve] of curves) paintControls(ctx, sketch, curve, map);
  for (const id of Object.keys(sketch.points))
    if (only(id)) paintPoint(ctx, map.toPixel(placeOf(sketch, id)), id, state);
}

interface CurveLook {
  readonly color: string;
  readonly width: number;
  readonly dash: readonly number[];
  readonly borrowed: boolean;
}

function lookOf(id: string, curve: Curve, state: SketchState): CurveLook {
  const loose = state.loose.has(id);
  const dash = curve.construction ? [14, 4] : loose ? [6, 4] : [];
  const picked = state.picked.has(id);
  if (picked || state.hovered === id) return { color: INKS.signal, width: picked ? 3 : 2.4, dash, borrowed: false };
  const color = state.clashing.has(id) ? INKS.clashing : loose ? INKS.loose : INKS.settled;
  return { color, width: curve.construction ? 1 : loose ? 1.6 : 1.8, dash, borrowed: state.borrowed?.has(id) ?? false };
}

function paintPoint(ctx: Ctx, [x, y]: readonly [number, number], id: string, state: SketchState): void {
  const lit = state.picked.has(id) || state.hovered === id;
  const loose = state.loose.has(id);
  if (!lit && !loose) return;
  ctx.beginPath();
  ctx.arc(x, y, lit ? 4.5 : 3.5, 0, 2 * Math.PI);
  ctx.fillStyle = lit ? INKS.signal : INKS.ground;
  ctx.fill();
  ctx.lineWidth = 1.4;
  ctx.strokeStyle = lit ? INKS.signal : INKS.loose;
  ctx.stroke();
}

/** Borrowed curves are two hairlines, a paper-coloured core between them. */
function doubleHairline(ctx: Ctx): void {
  ctx.lineWidth = 3.6;
  ctx.stroke();
  ctx.lineWidth = 1.8;
  ctx.strokeStyle = INKS.ground;
  ctx.stroke();
}

/** The control points of a spline hang on a thin line. */
function paintControls(ctx: Ctx, sketch: SketchGeometry, curve: Curve, map: PlaneMap): void {
  if (curve.kind !== 'spline' || curve.fit !== 'control') return;
  ctx.lineWidth = 1;
  ctx.strokeStyle = INKS.hairline;
  ctx.beginPath();
  for (const p of curve.points) ctx.lineTo(...map.toPixel(placeOf(sketch, p)));
  ctx.stroke();
}

/** A short cross-tick at the middle, so that a clash reads without colour. */
function crossTick(ctx: Ctx, sketch: SketchGeometry, id: string, map: PlaneMap): void {
  const [p] = primitivesFor(sketch, id);
  if (!p) return;
  const [x, y] = map.toPixel(pointAt(p, 0.5));
  ctx.setLineDash([]);
  ctx.lineWidth = 2;
  ctx.beginPath();
  ctx.moveTo(x - 5, y - 5);
  ctx.lineTo(x + 5, y + 5);
  ctx.moveTo(x - 5, y + 5);
  ctx.lineTo(x + 5, y - 5);
  ctx.stroke();
}

/** Fill a region exactly: straight pieces and arcs. */
export function fillLoops(ctx: Ctx, loops: readonly Loop[], map: PlaneMap, fill: string): void {
  ctx.beginPath();
  ctx.save();
  map.apply(ctx);
  for (const loop of loops) {
    const first = loop.pieces[0]!;
    ctx.moveTo(first.from[0], first.from[1]);
    for (const p of loop.pieces) {
      if (p.kind === 'line') ctx.lineTo(p.to[0], p.to[1]);
      else if (p.kind === 'arc') ctx.arc(p.center[0], p.center[1], p.radius, p.start, p.start + p.sweep, p.sweep < 0);
      else if (p.kind === 'ellipse') traceOval(ctx, p, p.start, p.sweep);
      else traceSplinePiece(ctx, p);
    }
    ctx.closePath();
  }
  ctx.restore();
  ctx.fillStyle = fill;
  ctx.fill('evenodd');
}

const SPLINE_STEPS = 48;

/** Part of a spline, walked either way, in short straight steps. */
function traceSplinePiece(ctx: Ctx, p: Extract<LoopPiece, { kind: 'spline' }>): void {
  for (let i = 1; i <= SPLINE_STEPS; i++) {
    const t = p.t0 + ((p.t1 - p.t0) * i) / SPLINE_STEPS;
    ctx.lineTo(...pointAt({ kind: 'spline', curve: p.curve, degree: p.degree, knots: p.knots, control: p.control }, t));
  }
}

/** The sketch's own axes and origin. */
export function paintAxes(ctx: Ctx, map: PlaneMap, width: number, height: number, state: SketchState): void {
  const reach = (width + height) / Math.max(map.scale, 1e-9);
  const axis = (id: string, from: readonly [number, number], to: readonly [number, number]) => {
    const lit = state.picked.has(id) || state.hovered === id;
    ctx.setLineDash([16, 4, 3, 4]);
    ctx.lineWidth = lit ? 2.4 : 1;
    ctx.strokeStyle = lit ? INKS.signal : INKS.hairline;
    ctx.beginPath();
    ctx.moveTo(...map.toPixel(from));
    ctx.lineTo(...map.toPixel(to));
    ctx.stroke();
  };
  axis('x_axis', [-reach, 0], [reach, 0]);
  axis('y_axis', [0, -reach], [0, reach]);
  ctx.setLineDash([]);
  const [x, y] = map.toPixel([0, 0]);
  ctx.beginPath();
  ctx.arc(x, y, 3, 0, 2 * Math.PI);
  ctx.fillStyle = state.hovered === 'origin' || state.picked.has('origin') ? INKS.signal : INKS.quiet;
  ctx.fill();
}

/** A light square grid whose mesh follows the zoom. */
export function paintGrid(ctx: Ctx, map: PlaneMap, width: number, height: number): void {
  const wanted = 24 / map.scale;
  const power = 10 ** Math.floor(Math.log10(wanted));
  const step = [1, 2, 5, 10].map((n) => n * power).find((s) => s >= wanted)!;
  const corners = [map.toPlane(0, 0), map.toPlane(width, height), map.toPlane(width, 0), map.toPlane(0, height)];
  const range = (k: 0 | 1) =>
    [
      Math.floor(Math.min(...corners.map((c) => c[k])) / step),
      Math.ceil(Math.max(...corners.map((c) => c[k])) / step),
    ] as const;
  const [u0, u1] = range(0);
  const [v0, v1] = range(1);
  if (u1 - u0 > 400 || v1 - v0 > 400) return;
  ctx.setLineDash([]);
  ctx.lineWidth = 1;
  ctx.strokeStyle = INKS.grid;
  ctx.beginPath();
  for (let i = u0; i <= u1; i++) {
    ctx.moveTo(...map.toPixel([i * step, v0 * step]));
    ctx.lineTo(...map.toPixel([i * step, v1 * step]));
  }
  for (let i = v0; i <= v1; i++) {
    ctx.moveTo(...map.toPixel([u0 * step, i * step]));
    ctx.lineTo(...map.toPixel([u1 * step, i * step]));
  }
  ctx.stroke();
}

const ARROW_LENGTH = 9;
const ARROW_WIDTH = 2.6;

/** Lines, arcs and arrows of dimensions of one colour. Strokes are quicker together, small fills one by one. */
export function paintDimensions(ctx: Ctx, drawings: readonly DimensionDrawing[], color: string): void {
  ctx.setLineDash([]);
  ctx.lineWidth = 1;
  ctx.strokeStyle = color;
  ctx.fillStyle = color;
  ctx.beginPath();
  for (const { lines, arcs } of drawings) {
    for (const [a, b] of lines) {
      ctx.moveTo(a[0], a[1]);
      ctx.lineTo(b[0], b[1]);
    }
    for (const { center, radius, from, to } of arcs) {
      ctx.moveTo(center[0] + radius * Math.cos(from), center[1] + radius * Math.sin(from));
      ctx.arc(center[0], center[1], radius, from, to);
    }
  }
  ctx.stroke();
  for (const { tip, angle } of drawings.flatMap((d) => d.arrows)) {
    const back: Vec2 = [tip[0] - ARROW_LENGTH * Math.cos(angle), tip[1] - ARROW_LENGTH * Math.sin(angle)];
    const side: Vec2 = [-Math.sin(angle) * ARROW_WIDTH, Math.cos(angle) * ARROW_WIDTH];
    ctx.beginPath();
    ctx.moveTo(tip[0], tip[1]);
    ctx.lineTo(back[0] + side[0], back[1] + side[1]);
    ctx.lineTo(back[0] - side[0], back[1] - side[1]);
    ctx.fill();
  }
}

/** The numbers themselves, where no elements stand for them. */
export function paintNumbers(
  ctx: Ctx,
  numbers: readonly { readonly text: DimensionDrawing['text']; readonly number: string }[],
  color: string,
): void {
  ctx.font = '13px "Spline Sans Mono", monospace';
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.fillStyle = color;
  for (const { text, number } of numbers) {
    ctx.translate(text.at[0], text.at[1]);
    ctx.rotate(text.angle);
    ctx.fillText(number, 0, 0);
    ctx.rotate(-text.angle);
    ctx.translate(-text.at[0], -text.at[1]);
  }
}
