/** Views and sizes where they stand on the paper. */
import type { Vec2 } from '../sketch/curves/spline.ts';
import type { OnPaper } from './paper.ts';
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
  /** On the paper. */
  readonly box: Flat4;
  readonly items: readonly OnPaper[];
}
