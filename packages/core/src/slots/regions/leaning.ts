/** How the faces beside a flat one lean, and where its outline goes as they carry it on. */
import type { Body } from '../../names/body.ts';
import { placeOnPiece } from '../../sketch/regions/piece-parts.ts';
import { pieceArea, type LoopPiece } from '../../sketch/regions/piece.ts';
import type { Vec2 } from '../../sketch/regions/primitives.ts';
import type { CurveKind, FaceFacts } from '../../solid/kernel.ts';

/**
 * The cotangent of the angle between the face and the one beside it, by the curve between them: 0 where that stands
 * square on it, above 0 where the body grows narrower towards the face; null where the angle changes along the curve, or there is none.
 */
export type Leaning = ReadonlyMap<string, number | null>;

/** Along which curves which faces keep their angle to a flat one. */
const EVEN: Readonly<Partial<Record<CurveKind, readonly FaceFacts['kind'][]>>> = {
  line: ['plane'],
  circle: ['plane', 'cylinder', 'cone'],
};

/** @param edges which edge of the body each curve is */
export function leaningOf(body: Pick<Body, 'facts'>, edges: ReadonlyMap<string, number>): Leaning {
  return new Map(
    [...edges].map(([curve, i]) => {
      const edge = body.facts.edges[i]!;
      const even = edge.faces.every((f) => EVEN[edge.kind]?.includes(body.facts.faces[f]!.kind));
      const bend = body.facts.bends[i]!;
      // Noise in the last digits would make another cache key of the same shape.
      return [curve, even && Math.abs(Math.sin(bend)) > SMOOTH ? Number((1 / Math.tan(bend)).toFixed(9)) + 0 : null];
    }),
  );
}

/** Sine of the angle under which two pieces run on smoothly. */
const SMOOTH = 1e-6;
const STEP = 1e-5;

/** Along a piece, unit length. */
export function alongPiece(p: LoopPiece, share: number): Vec2 {
  if (p.kind === 'arc') {
    const angle = p.start + share * p.sweep;
    return p.sweep > 0 ? [-Math.sin(angle), Math.cos(angle)] : [Math.sin(angle), -Math.cos(angle)];
  }
  const [a, b] = [placeOnPiece(p, share - STEP), placeOnPiece(p, share + STEP)];
  const size = Math.hypot(b[0] - a[0], b[1] - a[1]);
  return [(b[0] - a[0]) / size, (b[1] - a[1]) / size];
}

/** 1 where the material is on the left of the way the loop is walked, −1 where it is on the right. */
export const sideOf = (pieces: readonly LoopPiece[], isHole: boolean): 1 | -1 =>
  pieces.reduce((sum, p) => sum + pieceArea(p), 0) > 0 === isHole ? -1 : 1;

/** Across a piece, away from the material. */
export function acrossPiece(p: LoopPiece, share: number, side: 1 | -1): Vec2 {
  const [x, y] = alongPiece(p, share);
  return [side * y, -side * x];
}

/**
 * Where each piece begins: how far that corner goes along the plane as it goes 1 up, keeping to the faces on both sides.
 * @param leans of each piece
 * @returns null of a corner at which pieces run on smoothly and lean unlike
 */
export function cornersLean(pieces: readonly LoopPiece[], leans: readonly number[], side: 1 | -1): (Vec2 | null)[] {
  return pieces.map((piece, k) => {
    const before = (k + pieces.length - 1) % pieces.length;
    const [o, q] = [acrossPiece(piece, 0, side), acrossPiece(pieces[before]!, 1, side)];
    const [c, d] = [-leans[k]!, -leans[before]!];
    const sine = o[0] * q[1] - o[1] * q[0];
    if (Math.abs(sine) > SMOOTH) return [(c * q[1] - d * o[1]) / sine, (o[0] * d - q[0] * c) / sine];
    return Math.abs(c - d) > SMOOTH ? null : [c * o[0], c * o[1]];
  });
}
