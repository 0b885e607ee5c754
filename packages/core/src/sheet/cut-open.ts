/** Solids cut open to be looked into: what lies before the plane is taken away, what was cut is outlined. */
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { flatten } from '../slots/regions/flatten.ts';
import type { SolidHandle, SolidKernel } from '../solid/kernel.ts';
import { raised } from '../space/planes.ts';
import { dot, minus, type Frame, type Vec3 } from '../space/vector.ts';

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

/** The plane square to its x. */
const turnedAbout = ({ origin, x, y, normal }: Frame): Frame => ({ origin, x: y, y: normal, normal: x });

/** The cutter comes after the one solid that is cut. */
const CUTTER = 1;

/**
 * @param depth of the plane along the frame’s normal, mm from its origin
 * @throws SectionMisses, KernelError
 */
export function cutOpen(
  frame: Frame,
  depth: number,
  /** mm along the frame’s x: only what lies beyond is cut; null: all. */
  beyond: number | null,
  seen: readonly { readonly solid: SolidHandle }[],
  kernel: SolidKernel,
): CutOpen {
  const plane = raised(frame, depth);
  const made: SolidHandle[] = [];
  const done = () => made.forEach((solid) => kernel.free(solid));
  const kept: Piece[] = [];
  const faces: { of: number; outline: FlatPiece[] }[] = [];
  try {
    const parted = ({ solid }: { readonly solid: SolidHandle }, by: Frame) => {
      const pieces = kernel.split([solid], { kind: 'plane', frame: by });
      made.push(...pieces.map((p) => p.solid));
      return pieces;
    };
    const along = (solid: SolidHandle, direction: Vec3) => dot(minus(kernel.bulk(solid).center, frame.origin), direction); // prettier-ignore
    seen.forEach((own, of) => {
      const halves = beyond === null ? [own] : parted(own, raised(turnedAbout(frame), beyond));
      const [whole, open] = [halves.filter((h) => beyond !== null && along(h.solid, frame.x) < beyond), halves.filter((h) => beyond === null || along(h.solid, frame.x) >= beyond)]; // prettier-ignore
      kept.push(...whole.map(({ solid }) => ({ solid, of })));
      for (const piece of open.flatMap((half) => parted(half, plane))) {
        if (along(piece.solid, frame.normal) > depth) continue;
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
