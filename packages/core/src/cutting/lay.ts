/** From what is to be cut to how it is laid, and whether it lies well where it was kept. */
import { Clipper, FillRule } from 'clipper2-ts';
import type { LaidPlace, Outlines } from '../document/outlines.ts';
import { MAX_BOARDS, MAX_LAID } from '../document/outlines.ts';
import type { CutGeometry } from './cut-geometry.ts';
import type { PieceToCut } from './cut-piece.ts';
import type { NestAsk } from './nesting/nest.ts';
import { boxOf, GRID, grown, onGrid, shifted, turned, type Area } from './nesting/polygon.ts';
import { cornersOf, SAGITTA } from './place-drawing.ts';

export const loopsOf = ({ drawing }: PieceToCut) => [drawing.outline, ...drawing.holes].map(cornersOf);

/** Null where nothing is to be laid; a sentence where it is too much. */
export function nestAsk(
  own: Outlines,
  geometry: CutGeometry,
  counts: ReadonlyMap<string, number>,
): NestAsk | string | null {
  // prettier-ignore
  const pieces = own.pieceOrder.flatMap((id) => {
    const piece = geometry.pieces.get(id);
    const count = counts.get(id) ?? 0;
    return piece && count > 0 ? [{ id, loops: loopsOf(piece), count }] : [];
  });
  const total = pieces.reduce((sum, p) => sum + p.count, 0);
  if (total > MAX_LAID) return `${total} pieces are to be cut; at most ${MAX_LAID} are laid at once.`;
  const { width, height, boards } = own.board;
  if (2 * own.margin >= Math.min(width, height)) return 'The margins leave nothing of the board; make them smaller.';
  const ask = { pieces, board: [width, height] as const, boards: boards ?? MAX_BOARDS, gap: own.gap + 2 * SAGITTA, margin: own.margin, turns: own.turns }; // prettier-ignore
  return pieces.length > 0 ? ask : null;
}

export interface LaidFaults {
  /** Places in the list whose pieces lie over another, too near to it, or not on the board. */
  readonly bad: ReadonlySet<number>;
  /** How many of each piece lie nowhere (above 0), or beyond their count (below). */
  readonly missing: ReadonlyMap<string, number>;
}

/** Gaps are kept to within this, mm. */
const CLOSE_ENOUGH = 0.01;

/** Pieces that are no longer cut are passed over. */
export function faultsOfLaid(
  own: Outlines,
  geometry: CutGeometry,
  counts: ReadonlyMap<string, number>,
  laid: readonly LaidPlace[],
): LaidFaults {
  const areas = new Map([...geometry.pieces].map(([id, piece]) => [id, onGrid(loopsOf(piece))]));
  const bad = new Set<number>();
  const missing = new Map(own.pieceOrder.flatMap((id) => (geometry.pieces.has(id) && counts.get(id) ? [[id, counts.get(id)!]] : []))); // prettier-ignore
  const half = Math.max(0, (own.gap / 2 - CLOSE_ENOUGH) * GRID);
  const edge = (own.margin - CLOSE_ENOUGH) * GRID;
  const grid = (mm: number) => Math.round(mm * GRID);
  const standing: { at: number; board: number; area: Area; box: ReturnType<typeof boxOf> }[] = [];
  for (const [at, { piece, board, turn, x, y }] of laid.entries()) {
    const area = areas.get(piece);
    if (!area) continue;
    missing.set(piece, (missing.get(piece) ?? 0) - 1);
    const placed = shifted(turned(area, turn), grid(x), grid(y));
    const [x0, y0, x1, y1] = boxOf(placed);
    if (x0 < edge || y0 < edge || x1 > grid(own.board.width) - edge || y1 > grid(own.board.height) - edge) bad.add(at);
    if (board >= (own.board.boards ?? MAX_BOARDS)) bad.add(at);
    const wide = grown(placed, half, 2);
    standing.push({ at, board, area: wide, box: boxOf(wide) });
  }
  for (const [i, one] of standing.entries())
    for (const other of standing.slice(i + 1)) {
      const [a, b] = [one.box, other.box];
      if (one.board !== other.board || a[0] >= b[2] || b[0] >= a[2] || a[1] >= b[3] || b[1] >= a[3]) continue;
      const shared = Clipper.areaPaths(Clipper.intersect(one.area, other.area, FillRule.NonZero));
      // A sliver of a thousandth of a square mm is rounding.
      if (Math.abs(shared) > 1e-3 * GRID * GRID) for (const { at } of [one, other]) bad.add(at);
    }
  for (const [id, n] of missing) if (n === 0) missing.delete(id);
  return { bad, missing };
}

export interface CutTotals {
  readonly boards: number;
  readonly pieces: number;
  /** Of each board, how much of it pieces take: 0 to 1. */
  readonly filled: readonly number[];
  /** mm², of pieces. */
  readonly area: number;
}

export function cutTotals(own: Outlines, geometry: CutGeometry, laid: readonly LaidPlace[]): CutTotals {
  const boards = Math.max(0, ...laid.map((l) => l.board + 1));
  const areaOf = ({ piece }: LaidPlace) => geometry.pieces.get(piece)?.area ?? 0;
  const areas = Array.from({ length: boards }, (_, i) => laid.filter((l) => l.board === i).reduce((sum, l) => sum + areaOf(l), 0)); // prettier-ignore
  const one = own.board.width * own.board.height;
  return { boards, pieces: laid.length, filled: areas.map((a) => a / one), area: areas.reduce((a, b) => a + b, 0) };
}
