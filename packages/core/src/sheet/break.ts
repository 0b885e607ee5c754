/** A stretch that is left out of a view, and what lies on both sides brought together (ISO 128-3, interrupted views). */
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { enlarged } from './paper.ts';
import type { Flat4 } from './piece-places.ts';
import { onSide, pieceWithin } from './piece-within.ts';

/** What is left out of a view, mm of the model, and how wide a gap stands in its place. */
export interface Break {
  readonly axis: 'x' | 'y';
  readonly from: number;
  readonly to: number;
  readonly gap: number;
}

/** So much of the stretch between two places stays at each of its ends. */
const KEPT = 0.12;
/** Of what is left of the view. */
const GAP = 0.03;
/** A stretch shorter than this share of the view is not worth leaving out. */
const WORTH = 0.05;

/** Between two places along an axis; null where hardly anything lies between them. */
export function breakBetween(p: Vec2, q: Vec2, axis: Break['axis'], box: Flat4): Break | null {
  const k = axis === 'x' ? 0 : 1;
  const [low, high] = [Math.min(p[k], q[k]), Math.max(p[k], q[k])];
  const [from, to] = [low + KEPT * (high - low), high - KEPT * (high - low)];
  const all = box[k + 2]! - box[k]!;
  if (to - from < WORTH * all) return null;
  return { axis, from, to, gap: GAP * (all - (to - from)) };
}

/** Where places and pieces of a view come to lie when a stretch is left out, mm of the model. */
export function acrossBreak({ axis, from, to, gap }: Break) {
  const k = axis === 'x' ? 0 : 1;
  const by = gap - (to - from);
  const at = (t: number) => (t <= from ? t : t >= to ? t + by : from + ((t - from) / (to - from)) * gap);
  const moved: Vec2 = k === 0 ? [by, 0] : [0, by];
  return {
    place: (p: Vec2): Vec2 => (k === 0 ? [at(p[0]), p[1]] : [p[0], at(p[1])]),
    pieces: (piece: FlatPiece): FlatPiece[] => [
      ...pieceWithin(piece, onSide(k, from, -1)),
      ...pieceWithin(piece, onSide(k, to, 1)).map((p) => enlarged(p, 1, moved)),
    ],
    /** Strictly within what is left out. */
    leavesOut: (p: Vec2): boolean => p[k] > from && p[k] < to,
  };
}

/** The two thin lines at which it is broken off, each with a kink in its middle. @param box of the view, and the results: mm on the paper */
export function breakLines({ axis, from, gap }: Break, by: number, move: Vec2, box: Flat4): (readonly [Vec2, Vec2])[] {
  const k = axis === 'x' ? 0 : 1;
  const [low, high] = [box[1 - k]! - OUT, box[3 - k]! + OUT];
  const middle = (low + high) / 2;
  return [from, from + gap].flatMap((t) => {
    const at = t * by + move[k]!;
    const path = [[low, 0], [middle - KINK, 0], [middle - KINK / 2, KINK], [middle + KINK / 2, -KINK], [middle + KINK, 0], [high, 0]] as const; // prettier-ignore
    const places = path.map(([along, aside]): Vec2 => (k === 0 ? [at + aside, along] : [along, at + aside]));
    return places.slice(1).map((q, i) => [places[i]!, q] as const);
  });
}
/** mm on the paper. */
const OUT = 3;
const KINK = 1.6;
