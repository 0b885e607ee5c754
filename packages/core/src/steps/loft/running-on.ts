/** Ends of a loft that run on as the faces beside its section do. */
import { StepFailure } from '../../names/body.ts';
import { placeOnPiece } from '../../sketch/regions/piece-parts.ts';
import { pieceArea, type LoopPiece } from '../../sketch/regions/piece.ts';
import type { Vec2 } from '../../sketch/regions/primitives.ts';
import type { Leaning } from '../../slots/sections/sections.ts';
import { directionInSpace } from '../../space/planes.ts';
import type { Outline } from './matched.ts';
import { senseOf, type Leaving } from './ways.ts';

/** Sine of the angle under which two pieces run on smoothly. */
const SMOOTH = 1e-6;
const STEP = 1e-5;

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
  const out = pieces.reduce((sum, p) => sum + pieceArea(p), 0) > 0 ? 1 : -1;
  /** Along and, turned outwards, across the outline. */
  const at = (p: LoopPiece, share: number): readonly [along: Vec2, across: Vec2] => {
    const along = tangent(p, share);
    return [along, [out * along[1], -out * along[0]]];
  };
  const corners = pieces.map((piece, k): Vec2 => {
    const before = (k + pieces.length - 1) % pieces.length;
    const [[, o], [, q]] = [at(piece, 0), at(pieces[before]!, 1)];
    const [c, d] = [-leans[k]!, -leans[before]!];
    const sine = o[0] * q[1] - o[1] * q[0];
    if (Math.abs(sine) > SMOOTH) return [(c * q[1] - d * o[1]) / sine, (o[0] * d - q[0] * c) / sine];
    if (Math.abs(c - d) > SMOOTH)
      throw new StepFailure(`Two faces beside the ${which} section meet without a corner and lean unlike; leave it square.`); // prettier-ignore
    return [c * o[0], c * o[1]];
  });
  const by = senseOf(outlines, end) * pull;
  return (piece, share) => {
    const own = pieces[piece]!;
    const slide = (t: 0 | 1) => {
      const [along] = at(own, t);
      const corner = corners[(piece + t) % pieces.length]!;
      return corner[0] * along[0] + corner[1] * along[1];
    };
    const [along, across] = at(own, share);
    const k = (1 - share) * slide(0) + share * slide(1);
    const [x, y] = [0, 1].map((i) => -leans[piece]! * across[i]! + k * along[i]!) as [number, number];
    const flat = directionInSpace(frame, x, y);
    const { normal } = frame;
    return [by * (normal[0] + flat[0]), by * (normal[1] + flat[1]), by * (normal[2] + flat[2])];
  };
}

function tangent(p: LoopPiece, share: number): Vec2 {
  if (p.kind === 'arc') {
    const angle = p.start + share * p.sweep;
    return p.sweep > 0 ? [-Math.sin(angle), Math.cos(angle)] : [Math.sin(angle), -Math.cos(angle)];
  }
  const [a, b] = [placeOnPiece(p, share - STEP), placeOnPiece(p, share + STEP)];
  const size = Math.hypot(b[0] - a[0], b[1] - a[1]);
  return [(b[0] - a[0]) / size, (b[1] - a[1]) / size];
}
