/** Of two rounds, which lies about which: the one round which there are most like the other is the middle. */
import type { OfferedSpot } from './offered-spot.ts';

/** Places and radii nearer alike than this, mm, are the same. */
const SAME = 1e-5;

/** @param all rounds and other spots of the view. @returns the one that lies aside, then the one in the middle */
export function asPitch<T extends OfferedSpot>(one: T, other: T, all: readonly OfferedSpot[]): readonly [T, T] {
  const widthOf = ({ piece }: OfferedSpot): number => {
    const [center, rim] = piece.points;
    return piece.kind === 'circle' ? piece.radius : rim ? Math.hypot(rim[0] - center![0], rim[1] - center![1]) : 0;
  };
  const apart = (a: OfferedSpot, b: OfferedSpot) =>
    Math.hypot(a.piece.points[0]![0] - b.piece.points[0]![0], a.piece.points[0]![1] - b.piece.points[0]![1]);
  const away = apart(one, other);
  const about = (middle: T, aside: T) => all.filter((s) => s.what === 'round' && Math.abs(widthOf(s) - widthOf(aside)) < SAME && Math.abs(apart(s, middle) - away) < SAME).length; // prettier-ignore
  return about(one, other) > about(other, one) ? [other, one] : [one, other];
}
