/** The name of a part, written on it where it has most room. */
import polylabel from 'polylabel';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { letteringContours, letteringProportion } from '../sketch/lettering/lettering.ts';
import type { PieceToCut } from './cut-piece.ts';
import { loopsOf } from './lay.ts';
import { placesOnBezier } from './place-drawing.ts';

/** Height of capitals, mm: so much, or less where there is little room, but no less than can be read. */
const [TALLEST, LEAST] = [8, 2];
/** Of the round that has room, so much is taken. */
const TAKEN = 0.8;

/** @returns lines in the piece's own coordinates; null where it has no room for them */
export function nameOn(piece: PieceToCut): readonly FlatPiece[] | null {
  const middle = polylabel(
    loopsOf(piece).map((loop) => loop.map(([px, py]): [number, number] => [px, py])),
    0.5,
  );
  const proportion = letteringProportion(piece.name);
  // Its box, height by length, within the round.
  const height = Math.min(TALLEST, (2 * TAKEN * middle.distance) / Math.hypot(1, proportion));
  if (height < LEAST) return null;
  const [x, y] = [middle[0] - (height * proportion) / 2, middle[1] - height / 2];
  const contours = letteringContours(piece.name, [x, y], [x + height * proportion, y]);
  return contours.flat().flatMap(({ points }) => {
    const places = placesOnBezier(points);
    return places.slice(1).map((to, i): FlatPiece => ({ kind: 'line', points: [places[i]!, to] }));
  });
}
