/** Closed chains of pieces: area, containment, a point inside. */
import { isFullCircle, onRound, pointAt, TAU, type Vec2 } from './primitives.ts';
import type { HalfEdge } from './arrange.ts';

/** A piece of a region's boundary in walking order, with the region on its left. */
export type LoopPiece =
  | { readonly kind: 'line'; readonly curve: string; readonly forward: boolean; readonly from: Vec2; readonly to: Vec2 }
  | {
      readonly kind: 'arc';
      readonly curve: string;
      readonly forward: boolean;
      readonly from: Vec2;
      readonly to: Vec2;
      readonly center: Vec2;
      readonly radius: number;
      /** Angle at `from`, and signed sweep to `to` (counter-clockwise positive), rad. */
      readonly start: number;
      readonly sweep: number;
    };

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
  return { pieces, area: pieces.reduce((sum, p) => sum + areaUnder(p), 0) };
}

function pieceOf(h: HalfEdge): LoopPiece {
  const p = h.primitive;
  const base = { curve: p.curve, forward: h.t1 > h.t0, from: pointAt(p, h.t0), to: pointAt(p, h.t1) };
  if (p.kind === 'line') return { kind: 'line', ...base };
  const whole = isFullCircle(p) && Math.abs(h.t1 - h.t0) > 1 - 1e-12;
  const sweep = whole ? Math.sign(h.t1 - h.t0) * TAU : (h.t1 - h.t0) * p.sweep;
  return { kind: 'arc', ...base, center: p.center, radius: p.radius, start: p.start + h.t0 * p.sweep, sweep };
}

function continues(a: LoopPiece, b: LoopPiece): boolean {
  return (
    a.curve === b.curve &&
    a.forward === b.forward &&
    a !== b &&
    Math.hypot(a.to[0] - b.from[0], a.to[1] - b.from[1]) < 1e-9 * (1 + Math.abs(a.to[0]) + Math.abs(a.to[1]))
  );
}

function joined(a: LoopPiece, b: LoopPiece): LoopPiece {
  if (a.kind === 'arc' && b.kind === 'arc') return { ...a, to: b.to, sweep: a.sweep + b.sweep };
  return { ...a, to: b.to };
}

/** The piece's share of the enclosed area (Green): half the cross product, and an arc's own segment. */
function areaUnder(p: LoopPiece): number {
  const chord = (p.from[0] * p.to[1] - p.from[1] * p.to[0]) / 2;
  return p.kind === 'line' ? chord : chord + (p.radius ** 2 / 2) * (p.sweep - Math.sin(p.sweep));
}

/** Where the level line at height y crosses a piece, as x values. */
function crossings(p: LoopPiece, y: number): number[] {
  if (p.kind === 'line') {
    const [y0, y1] = [p.from[1], p.to[1]];
    if (y0 > y === y1 > y) return [];
    return [p.from[0] + ((y - y0) / (y1 - y0)) * (p.to[0] - p.from[0])];
  }
  const s = (y - p.center[1]) / p.radius;
  if (Math.abs(s) >= 1) return [];
  const angle = Math.asin(s);
  return [angle, Math.PI - angle].flatMap((a) => {
    const along = p.sweep > 0 ? a - p.start : p.start - a;
    const offset = ((along % TAU) + TAU) % TAU;
    return offset <= Math.abs(p.sweep) ? [onRound(p, a)[0]] : [];
  });
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
  const ys = loops[0]!.pieces.flatMap((p) =>
    p.kind === 'line' ? [p.from[1]] : [p.from[1], p.to[1], ...extremeHeights(p)],
  );
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

function extremeHeights(p: Extract<LoopPiece, { kind: 'arc' }>): number[] {
  return [Math.PI / 2, -Math.PI / 2].flatMap((a) => {
    const along = p.sweep > 0 ? a - p.start : p.start - a;
    return ((along % TAU) + TAU) % TAU <= Math.abs(p.sweep) ? [onRound(p, a)[1]] : [];
  });
}
