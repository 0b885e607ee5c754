import type { Vec2 } from '../curves/spline.ts';

/** Plain geometry on the plane, mm. Arcs run counter-clockwise. */
export type FlatPiece =
  | { readonly kind: 'point'; readonly points: readonly [Vec2] }
  | { readonly kind: 'line'; readonly points: readonly [Vec2, Vec2] }
  | { readonly kind: 'circle'; readonly points: readonly [Vec2]; readonly radius: number }
  | { readonly kind: 'arc'; readonly points: readonly [Vec2, Vec2, Vec2] }
  | { readonly kind: 'ellipse'; readonly points: readonly [Vec2, Vec2]; readonly minor: number }
  | { readonly kind: 'elliptical_arc'; readonly points: readonly [Vec2, Vec2, Vec2, Vec2]; readonly minor: number }
  | { readonly kind: 'spline'; readonly points: readonly Vec2[]; readonly parameters: readonly number[] };

/** A piece with what it is told apart by at its source: the names of the faces its edge lies between; null where nothing tells. */
export interface LoanPiece {
  readonly piece: FlatPiece;
  readonly key: string | null;
}
