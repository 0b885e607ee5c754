/** Places on flat pieces: what lies on what, how far away, and how far they reach. */
import { onOval, ovalOf } from '../exchange/face-drawing.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';

export type Flat4 = readonly [x0: number, y0: number, x1: number, y1: number];

/** Lines nearer alike than this, mm, are one. */
export const SAME = 1e-4;

/** Three places on a piece. */
function placesOn(piece: FlatPiece): Vec2[] {
  if (piece.kind === 'line') {
    const [[x0, y0], [x1, y1]] = piece.points;
    return [0.1, 0.5, 0.9].map((t) => [x0 + t * (x1 - x0), y0 + t * (y1 - y0)]);
  }
  if (piece.kind === 'spline') return [1, Math.floor(piece.points.length / 2), piece.points.length - 2].map((i) => piece.points[Math.max(0, i)]!); // prettier-ignore
  if (piece.kind === 'point') return [...piece.points];
  const oval = ovalOf(piece);
  return [0.1, 0.5, 0.9].map((s) => onOval(oval, oval.from + s * (oval.to - oval.from)));
}

/** Does all of a piece lie on another? Told by three places. */
export const liesIn = (piece: FlatPiece, other: FlatPiece): boolean => placesOn(piece).every((p) => isOn(p, other));

function isOn([x, y]: Vec2, piece: FlatPiece): boolean {
  switch (piece.kind) {
    case 'point':
      return Math.hypot(x - piece.points[0][0], y - piece.points[0][1]) < SAME;
    case 'line':
      return awayFromLine([x, y], piece.points[0], piece.points[1]) < SAME;
    case 'spline':
      return piece.points.some((p, i, all) => i > 0 && awayFromLine([x, y], all[i - 1]!, p) < SAME * 10);
    default: {
      const { center, major, minor, long, short, from, to } = ovalOf(piece);
      const [dx, dy] = [x - center[0], y - center[1]];
      const [u, v] = [(dx * major[0] + dy * major[1]) / long ** 2, (dx * minor[0] + dy * minor[1]) / short ** 2];
      if (Math.abs(Math.hypot(u, v) - 1) * short > SAME) return false;
      const turn = 2 * Math.PI;
      const t = (((Math.atan2(v, u) - from) % turn) + turn) % turn;
      return t <= to - from + 1e-6 || t >= turn - 1e-6;
    }
  }
}

function awayFromLine([x, y]: Vec2, [x0, y0]: Vec2, [x1, y1]: Vec2): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const t = Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(x0 + t * dx - x, y0 + t * dy - y);
}

/** What of a piece no other covers: lines by stretches, others whole or not at all. */
export function uncovered(piece: FlatPiece, by: readonly FlatPiece[]): FlatPiece[] {
  if (piece.kind !== 'line')
    return by.some((other) => other.kind === piece.kind && liesIn(piece, other)) ? [] : [piece];
  const [a, b] = piece.points;
  const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
  if (long < SAME) return [];
  const along: Vec2 = [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
  const at = ([x, y]: Vec2) => (x - a[0]) * along[0] + (y - a[1]) * along[1];
  const off = ([x, y]: Vec2) => Math.abs((x - a[0]) * along[1] - (y - a[1]) * along[0]);
  let left: [number, number][] = [[0, long]];
  for (const other of by) {
    if (other.kind !== 'line' || off(other.points[0]) > SAME || off(other.points[1]) > SAME) continue;
    const [s, e] = [at(other.points[0]), at(other.points[1])].sort((p, q) => p - q) as [number, number];
    left = left.flatMap(([f, t]): [number, number][] => (e <= f || s >= t ? [[f, t]] : [[f, Math.max(f, s)], [Math.min(t, e), t]])); // prettier-ignore
  }
  const place = (s: number): Vec2 => [a[0] + s * along[0], a[1] + s * along[1]];
  return left.filter(([f, t]) => t - f > SAME * 10).map(([f, t]) => ({ kind: 'line', points: [place(f), place(t)] }));
}

const SAMPLES = 96;

/** How far a place is from a piece; of ovals that are not round nearly. */
export function awayFromPiece(p: Vec2, piece: FlatPiece): number {
  switch (piece.kind) {
    case 'point':
      return Math.hypot(p[0] - piece.points[0][0], p[1] - piece.points[0][1]);
    case 'line':
      return awayFromLine(p, ...piece.points);
    case 'spline':
      return Math.min(...piece.points.slice(1).map((q, i) => awayFromLine(p, piece.points[i]!, q)));
    default: {
      const oval = ovalOf(piece);
      const at = (i: number) => onOval(oval, oval.from + ((oval.to - oval.from) * i) / SAMPLES);
      return Math.min(...Array.from({ length: SAMPLES }, (_, i) => awayFromLine(p, at(i), at(i + 1))));
    }
  }
}

/** Of a curve the places where it reaches farthest are among those taken. */
function reachOf(piece: FlatPiece): readonly Vec2[] {
  if (piece.kind === 'point' || piece.kind === 'line' || piece.kind === 'spline') return piece.points;
  const oval = ovalOf(piece);
  const { major, minor, from, to } = oval;
  const far = [0, 1].flatMap((i) => [0, 1, 2, 3, 4].map((k) => Math.atan2(minor[i]!, major[i]!) + (k - 2) * Math.PI));
  return [from, to, ...far.filter((t) => t > from && t < to)].map((t) => onOval(oval, t));
}

export function boxOfPieces(pieces: readonly FlatPiece[]): Flat4 {
  const all = pieces.flatMap(reachOf);
  if (all.length === 0) return [0, 0, 0, 0];
  const [xs, ys] = [all.map((p) => p[0]), all.map((p) => p[1])];
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}
