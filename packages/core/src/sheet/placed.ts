/** Views and sizes where they stand on the paper. */
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { acrossBreak, type Break } from './break.ts';
import { enlarged, type OnPaper } from './paper.ts';
import type { Flat4 } from './piece-places.ts';

export interface PlacedSize {
  readonly id: string;
  readonly view: string;
  /** Of its text, mm on the paper. */
  readonly place: Vec2;
  readonly items: readonly OnPaper[];
}

export interface PlacedView {
  readonly id: string;
  /** Its middle, and from the model’s origin in the view to the paper: scale, then move. */
  readonly at: Vec2;
  readonly by: number;
  readonly move: Vec2;
  /** What of it is left out. */
  readonly broken: Break | null;
  /** On the paper. */
  readonly box: Flat4;
  readonly items: readonly OnPaper[];
}

type Stands = Pick<PlacedView, 'by' | 'move' | 'broken'>;

/** Where a place of the model comes to lie, mm on the paper. */
export function placeOn({ by, move, broken }: Stands, at: Vec2): Vec2 {
  const [x, y] = broken ? acrossBreak(broken).place(at) : at;
  return [x * by + move[0], y * by + move[1]];
}

/** What is drawn of a piece of the model: where a view is broken in two or none. */
export const piecesOn = ({ by, move, broken }: Stands, piece: FlatPiece): FlatPiece[] =>
  (broken ? acrossBreak(broken).pieces(piece) : [piece]).map((p) => enlarged(p, by, move));
