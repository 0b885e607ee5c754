/** A board with what is cut of it, as curves by layer at 1:1. */
import type { LaidPlace, Outlines } from '../document/outlines.ts';
import type { DrawnLoop } from '../exchange/face-drawing.ts';
import type { CutGeometry } from './cut-geometry.ts';
import { nameOn } from './names-on-pieces.ts';
import { placedPiece } from './place-drawing.ts';

/** In the order in which they are worked: what lies within before what comes loose. The board itself is not cut. */
export const CUT_LAYERS = ['engraving', 'mark', 'holes', 'outline', 'board'] as const;
export type CutLayer = (typeof CUT_LAYERS)[number];

export interface CutRun {
  readonly layer: CutLayer;
  readonly run: DrawnLoop;
  /** It ends where it began. */
  readonly closed: boolean;
}

export interface BoardDrawing {
  readonly title: string;
  /** mm */
  readonly size: readonly [number, number];
  readonly runs: readonly CutRun[];
}

/** What is drawn of a piece in its own coordinates, and whether its name found no room. */
export interface PieceDrawing {
  readonly runs: readonly CutRun[];
  readonly nameless: boolean;
}

export function pieceDrawings(own: Outlines, geometry: CutGeometry): ReadonlyMap<string, PieceDrawing> {
  const drawings = new Map<string, PieceDrawing>();
  for (const [id, piece] of geometry.pieces) {
    const { outline, holes, engraved } = piece.drawing;
    const alone = (layer: CutLayer) => (p: (typeof engraved)[number]): CutRun => ({ layer, run: [{ piece: p, forward: true }], closed: false }); // prettier-ignore
    const name = own.names === 'none' ? [] : nameOn(piece);
    const runs = [
      { layer: 'outline' as const, run: outline, closed: true },
      ...holes.map((run) => ({ layer: 'holes' as const, run, closed: true })),
      ...engraved.map(alone(own.pieces[id]?.sketch?.as ?? 'engraving')),
      ...(name ?? []).map(alone(own.names === 'mark' ? 'mark' : 'engraving')),
    ];
    drawings.set(id, { runs, nameless: name === null });
  }
  return drawings;
}

/** Every board on which something lies. */
export function boardDrawings(
  own: Outlines,
  drawings: ReadonlyMap<string, PieceDrawing>,
  laid: readonly LaidPlace[],
): BoardDrawing[] {
  // prettier-ignore
  const boards = Math.max(0, ...laid.map((l) => l.board + 1));
  const { width, height } = own.board;
  const rim = [[0, 0], [width, 0], [width, height], [0, height]] as const; // prettier-ignore
  const sides = rim.map((p, i) => ({ piece: { kind: 'line' as const, points: [p, rim[(i + 1) % 4]!] as const }, forward: true })); // prettier-ignore
  return Array.from({ length: boards }, (_, board) => {
    const lying = laid.filter((l) => l.board === board);
    const runs = lying.flatMap(
      (lie) =>
      (drawings.get(lie.piece)?.runs ?? []).map((r) => ({ ...r, run: r.run.map(({ piece, forward }) => ({ piece: placedPiece(piece, lie), forward })) })), // prettier-ignore
    );
    const inOrder = CUT_LAYERS.flatMap((layer) => runs.filter((r) => r.layer === layer));
    return { title: `${own.name}, board ${board + 1} of ${boards}`, size: [width, height] as const, runs: [...inOrder, { layer: 'board' as const, run: sides, closed: true }] }; // prettier-ignore
  });
}
