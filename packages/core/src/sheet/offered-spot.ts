import type { SizeSpot } from '../document/sheet.ts';
import type { FaceRef } from '../references/references.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';

/** A place in a view at which sizes can be taken. */
export interface OfferedSpot {
  readonly spot: SizeSpot;
  /** `side`: a round edge seen from the side. `rounding`: a rounded edge of a turned shape, seen so. */
  readonly what: 'line' | 'side' | 'round' | 'rounding' | 'corner';
  readonly piece: FlatPiece;
  /** Of a straight edge: the flat face that stands at a slant and is seen edge-on in it. */
  readonly slanted: FaceRef | null;
  /** Of a line in which a cylinder is cut along its axis: a diameter of it, from wall to wall. */
  readonly across?: readonly [Vec2, Vec2];
}
