/** Several sizes at once along a view’s x or y: one after the other, all from one, or as ordinates (ISO 129-1). */
import type { SheetSize } from '../document/sheet.ts';
import type { OfferedSpot } from './offered-spot.ts';

export const ROWS = ['chain', 'from_first', 'ordinates'] as const;
export type RowOfSizes = (typeof ROWS)[number];

/** Nearer alike than this, mm, is no length. */
const SAME = 1e-5;

/** Where a spot lies along an axis; null where it does not say: a straight edge only square to it. */
export function levelOfSpot({ what, piece }: OfferedSpot, axis: 0 | 1): number | null {
  if (piece.kind === 'spline' || what === 'rounding') return null;
  if (what === 'round' || piece.kind === 'point') return piece.points[0]![axis];
  const [p, q] = piece.points as readonly (readonly [number, number])[];
  return Math.abs(p![axis] - q![axis]) < SAME ? (p![axis] + q![axis]) / 2 : null;
}

/**
 * @param spots in the order in which they were picked: all but those of a chain are told from the first
 * @returns none where fewer than two of them lie apart
 */
export function sizesInRow(
  row: RowOfSizes,
  kind: 'across' | 'up',
  view: string,
  spots: readonly OfferedSpot[],
): SheetSize[] {
  const axis = kind === 'across' ? 0 : 1;
  const levels = spots.flatMap((spot) => {
    const at = levelOfSpot(spot, axis);
    return at === null ? [] : [{ at, of: spot.spot }];
  });
  const apart = levels.filter((l, i) => levels.findIndex((o) => Math.abs(o.at - l.at) < SAME) === i);
  const [first] = apart;
  if (!first || apart.length < 2) return [];
  if (row === 'chain') {
    const sorted = [...apart].sort((a, b) => a.at - b.at);
    return sorted.slice(1).map((to, i) => ({ kind, view, of: [sorted[i]!.of, to.of] }));
  }
  if (row === 'from_first') return apart.slice(1).map((to) => ({ kind, view, of: [first.of, to.of] }));
  return apart.map((to) => ({ kind, view, of: [first.of, to.of], ordinate: true }));
}
