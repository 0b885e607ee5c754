/** Material that stands on a flat face, its sides going on as the faces beside it lean. */
import { StepFailure } from '../../names/body.ts';
import { acrossPiece, cornersLean, sideOf, type Leaning } from '../../slots/regions/leaning.ts';
import type { Loop } from '../../sketch/regions/loop.ts';
import { placeOnPiece } from '../../sketch/regions/piece-parts.ts';
import type { LoopPiece } from '../../sketch/regions/piece.ts';
import type { Vec2 } from '../../sketch/regions/primitives.ts';
import type { MadeSolid, SolidKernel } from '../../solid/kernel.ts';
import { toSpace } from '../../space/planes.ts';
import { dot, minus, type Frame } from '../../space/vector.ts';

/** Leanings smaller than this are none. */
const UPRIGHT = 1e-8;

/** A flat face, and how those beside it lean; those that run on from it smoothly move by themselves. */
export interface Leant {
  readonly frame: Frame;
  readonly loops: readonly Loop[];
  readonly leaning: Leaning;
}

/**
 * @param by mm along the face's normal; below 0 into the material
 * @returns `start` and `end` as the caps below and above
 * @throws StepFailure, KernelError
 */
export function leaningSlab({ frame, loops, leaning }: Leant, by: number, kernel: SolidKernel): MadeSolid {
  const pieces = loops.flatMap((l) => l.pieces);
  const leans = pieces.map((p) => leanOf(p, leaning));
  loops.forEach((l, i) => refuseVanished(l.pieces, leaning, sideOf(l.pieces, i > 0), by));
  let made = kernel.extrude(frame, loops, Math.min(0, by), Math.max(0, by));
  for (const lean of new Set(leans.filter((c) => Math.abs(c) > UPRIGHT))) {
    const sides = made.faces.flatMap((parents, i) => (parents.some((p) => p.kind === 'edge' && leans[p.index] === lean) ? [i] : [])); // prettier-ignore
    const before = made;
    try {
      const { solid, faces } = kernel.draft(before.solid, sides, frame, Math.atan(lean));
      made = { solid, faces: faces.map((parents) => parents.flatMap((p) => before.faces[p.index]!)) };
    } finally {
      kernel.free(before.solid);
    }
  }
  return made;
}

const leanOf = (p: LoopPiece, leaning: Leaning) => leaning.get(p.curve) ?? 0;

/** Places looked at on each piece of an outline. */
const LOOKED_AT = 16;

/** How high over the face a plane is met by its sides, all round; mm. @throws StepFailure where it never is */
export function heightsTo({ frame, loops, leaning }: Leant, to: Frame): number[] {
  return loops.flatMap(({ pieces }, i) => {
    const side = sideOf(pieces, i > 0);
    const corners = cornersOf(pieces, leaning, side);
    return pieces.flatMap((piece, k) =>
      Array.from({ length: LOOKED_AT }, (_, j) => {
        const [x, y] = placeOnPiece(piece, j / LOOKED_AT);
        const across = acrossPiece(piece, j / LOOKED_AT, side);
        const lean = -leanOf(piece, leaning);
        const [u, v] = j === 0 ? corners[k]! : [lean * across[0], lean * across[1]];
        const from = toSpace(frame, x, y);
        const against = dot(minus(toSpace(frame, x + u, y + v, 1), from), to.normal);
        if (Math.abs(against) < UPRIGHT)
          throw new StepFailure('The sides of this face run along the plane and never meet it; choose another plane.');
        return dot(minus(to.origin, from), to.normal) / against;
      }),
    );
  });
}

function cornersOf(pieces: readonly LoopPiece[], leaning: Leaning, side: 1 | -1): Vec2[] {
  return cornersLean(pieces, pieces.map((p) => leanOf(p, leaning)), side).map((corner) => {
    if (corner) return corner;
    throw new StepFailure('Two faces beside this one meet without a corner and lean unlike, so it cannot be moved; change the step that made them.'); // prettier-ignore
  }); // prettier-ignore
}

/** @throws StepFailure where an edge has come to nothing or turned about on its way: the kernel would not tell */
function refuseVanished(pieces: readonly LoopPiece[], leaning: Leaning, side: 1 | -1, by: number): void {
  const corners = cornersOf(pieces, leaning, side);
  const moved = pieces.map((p, k): Vec2 => [p.from[0] + by * corners[k]![0], p.from[1] + by * corners[k]![1]]);
  pieces.forEach((p, k) => {
    if (p.kind === 'arc' && p.radius - leanOf(p, leaning) * by * side * Math.sign(p.sweep) <= 0)
      throw new StepFailure('Moved so far, a round face beside this one comes to a point; move it by less.');
    if (p.kind !== 'line') return;
    const [from, next] = [moved[k]!, moved[(k + 1) % pieces.length]!];
    const [was, is] = [[p.to[0] - p.from[0], p.to[1] - p.from[1]], [next[0] - from[0], next[1] - from[1]]] as const; // prettier-ignore
    if (was[0] * is[0] + was[1] * is[1] <= UPRIGHT * (was[0] ** 2 + was[1] ** 2))
      throw new StepFailure('Moved so far, an edge of this face comes to nothing between the faces beside it; move it by less.'); // prettier-ignore
  });
}
