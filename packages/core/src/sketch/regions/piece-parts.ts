/** Pieces walked the other way, divided, and measured. */
import type { LoopPiece } from './piece.ts';
import { nearestOn, pointAt, type Vec2 } from './primitives.ts';

export function pieceReversed(p: LoopPiece): LoopPiece {
  const turned = { from: p.to, to: p.from, forward: !p.forward };
  if (p.kind === 'line') return { ...p, ...turned };
  if (p.kind === 'spline') return { ...p, ...turned, t0: p.t1, t1: p.t0 };
  return { ...p, ...turned, start: p.start + p.sweep, sweep: -p.sweep };
}

/** @param s from 0 at its beginning to 1 at its end, by its own parameter */
export function placeOnPiece(p: LoopPiece, s: number): Vec2 {
  if (p.kind === 'line') return [p.from[0] + s * (p.to[0] - p.from[0]), p.from[1] + s * (p.to[1] - p.from[1])];
  if (p.kind === 'spline') {
    const { curve, degree, knots, control } = p;
    return pointAt({ kind: 'spline', curve, degree, knots, control }, p.t0 + s * (p.t1 - p.t0));
  }
  const angle = p.start + s * p.sweep;
  const [c, d] = [Math.cos(angle), Math.sin(angle)];
  if (p.kind === 'arc') return [p.center[0] + p.radius * c, p.center[1] + p.radius * d];
  return [p.center[0] + c * p.major[0] + d * p.minor[0], p.center[1] + c * p.major[1] + d * p.minor[1]];
}

/** Shares of a piece at which it is differentiable only twice. */
export function knotsWithin(p: LoopPiece): number[] {
  if (p.kind !== 'spline') return [];
  const shares = p.knots.map((t) => (t - p.t0) / (p.t1 - p.t0));
  return [...new Set(shares)].filter((s) => s > SAME_SHARE && s < 1 - SAME_SHARE).sort((a, b) => a - b);
}
const SAME_SHARE = 1e-9;

/** The part before and the part after a place within it. */
export function pieceSplit(p: LoopPiece, s: number): [LoopPiece, LoopPiece] {
  const at = placeOnPiece(p, s);
  if (p.kind === 'line')
    return [
      { ...p, to: at },
      { ...p, from: at },
    ];
  if (p.kind === 'spline') {
    const t = p.t0 + s * (p.t1 - p.t0);
    return [{ ...p, to: at, t1: t }, { ...p, from: at, t0: t }]; // prettier-ignore
  }
  const turned = s * p.sweep;
  return [{ ...p, to: at, sweep: turned }, { ...p, from: at, start: p.start + turned, sweep: p.sweep - turned }]; // prettier-ignore
}

/** mm; of ellipses and splines by many short chords. */
export function pieceLength(p: LoopPiece): number {
  if (p.kind === 'line') return Math.hypot(p.to[0] - p.from[0], p.to[1] - p.from[1]);
  if (p.kind === 'arc') return p.radius * Math.abs(p.sweep);
  let total = 0;
  let last = placeOnPiece(p, 0);
  for (let i = 1; i <= CHORDS; i++) {
    const next = placeOnPiece(p, i / CHORDS);
    total += Math.hypot(next[0] - last[0], next[1] - last[1]);
    last = next;
  }
  return total;
}
const CHORDS = 64;

/** Shortest distance from a place to a piece, mm. */
export function distanceToPiece(p: LoopPiece, at: Vec2): number {
  const toEnds = Math.min(...[p.from, p.to].map(([x, y]) => Math.hypot(x - at[0], y - at[1])));
  const own = p.kind !== 'line' && p.kind !== 'spline' && p.sweep < 0 ? pieceReversed(p) : p;
  const range = p.kind === 'spline' ? ([Math.min(p.t0, p.t1), Math.max(p.t0, p.t1)] as const) : undefined;
  const { point } = nearestOn(own, at, range);
  return Math.min(toEnds, Math.hypot(point[0] - at[0], point[1] - at[1]));
}
