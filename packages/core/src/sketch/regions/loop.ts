/** Closed chains of pieces: area, containment, a point inside. */
import type { HalfEdge } from './arrange.ts';
import { crossings, heightsOf, pieceArea, pieceOf, type LoopPiece } from './piece.ts';
import type { Vec2 } from './primitives.ts';

export type { LoopPiece } from './piece.ts';

export interface Loop {
  readonly pieces: readonly LoopPiece[];
  /** mm²; positive when walked counter-clockwise. */
  readonly area: number;
}

/** Neighbouring pieces of one curve become one, so that a cut by a crossing curve leaves no seam. */
export function loopOf(walk: readonly HalfEdge[]): Loop {
  const pieces: LoopPiece[] = [];
  for (const h of walk) {
    const piece = pieceOf(h);
    const last = pieces.at(-1);
    if (last && continues(last, piece)) pieces[pieces.length - 1] = joined(last, piece);
    else pieces.push(piece);
  }
  while (pieces.length > 1 && continues(pieces.at(-1)!, pieces[0]!)) {
    pieces[0] = joined(pieces.pop()!, pieces[0]!);
  }
  return { pieces, area: pieces.reduce((sum, p) => sum + pieceArea(p), 0) };
}

function continues(a: LoopPiece, b: LoopPiece): boolean {
  return (
    a.curve === b.curve &&
    a.kind === b.kind &&
    a.forward === b.forward &&
    a !== b &&
    (a.kind !== 'line' || isStraight(a, b)) &&
    (a.kind !== 'spline' || (b.kind === 'spline' && a.control === b.control && a.t1 === b.t0)) &&
    Math.hypot(a.to[0] - b.from[0], a.to[1] - b.from[1]) < 1e-9 * (1 + Math.abs(a.to[0]) + Math.abs(a.to[1]))
  );
}

/** The lines of a letter all belong to one outline, and still have corners. */
function isStraight(a: LoopPiece, b: LoopPiece): boolean {
  const [ux, uy] = [a.to[0] - a.from[0], a.to[1] - a.from[1]];
  const [vx, vy] = [b.to[0] - b.from[0], b.to[1] - b.from[1]];
  return Math.abs(ux * vy - uy * vx) <= 1e-9 * Math.hypot(ux, uy) * Math.hypot(vx, vy) && ux * vx + uy * vy > 0;
}

function joined(a: LoopPiece, b: LoopPiece): LoopPiece {
  if ((a.kind === 'arc' && b.kind === 'arc') || (a.kind === 'ellipse' && b.kind === 'ellipse'))
    return { ...a, to: b.to, sweep: a.sweep + b.sweep };
  if (a.kind === 'spline' && b.kind === 'spline') return { ...a, to: b.to, t1: b.t1 };
  return { ...a, to: b.to };
}

/** Is a point inside the loops (even–odd)? Points on the boundary may come out either way. */
export function isInside(loops: readonly Loop[], at: Vec2): boolean {
  // A hair off the given height, so that a level line seldom runs through a corner.
  const y = at[1] + 1.37e-10 * (1 + Math.abs(at[1]));
  let count = 0;
  for (const loop of loops) for (const p of loop.pieces) for (const x of crossings(p, y)) if (x > at[0]) count++;
  return count % 2 === 1;
}

/** A point well inside: the middle of the widest level stretch among several heights. */
export function pointInside(loops: readonly Loop[]): Vec2 {
  const ys = loops[0]!.pieces.flatMap(heightsOf);
  const low = Math.min(...ys);
  const high = Math.max(...ys);
  let best: Vec2 = loops[0]!.pieces[0]!.from;
  let widest = -1;
  for (const share of [0.5, 0.3819, 0.6237, 0.2113, 0.7893, 0.0917, 0.9071]) {
    const y = low + share * (high - low);
    const xs = loops.flatMap((l) => l.pieces.flatMap((p) => crossings(p, y))).sort((a, b) => a - b);
    for (let i = 0; i + 1 < xs.length; i += 2) {
      const width = xs[i + 1]! - xs[i]!;
      if (width > widest * 1.2) {
        widest = width;
        best = [(xs[i]! + xs[i + 1]!) / 2, y];
      }
    }
  }
  return best;
}
