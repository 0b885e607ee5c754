/** The numbers of a step, found again in what it made: how far its faces are apart, how round they are, how they lean. */
import type { SheetSize } from '../../document/sheet.ts';
import type { Body } from '../../names/body.ts';
import type { ViewSpot } from '../drawn-view.ts';
import { kindOfRound } from '../seen-through.ts';
import { madeBy, radiusOf, SAME_PLACE, type StraightView } from './spots.ts';

/** Sizes in a view that may say a length of the step, mm: its rounds of this radius or diameter, then faces so far apart. */
export function sizesOfLength(
  mm: number,
  step: string,
  { id, view }: StraightView,
  bodies: readonly Body[],
): SheetSize[] {
  const own = new Set(view.spots.filter((s) => madeBy(s, step, bodies)));
  const rounds = [...own].flatMap((spot): SheetSize[] => {
    if (spot.what === 'rounding') return Math.abs(radiusOf(spot) - mm) < SAME_PLACE ? [{ kind: 'radius', view: id, of: [spot.spot] }] : []; // prettier-ignore
    if (spot.what !== 'round') return [];
    const { radius } = bodies[spot.at.body]!.facts.edges[spot.at.index]!;
    if (radius === null || (Math.abs(radius - mm) > SAME_PLACE && Math.abs(2 * radius - mm) > SAME_PLACE)) return [];
    return [{ kind: kindOfRound(spot.piece), view: id, of: [spot.spot] }];
  });
  return [...rounds, ...apart(mm, own, view.spots, id)];
}

/** Pairs of edges so far apart along the view’s x or y, at least one of them the step’s own: both, and long ones, first. */
function apart(mm: number, own: ReadonlySet<ViewSpot>, spots: readonly ViewSpot[], view: string): SheetSize[] {
  const found: { size: SheetSize; both: boolean; reach: number }[] = [];
  for (const axis of [0, 1] as const) {
    const levels = spots.flatMap((spot) => {
      const level = levelOf(spot, axis);
      return level ? [{ spot, ...level }] : [];
    });
    const byPlace = new Map<number, typeof levels>();
    const key = (at: number) => Math.round(at / SAME_PLACE / 2);
    for (const l of levels) byPlace.set(key(l.at), [...(byPlace.get(key(l.at)) ?? []), l]);
    for (const one of levels)
      if (own.has(one.spot))
        for (const far of [one.at - mm, one.at + mm])
          for (const other of [-1, 0, 1].flatMap((k) => byPlace.get(key(far) + k) ?? []))
            if (Math.abs(other.at - far) < SAME_PLACE && other.round === one.round)
              found.push({
                size: { kind: axis === 0 ? 'across' : 'up', view, of: [one.spot.spot, other.spot.spot] },
                both: own.has(other.spot),
                reach: one.reach + other.reach,
              });
  }
  return found.sort((a, b) => Number(b.both) - Number(a.both) || b.reach - a.reach).map((f) => f.size);
}

/** Where an edge lies along an axis, if it says so: square to it, or a whole round by its centre. */
function levelOf({ what, piece }: ViewSpot, axis: 0 | 1): { at: number; reach: number; round: boolean } | null {
  if (what === 'round') return piece.kind === 'circle' ? { at: piece.points[0][axis], reach: 0, round: true } : null;
  if (piece.kind !== 'line') return null;
  const [p, q] = piece.points;
  if (Math.abs(p[axis] - q[axis]) > SAME_PLACE) return null;
  return { at: p[axis], reach: Math.abs(p[1 - axis]! - q[1 - axis]!), round: false };
}

/** Angles between a straight edge that the step made and one that meets it. */
export function anglesOfStep(step: string, { id, view }: StraightView, bodies: readonly Body[]): SheetSize[] {
  const lines = view.spots.flatMap((spot) => (spot.what === 'line' && spot.piece.kind === 'line' ? [{ spot, ends: spot.piece.points }] : [])); // prettier-ignore
  const meets = (a: (typeof lines)[number], b: (typeof lines)[number]) => a.ends.some((p) => b.ends.some((q) => Math.hypot(p[0] - q[0], p[1] - q[1]) < SAME_PLACE)); // prettier-ignore
  return lines
    .filter((l) => madeBy(l.spot, step, bodies))
    .flatMap((l) => lines.filter((o) => o !== l && meets(l, o)).map((o): SheetSize => ({ kind: 'angle', view: id, of: [o.spot.spot, l.spot.spot] }))); // prettier-ignore
}
