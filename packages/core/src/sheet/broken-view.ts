/** A long view drawn shorter: where it may be broken, and what is left of it. */
import type { Sheet } from '../document/sheet.ts';
import { dot } from '../space/vector.ts';
import { standsAt } from './layout.ts';
import { standsFree } from './view-kinds.ts';
import { acrossBreak, type Break } from './break.ts';
import type { OfferedSpot } from './offered-spot.ts';
import type { DrawnView, ViewSpot } from './drawn-view.ts';
import { boxOfPieces, type Flat4 } from './piece-places.ts';

/** An empty stretch is to be this share of the view. */
const WIDE = 0.25;

/** The widest stretch of a view, along its longer side, in which nothing begins, ends or has its centre: the spots at its ends, null where none is wide. */
export function emptyStretch({ spots, box }: Pick<DrawnView, 'spots' | 'box'>): readonly [ViewSpot, ViewSpot] | null {
  const k = box[2] - box[0] >= box[3] - box[1] ? 0 : 1;
  // Each by where it begins and where it ends; an edge along the axis is no end but at its corners.
  const stands = spots.flatMap((spot): { spot: ViewSpot; low: number; high: number }[] => {
    const own = boxOfPieces([spot.piece]);
    if (spot.what === 'line' && own[k + 2]! - own[k]! > 1e-6) return [];
    return [{ spot, low: own[k]!, high: own[k + 2]! }];
  });
  stands.sort((a, b) => a.low - b.low);
  let best: { wide: number; ends: readonly [ViewSpot, ViewSpot] } | null = null;
  let last: (typeof stands)[number] | null = null;
  for (const next of stands) {
    const wide = last ? next.low - last.high : 0;
    if (last && wide > (best?.wide ?? 0)) best = { wide, ends: [last.spot, next.spot] };
    if (!last || next.high > last.high) last = next;
  }
  return best && best.wide > WIDE * (box[k + 2]! - box[k]!) ? best.ends : null;
}

/** With a stretch left out: what is taken of the view stays true, only where it stands on the paper does not. */
export function brokenView(view: DrawnView, broken: Break): DrawnView {
  const { pieces } = acrossBreak(broken);
  const isSeen = ({ piece }: OfferedSpot) => pieces(piece).length > 0;
  return { ...view, broken, spots: view.spots.filter(isSeen), cutSpots: view.cutSpots.filter(isSeen) };
}

/** Along which axis of their view two spots are farther apart. */
export function axisBetween([one, other]: readonly [ViewSpot, ViewSpot]): Break['axis'] {
  const [p, q] = [boxOfPieces([one.piece]), boxOfPieces([other.piece])];
  const apart = (k: 0 | 1) => Math.abs(p[k] + p[k + 2]! - q[k] - q[k + 2]!);
  return apart(0) >= apart(1) ? 'x' : 'y';
}

/** Views that stand in one row or column with another and show the same direction along it: they are broken alike. */
export function brokenAlike(
  sheet: Sheet,
  views: ReadonlyMap<string, DrawnView>,
  id: string,
  axis: Break['axis'],
): string[] {
  const own = views.get(id);
  if (!own || standsFree(sheet.views[id]!)) return [id];
  // A column shows one x, a row one y.
  const k = axis === 'x' ? 0 : 1;
  const cell = (view: string) => standsAt(sheet.angle, sheet.views[view]!.look)[k];
  return sheet.viewOrder.filter((other) => {
    const drawn = views.get(other);
    if (!drawn || standsFree(sheet.views[other]!) || cell(other) !== cell(id)) return false;
    return Math.abs(dot(drawn.frame[axis], own.frame[axis])) > 1 - 1e-9;
  });
}

/** The room it takes. */
export function boxWithBreak({ box, broken }: Pick<DrawnView, 'box' | 'broken'>): Flat4 {
  if (!broken) return box;
  const { place } = acrossBreak(broken);
  return [...place([box[0], box[1]]), ...place([box[2], box[3]])] as unknown as Flat4;
}
