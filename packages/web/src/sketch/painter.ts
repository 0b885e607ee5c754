/** Draws a sketch: its state by the character of the line first, by colour second. */
import { type Curve, type Loop, type SketchGeometry } from '@helb/core';
import { placeOf } from './hit.ts';
import type { PlaneMap } from './plane-map.ts';

export const INKS = {
  settled: '#114B52',
  loose: '#A87C2A',
  clashing: '#A8123E',
  signal: '#C8401A',
  quiet: '#5D676B',
  hairline: '#B9B1A0',
  dimension: '#114B52',
} as const;

export interface SketchState {
  readonly loose: ReadonlySet<string>;
  /** Entities under constraints that disagree. */
  readonly clashing: ReadonlySet<string>;
  readonly picked: ReadonlySet<string>;
  readonly hovered: string | null;
}

type Ctx = CanvasRenderingContext2D;

/** Trace a curve as a path; the stroke is drawn later in pixels, so lines keep their width. */
export function traceCurve(ctx: Ctx, sketch: SketchGeometry, curve: Curve, map: PlaneMap): void {
  ctx.beginPath();
  if (curve.kind === 'line') {
    ctx.moveTo(...map.toPixel(placeOf(sketch, curve.from)));
    ctx.lineTo(...map.toPixel(placeOf(sketch, curve.to)));
    return;
  }
  const [cx, cy] = placeOf(sketch, curve.center);
  ctx.save();
  map.apply(ctx);
  if (curve.kind === 'circle') ctx.arc(cx, cy, curve.radius, 0, 2 * Math.PI);
  else {
    const [fx, fy] = placeOf(sketch, curve.from);
    const [tx, ty] = placeOf(sketch, curve.to);
    ctx.arc(cx, cy, Math.hypot(fx - cx, fy - cy), Math.atan2(fy - cy, fx - cx), Math.atan2(ty - cy, tx - cx));
  }
  ctx.restore();
}

export function paintSketch(ctx: Ctx, sketch: SketchGeometry, map: PlaneMap, state: SketchState): void {
  for (const [id, curve] of Object.entries(sketch.curves)) {
    traceCurve(ctx, sketch, curve, map);
    styleCurve(ctx, id, curve, state);
    ctx.stroke();
    if (state.clashing.has(id)) crossTick(ctx, sketch, curve, map);
  }
  ctx.setLineDash([]);
  for (const id of Object.keys(sketch.points)) paintPoint(ctx, map.toPixel(placeOf(sketch, id)), id, state);
}

function styleCurve(ctx: Ctx, id: string, curve: Curve, state: SketchState): void {
  const loose = state.loose.has(id);
  ctx.setLineDash(curve.construction ? [14, 4] : loose ? [6, 4] : []);
  ctx.lineWidth = curve.construction ? 1 : loose ? 1.6 : 1.8;
  ctx.strokeStyle = loose ? INKS.loose : INKS.settled;
  if (state.clashing.has(id)) ctx.strokeStyle = INKS.clashing;
  if (state.picked.has(id) || state.hovered === id) {
    ctx.strokeStyle = INKS.signal;
    ctx.lineWidth = state.picked.has(id) ? 3 : 2.4;
  }
}

function paintPoint(ctx: Ctx, [x, y]: readonly [number, number], id: string, state: SketchState): void {
  const lit = state.picked.has(id) || state.hovered === id;
  const loose = state.loose.has(id);
  if (!lit && !loose) return;
  ctx.beginPath();
  ctx.arc(x, y, lit ? 4.5 : 3.5, 0, 2 * Math.PI);
  ctx.fillStyle = lit ? INKS.signal : '#FBFAF6';
  ctx.fill();
  ctx.lineWidth = 1.4;
  ctx.strokeStyle = lit ? INKS.signal : INKS.loose;
  ctx.stroke();
}

/** A short cross-tick at the middle, so that a clash reads without colour. */
function crossTick(ctx: Ctx, sketch: SketchGeometry, curve: Curve, map: PlaneMap): void {
  const at =
    curve.kind === 'line'
      ? middle(placeOf(sketch, curve.from), placeOf(sketch, curve.to))
      : placeOf(sketch, curve.kind === 'arc' ? curve.from : curve.center);
  const offset = curve.kind === 'circle' ? curve.radius * map.scale : 0;
  const [x, y] = map.toPixel(at);
  ctx.setLineDash([]);
  ctx.lineWidth = 2;
  ctx.beginPath();
  ctx.moveTo(x + offset - 5, y - 5);
  ctx.lineTo(x + offset + 5, y + 5);
  ctx.moveTo(x + offset - 5, y + 5);
  ctx.lineTo(x + offset + 5, y - 5);
  ctx.stroke();
}

function middle(a: readonly [number, number], b: readonly [number, number]): [number, number] {
  return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
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
      else ctx.arc(p.center[0], p.center[1], p.radius, p.start, p.start + p.sweep, p.sweep < 0);
    }
    ctx.closePath();
  }
  ctx.restore();
  ctx.fillStyle = fill;
  ctx.fill('evenodd');
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
  ctx.strokeStyle = 'rgba(31,42,48,0.05)';
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
