/** A detail of a view: what of it lies within a circle, to be drawn larger (ISO 128-3, partial views). */
import type { Vec2 } from '../sketch/curves/spline.ts';
import type { OfferedSpot } from './offered-spot.ts';
import type { DrawnView } from './drawn-view.ts';
import { awayFromPiece } from './piece-places.ts';
import { inRound, pieceWithin, type Round } from './piece-within.ts';

/** What of a drawn view lies in a circle. @param round mm of the model, in the view */
export function detailOf(view: DrawnView, round: Round): DrawnView {
  const { center, radius } = round;
  const region = inRound(round);
  const inside = ([x, y]: Vec2) => Math.hypot(x - center[0], y - center[1]) <= radius;
  const isSeen = ({ piece }: OfferedSpot) => piece.kind === 'point' ? inside(piece.points[0]) : awayFromPiece(center, piece) < radius; // prettier-ignore
  return {
    ...view,
    lines: view.lines.flatMap((line) => pieceWithin(line.piece, region).map((piece) => ({ ...line, piece }))),
    crosses: view.crosses.filter(({ at }) => inside(at)),
    axes: view.axes.flatMap((ends) => pieceWithin({ kind: 'line', points: ends }, region).flatMap((p) => (p.kind === 'line' ? [p.points] : []))), // prettier-ignore
    spots: view.spots.filter(isSeen),
    cutSpots: view.cutSpots.filter(isSeen),
    round,
    broken: null,
    box: [center[0] - radius, center[1] - radius, center[0] + radius, center[1] + radius],
  };
}
