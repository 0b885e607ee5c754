/**
 * Lofts whose ends are left in a direction, or whose sides keep to guides: every place of their sides is told, and the
 * kernel, which knows neither, makes surfaces of them. Along the way a place of the outlines goes by cubic Hermite
 * splines (C¹ through the sections); by how much a guide goes aside of that, the sides go with it, less and less as far
 * as the next guide or corner of the outline.
 */
import { knotsWithin } from '../../sketch/regions/piece-parts.ts';
import type { Break, Woven, WovenCap, WovenSide } from '../../solid/woven.ts';
import { STAY } from '../../space/transform.ts';
import { dot, type Vec3 } from '../../space/vector.ts';
import { asideOf } from './aside.ts';
import type { Guide } from './guides.ts';
import { refuseCrossing } from './crossing.ts';
import type { Outline } from './matched.ts';
import { waysThrough, type Leaving } from './ways.ts';

/** Shares of the way nearer than this are one. */
const NEAR = 1e-6;

/**
 * @param outlines with equally many pieces, which go together one by one
 * @param leaving null where an end goes over as it comes
 * @param guides by the piece each begins
 * @throws StepFailure
 */
export function wovenLoft(
  outlines: readonly Outline[],
  straight: boolean,
  leaving: { readonly start: Leaving | null; readonly end: Leaving | null },
  guides: ReadonlyMap<number, Guide>,
): Woven {
  const ways = waysThrough(outlines, straight, leaving);
  const aside = asideOf(outlines, ways, guides);
  const placeAt = (way: number) => {
    const [place, by] = [ways.place(way), aside.at(way)];
    return (piece: number, share: number): Vec3 => {
      const [p, d] = [place(piece, share), by(piece, share)];
      return [p[0] + d[0], p[1] + d[1], p[2] + d[2]];
    };
  };
  refuseCrossing(outlines[0]!.pieces.length, placeAt);
  const sections = straight ? ways.at.slice(1, -1) : [];
  const level = outlines.every((o) => Math.abs(dot(o.frame.normal, outlines[0]!.frame.normal)) > 1 - NEAR);
  // A guide that passes through planes that lean to each other goes at an even pace only between two of them.
  const parted = guides.size > 0 && !level ? ways.at.slice(1, -1) : sections;
  const ends = [0, ...parted, ...aside.stops.flatMap((s) => (s.how === 'knot' ? [] : [s.at])), 1].sort((a, b) => a - b);
  const smooth = straight ? [] : ways.at.slice(1, -1).map((at): Break => ({ at, smooth: 1 }));
  const breaks = [
    ...smooth,
    ...aside.stops.flatMap((s): Break[] => (s.how === 'knot' ? [{ at: s.at, smooth: 2 }] : [])),
  ];
  const sides = ends.slice(1).flatMap((to, i): WovenSide[] => {
    const from = ends[i]!;
    if (to - from < NEAR) return [];
    const share = (at: number) => (at - from) / (to - from);
    const along = breaks.map(({ at, smooth }) => ({ at: share(at), smooth })).filter(({ at }) => at > NEAR && at < 1 - NEAR); // prettier-ignore
    return outlines[0]!.pieces.map((_, piece): WovenSide => {
      const knots = [...new Set(outlines.flatMap((o) => knotsWithin(o.pieces[piece]!)))].sort((a, b) => a - b);
      return {
        piece,
        across(way) {
          const at = placeAt(from + way * (to - from));
          return (s) => at(piece, s);
        },
        breaks: { along, across: distinct(knots).map((at) => ({ at, smooth: 2 })) },
      };
    });
  });
  const cap = ({ frame, pieces }: Outline): WovenCap => ({ frame, loops: [{ pieces, area: 0 }], to: STAY });
  return { sides, start: cap(outlines[0]!), end: cap(outlines.at(-1)!) };
}

const distinct = (sorted: readonly number[]) => sorted.filter((t, i) => i === 0 || t - sorted[i - 1]! > NEAR);
