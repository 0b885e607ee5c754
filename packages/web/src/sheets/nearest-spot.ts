/** The place at which a size would be taken under the pointer: corners before rounds, rounds before lines. */
import { awayFromPiece, piecesOn, type PlacedView, type OfferedSpot } from '@helb/core';

interface Offered {
  readonly view: PlacedView;
  readonly spots: readonly OfferedSpot[];
}

/** How much nearer a line must be than a corner to be meant. */
const CORNER_FIRST = 0.55;

/** @param reach mm on the paper, as away is */
export function nearestSpot(
  [x, y]: readonly [number, number],
  offered: readonly Offered[],
  reach: number,
): { readonly view: PlacedView; readonly spot: OfferedSpot; readonly away: number } | null {
  let best: { view: PlacedView; spot: OfferedSpot; away: number; told: number } | null = null;
  for (const { view, spots } of offered) {
    const [x0, y0, x1, y1] = view.box;
    if (x < x0 - reach || x > x1 + reach || y < y0 - reach || y > y1 + reach) continue;
    for (const spot of spots) {
      const away = Math.min(...piecesOn(view, spot.piece).map((piece) => awayFromPiece([x, y], piece)));
      if (away > reach) continue;
      const told = spot.what === 'corner' ? away * CORNER_FIRST : away;
      if (!best || told < best.told) best = { view, spot, away, told };
    }
  }
  return best;
}
