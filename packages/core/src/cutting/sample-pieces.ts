/** Pieces for the tests: plates with bores, as the kernel would draw them. */
import type { Outlines } from '../document/outlines.ts';
import { newOutlines } from '../document/outlines.ts';
import type { DrawnLoop } from '../exchange/face-drawing.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import type { CutGeometry } from './cut-geometry.ts';
import type { PieceToCut } from './cut-piece.ts';

const along = (pieces: readonly FlatPiece[]): DrawnLoop => pieces.map((piece) => ({ piece, forward: true }));

export const outlineOf = (corners: readonly Vec2[]): DrawnLoop =>
  along(corners.map((p, i) => ({ kind: 'line', points: [p, corners[(i + 1) % corners.length]!] })));

/** A plate with bores at places, each of a radius, and lines engraved on it. */
export function plate(
  name: string,
  [width, height]: Vec2,
  bores: readonly (readonly [Vec2, number])[] = [],
  engraved: readonly FlatPiece[] = [],
): PieceToCut {
  const holes = bores.map(([at, radius]) => along([{ kind: 'circle', points: [at], radius }]));
  const area = width * height - bores.reduce((sum, [, r]) => sum + Math.PI * r * r, 0);
  const outline = outlineOf([[0, 0], [width, 0], [width, height], [0, height]]); // prettier-ignore
  return { name, drawing: { outline, holes, engraved, size: [width, height], free: 0, closed: 0 }, thickness: 6, area, says: [] }; // prettier-ignore
}

export const geometryOf = (pieces: Readonly<Record<string, PieceToCut>>): CutGeometry => ({ pieces: new Map(Object.entries(pieces)), faults: new Map() }); // prettier-ignore

/** Outlines of these pieces, each of a part of the same name. */
export function outlinesOf(pieces: Readonly<Record<string, PieceToCut>>, more: Partial<Outlines> = {}): Outlines {
  const order = Object.keys(pieces);
  return { ...newOutlines('Boards'), pieces: Object.fromEntries(order.map((id) => [id, { part: id }])), pieceOrder: order, ...more }; // prettier-ignore
}
