/** Chamfers as drawings call them out: how far they go along both sides, or how far and at which angle (ISO 129-1). */
import type { Body } from '../names/body.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { dot, minus } from '../space/vector.ts';

/** How far it goes along one side and along the other, mm. */
export interface ChamferTold {
  readonly along: number;
  readonly aside: number;
}

const LEAST = 1e-6;

/** Of a slanted edge in its view, along x and along y; null where it is not slanted. */
export function chamferOfEdge(piece: FlatPiece): ChamferTold | null {
  if (piece.kind !== 'line') return null;
  const [[x0, y0], [x1, y1]] = piece.points;
  const told = { along: Math.abs(x1 - x0), aside: Math.abs(y1 - y0) };
  return told.along > LEAST && told.aside > LEAST ? told : null;
}

/** Of a cone at a round edge, along its axis and out from it; null where there is none, or it runs to a point. */
export function chamferOfCone({ facts }: Body, edge: number): ChamferTold | null {
  const cone = facts.edges[edge]!.faces.find((f) => facts.faces[f]!.kind === 'cone');
  const [one, other] = cone === undefined ? [] : facts.edges.filter((e) => e.kind === 'circle' && e.faces.includes(cone)); // prettier-ignore
  if (!one?.axis || !other?.axis) return null;
  const told = { along: Math.abs(dot(minus(other.axis.origin, one.axis.origin), one.axis.direction)), aside: Math.abs(other.radius! - one.radius!) }; // prettier-ignore
  return told.along > LEAST && told.aside > LEAST ? told : null;
}

/** @param words of a length, without its unit */
export function wordsOfChamfer({ along, aside }: ChamferTold, words: (mm: number) => string): string {
  return Math.abs(along - aside) < LEAST * Math.max(1, along) ? `${words(along)} × 45°` : `${words(along)} × ${words(aside)}`; // prettier-ignore
}
