/** Pieces found by where they lie. */
import RBush from 'rbush';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { boxOfPieces, SAME } from './piece-places.ts';

interface Kept<T> {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
  readonly item: T;
  /** In the order in which they were added. */
  readonly order: number;
}

/** mm: chords of curves that are no ovals stand off this far at most where pieces are compared. */
const MARGIN = SAME * 10;

export class NearPieces<T extends { readonly piece: FlatPiece }> {
  private readonly tree = new RBush<Kept<T>>();
  private count = 0;

  constructor(items: readonly T[] = []) {
    this.tree.load(items.map((item) => this.kept(item)));
  }

  private kept(item: T): Kept<T> {
    const [minX, minY, maxX, maxY] = boxOfPieces([item.piece]);
    return { minX, minY, maxX, maxY, item, order: this.count++ };
  }

  add(item: T): void {
    this.tree.insert(this.kept(item));
  }

  /** All whose box meets that of a piece, as they were added. */
  near(piece: FlatPiece): T[] {
    const [minX, minY, maxX, maxY] = boxOfPieces([piece]);
    const found = this.tree.search({ minX: minX - MARGIN, minY: minY - MARGIN, maxX: maxX + MARGIN, maxY: maxY + MARGIN }); // prettier-ignore
    return found.sort((a, b) => a.order - b.order).map((k) => k.item);
  }
}
