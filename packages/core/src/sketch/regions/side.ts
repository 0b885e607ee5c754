/** How far a loop lies to either side of a line. */
import { heightsOf, type LoopPiece } from './piece.ts';
import type { Loop } from './loop.ts';
import type { Vec2 } from './primitives.ts';

/**
 * Least and greatest signed distance of the loop from the line, mm; positive on its left.
 * @param along unit vector
 */
export function sideOfLine(loop: Loop, at: Vec2, along: Vec2): [least: number, most: number] {
  const turned = loop.pieces.flatMap((p) => heightsOf(turnedPiece(p, at, along)));
  return [Math.min(...turned), Math.max(...turned)];
}

/** The piece in coordinates in which the line is the x axis. */
function turnedPiece(p: LoopPiece, at: Vec2, [c, s]: Vec2): LoopPiece {
  const vector = ([x, y]: Vec2): Vec2 => [x * c + y * s, -x * s + y * c];
  const place = ([x, y]: Vec2): Vec2 => vector([x - at[0], y - at[1]]);
  const ends = { from: place(p.from), to: place(p.to) };
  if (p.kind === 'line') return { ...p, ...ends };
  if (p.kind === 'arc') return { ...p, ...ends, center: place(p.center), start: p.start - Math.atan2(s, c) };
  if (p.kind === 'ellipse')
    return { ...p, ...ends, center: place(p.center), major: vector(p.major), minor: vector(p.minor) };
  return { ...p, ...ends, control: p.control.map(place) };
}
