/** Solids cut open to be looked into: what lies before the plane is taken away, what was cut is outlined. */
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { flatten } from '../slots/regions/flatten.ts';
import type { SolidHandle, SolidKernel } from '../solid/kernel.ts';
import { raised } from '../space/planes.ts';
import { dot, type Frame } from '../space/vector.ts';

/** The plane of a section goes through nothing; the message is a sentence for the user. */
export class SectionMisses extends Error {}

export interface Piece {
  readonly solid: SolidHandle;
  /** Which of the solids it is of. */
  readonly of: number;
}

export interface CutOpen {
  readonly kept: readonly Piece[];
  readonly faces: readonly { readonly of: number; readonly outline: readonly FlatPiece[] }[];
  /** Lets go of the pieces. */
  done(): void;
}

/** The cutter comes after the one solid that is cut. */
const CUTTER = 1;

/**
 * @param depth of the plane along the frame’s normal, mm from its origin
 * @throws SectionMisses, KernelError
 */
export function cutOpen(
  frame: Frame,
  depth: number,
  seen: readonly { readonly solid: SolidHandle }[],
  kernel: SolidKernel,
): CutOpen {
  const plane = raised(frame, depth);
  const made: SolidHandle[] = [];
  const done = () => made.forEach((solid) => kernel.free(solid));
  const kept: Piece[] = [];
  const faces: { of: number; outline: FlatPiece[] }[] = [];
  try {
    seen.forEach(({ solid }, of) => {
      const pieces = kernel.split([solid], { kind: 'plane', frame: plane });
      made.push(...pieces.map((p) => p.solid));
      for (const piece of pieces) {
        if (dot(kernel.bulk(piece.solid).center, frame.normal) - dot(frame.origin, frame.normal) > depth) continue;
        kept.push({ solid: piece.solid, of });
        piece.faces.forEach((parents, face) => {
          if (!parents.some((p) => p.argument === CUTTER)) return;
          const outline = kernel.faceOutline(piece.solid, face, 0).flat().map((curve) => flatten(frame, curve)); // prettier-ignore
          faces.push({ of, outline: outline.filter((p) => p.kind !== 'point') });
        });
      }
    });
    if (faces.length === 0)
      throw new SectionMisses('This section goes through nothing; take it through something else.');
    return { kept, faces, done };
  } catch (error) {
    done();
    throw error;
  }
}
