/** Ends of a loft that run on as the faces beside its section do. */
import { StepFailure } from '../../names/body.ts';
import { acrossPiece, alongPiece, cornersLean, sideOf, type Leaning } from '../../slots/regions/leaning.ts';
import { directionInSpace } from '../../space/planes.ts';
import type { Outline } from './matched.ts';
import { senseOf, type Leaving } from './ways.ts';

/**
 * With n the section's normal, o and t across and along its outline, and c how the face there leans, a place is left
 * along n − c o + k t. At a corner both faces are kept to, which gives k there; between corners it changes evenly.
 * @throws StepFailure where the faces give no direction
 */
export function runningOn(
  outlines: readonly Outline[],
  end: 'start' | 'end',
  pull: number,
  leaning: Leaning | null,
): Leaving {
  const { frame, pieces } = outlines.at(end === 'start' ? 0 : -1)!;
  const which = end === 'start' ? 'first' : 'last';
  if (!leaning)
    throw new StepFailure(`The ${which} section is no face of a body, so nothing runs on into it; leave it square.`);
  const leans = pieces.map((p) => {
    const lean = leaning.get(p.curve) ?? null;
    if (lean === null)
      throw new StepFailure(`A face beside the ${which} section does not keep its angle to it, and a loft cannot run on from that; leave it square.`); // prettier-ignore
    return lean;
  });
  const side = sideOf(pieces, false);
  const corners = cornersLean(pieces, leans, side).map((corner) => {
    if (corner) return corner;
    throw new StepFailure(`Two faces beside the ${which} section meet without a corner and lean unlike; leave it square.`); // prettier-ignore
  });
  const by = senseOf(outlines, end) * pull;
  return (piece, share) => {
    const own = pieces[piece]!;
    const slide = (t: 0 | 1) => {
      const along = alongPiece(own, t);
      const corner = corners[(piece + t) % pieces.length]!;
      return corner[0] * along[0] + corner[1] * along[1];
    };
    const [along, across] = [alongPiece(own, share), acrossPiece(own, share, side)];
    const k = (1 - share) * slide(0) + share * slide(1);
    const [x, y] = [0, 1].map((i) => -leans[piece]! * across[i]! + k * along[i]!) as [number, number];
    const flat = directionInSpace(frame, x, y);
    const { normal } = frame;
    return [by * (normal[0] + flat[0]), by * (normal[1] + flat[1]), by * (normal[2] + flat[2])];
  };
}
