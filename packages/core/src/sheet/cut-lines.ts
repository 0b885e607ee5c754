/** Lines in which a section cuts faces: sizes are taken at them as at edges. */
import { refOfFace } from '../names/find-face.ts';
import type { Body } from '../names/body.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import type { OfferedSpot } from './offered-spot.ts';
import { NearPieces } from './near-pieces.ts';
import { liesIn, SAME } from './piece-places.ts';

export interface CutLine {
  /** Which of the solids that are seen, and which of its faces. */
  readonly of: number;
  readonly face: number;
  /** mm of the model, in the view. */
  readonly piece: FlatPiece;
  /** Along the view’s normal from the origin, mm. */
  readonly depth: number;
}

/** Where one face is cut, in order along the view’s x, then its y, then by radius. Stretches in one line are one, as are arcs of one circle. */
export function placesOfCut(lines: readonly CutLine[], of: number, face: number): CutLine[] {
  const places: CutLine[] = [];
  for (const line of lines) {
    if (line.of !== of || line.face !== face) continue;
    const at = places.findIndex((other) => joined(other.piece, line.piece) !== null);
    if (at < 0) places.push(line);
    else places[at] = { ...line, piece: joined(places[at]!.piece, line.piece)! };
  }
  const middle = ({ piece }: CutLine): Vec2 => {
    const { points } = piece;
    const [a, b] = [points[0]!, points.at(-1)!];
    return piece.kind === 'line' || piece.kind === 'spline' ? [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] : a;
  };
  return places.sort((p, q) => {
    const [a, b] = [middle(p), middle(q)];
    if (Math.abs(a[0] - b[0]) > SAME) return a[0] - b[0];
    return Math.abs(a[1] - b[1]) > SAME ? a[1] - b[1] : radiusOf(p.piece) - radiusOf(q.piece);
  });
}

/** Both as one where they lie in one line, or on one circle; null where they do not. */
function joined(one: FlatPiece, other: FlatPiece): FlatPiece | null {
  if (one.kind === 'line' && other.kind === 'line') {
    const [a, b] = one.points;
    const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const along: Vec2 = [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
    const off = ([x, y]: Vec2) => Math.abs((x - a[0]) * along[1] - (y - a[1]) * along[0]);
    if (other.points.some((p) => off(p) > SAME)) return null;
    const at = ([x, y]: Vec2) => (x - a[0]) * along[0] + (y - a[1]) * along[1];
    const all = [...one.points, ...other.points].sort((p, q) => at(p) - at(q));
    return { kind: 'line', points: [all[0]!, all.at(-1)!] };
  }
  const [r, s] = [radiusOf(one), radiusOf(other)];
  if (r === 0 || s === 0 || Math.abs(r - s) > SAME) return null;
  const [p, q] = [one.points[0]!, other.points[0]!];
  return Math.hypot(p[0] - q[0], p[1] - q[1]) < SAME ? one : null;
}

/** Of a circle or an arc; of anything else nothing. */
function radiusOf(piece: FlatPiece): number {
  if (piece.kind === 'circle') return piece.radius;
  return piece.kind === 'arc' ? Math.hypot(piece.points[1][0] - piece.points[0][0], piece.points[1][1] - piece.points[0][1]) : 0; // prettier-ignore
}

/** Where a section cuts a cylinder along its axis: from the middle of one of its walls straight to the other; null elsewhere. */
export function acrossCylinder(
  places: readonly CutLine[],
  nth: number,
  { facts }: Body,
  face: number,
): readonly [Vec2, Vec2] | null {
  const { kind, radius } = facts.faces[face]!;
  const [own, other] = [places[nth]?.piece, places[1 - nth]?.piece];
  if (kind !== 'cylinder' || radius === null || places.length !== 2 || own?.kind !== 'line' || other?.kind !== 'line') return null; // prettier-ignore
  const [[x0, y0], [x1, y1]] = own.points;
  const middle: Vec2 = [(x0 + x1) / 2, (y0 + y1) / 2];
  const [[u0, v0], [u1, v1]] = other.points;
  const long = Math.hypot(u1 - u0, v1 - v0);
  const [u, v] = [(u1 - u0) / long, (v1 - v0) / long];
  const off = (middle[0] - u0) * v - (middle[1] - v0) * u;
  if (Math.abs(Math.abs(off) - 2 * radius) > SAME) return null;
  return [middle, [middle[0] - off * v, middle[1] + off * u]];
}

/** @param spots edges and corners, which come first: what lies along one of them is not offered again */
export function spotsOfCut(
  lines: readonly CutLine[],
  bodies: readonly Body[],
  spots: readonly OfferedSpot[],
): OfferedSpot[] {
  const known = new NearPieces(spots);
  return lines.flatMap((line): OfferedSpot[] => {
    const { of, face, piece } = line;
    const what = piece.kind === 'line' ? 'line' : piece.kind === 'circle' || piece.kind === 'arc' ? 'round' : null;
    if (!what || known.near(piece).some((s) => s.piece.kind === piece.kind && liesIn(piece, s.piece))) return [];
    const places = placesOfCut(lines, of, face);
    const nth = places.findIndex((place) => joined(place.piece, piece) !== null);
    const across = acrossCylinder(places, nth, bodies[of]!, face);
    return [{ spot: { cut: refOfFace(bodies[of]!, face, bodies), nth, of: places.length }, what, piece, slanted: null, ...(across ? { across } : {}) }]; // prettier-ignore
  });
}
