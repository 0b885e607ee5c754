/** Bends too tight for what is carried round them: the kernel makes a body that runs through itself, and finds it sound. */
import { StepFailure } from '../../names/body.ts';
import type { Area } from '../../slots/regions/profile.ts';
import type { PathFound } from '../../slots/path/path.ts';
import { placeOnPiece } from '../../sketch/regions/piece-parts.ts';
import type { LoopPiece } from '../../sketch/regions/piece.ts';
import type { Vec2 } from '../../sketch/regions/primitives.ts';
import type { HelixPath } from '../../solid/kernel.ts';
import { directionInSpace, toSpace } from '../../space/planes.ts';
import { dot, minus, type Frame, type Vec3 } from '../../space/vector.ts';
import { inMm } from '../rework/rework.ts';

/** Places looked at on each piece. */
const PLACES = 48;
/** A bend just as wide as the profile is deep comes to a point, and is let pass. */
const SLACK = 1e-6;

/** @throws StepFailure where the profile would run into itself */
export function refuseTight(path: PathFound, area: Area, frame: Frame, grown: number): void {
  const size = Math.max(1, grown);
  const outline = area.loops[0]!.pieces.flatMap((p) =>
    Array.from({ length: PLACES }, (_, i) => toSpace(frame, ...placeOnPiece(p, i / PLACES))),
  );
  const [first] = path.pieces;
  if (first?.kind === 'helix') refuseCrowded(first, outline, size, path.of);
  if (first?.kind !== 'curve') return;
  const along = tangent(first.piece, 0);
  const [start, left] = [
    toSpace(first.frame, ...placeOnPiece(first.piece, 0)),
    directionInSpace(first.frame, -along[1], along[0]),
  ];
  const aside = outline.map((p) => dot(minus(p, start), left) * size);
  const [toLeft, toRight] = [Math.max(...aside), -Math.min(...aside)];
  for (const piece of path.pieces) {
    if (piece.kind !== 'curve') continue;
    const [most, least] = bends(piece.piece);
    const tight = toLeft * most > 1 + SLACK ? [most, toLeft] : toRight * -least > 1 + SLACK ? [-least, toRight] : null;
    if (tight)
      throw new StepFailure(
        `${path.of} bends with a radius of ${inMm(1 / tight[0]!)}, and the profile reaches ${inMm(tight[1]!)} inwards, so it would run into itself; make the bend wider or the profile smaller.`,
      );
  }
}

/** The greatest and the least curvature, 1/mm; to the left above 0. */
function bends(p: LoopPiece): [number, number] {
  if (p.kind === 'line') return [0, 0];
  if (p.kind === 'arc') {
    const k = Math.sign(p.sweep) / p.radius;
    return [Math.max(0, k), Math.min(0, k)];
  }
  const all = Array.from({ length: PLACES }, (_, i) => {
    const s = (i + 0.5) / PLACES;
    const [a, b, c] = [s - STEP, s, s + STEP].map((t) => placeOnPiece(p, t)) as [Vec2, Vec2, Vec2];
    const [dx, dy] = [(c[0] - a[0]) / (2 * STEP), (c[1] - a[1]) / (2 * STEP)];
    const [ddx, ddy] = [(c[0] - 2 * b[0] + a[0]) / STEP ** 2, (c[1] - 2 * b[1] + a[1]) / STEP ** 2];
    return (dx * ddy - dy * ddx) / Math.hypot(dx, dy) ** 3;
  });
  return [Math.max(0, ...all), Math.min(0, ...all)];
}
/** For differences along a piece, whose parameter runs from 0 to 1. */
const STEP = 1e-3;

function tangent(p: LoopPiece, s: number): Vec2 {
  const [a, b] = [placeOnPiece(p, s), placeOnPiece(p, s + STEP)];
  const size = Math.hypot(b[0] - a[0], b[1] - a[1]);
  return [(b[0] - a[0]) / size, (b[1] - a[1]) / size];
}

/** Turn upon turn, what is as high as the helix rises in a turn runs into the turn above. */
function refuseCrowded(helix: HelixPath, outline: readonly Vec3[], size: number, of: string): void {
  const heights = outline.map((p) => dot(p, helix.axis.direction));
  const height = (Math.max(...heights) - Math.min(...heights)) * size;
  if (helix.turns > 1 && height > helix.pitch * (1 - SLACK))
    throw new StepFailure(
      `${of} rises ${inMm(helix.pitch)} in a turn, and the profile is ${inMm(height)} high, so its turns would run into each other; make it lower or the rise larger.`,
    );
}
