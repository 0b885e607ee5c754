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

/** How deep a view is cut, stretch by stretch. */
export interface CutPlan {
  /** Along which of the view’s axes the stretches follow each other. */
  readonly axis: 'x' | 'y';
  /** Each up to a place along the axis, the last without end; its depth along the normal, null where it stays whole. mm from the origin. */
  readonly strips: readonly { readonly to: number; readonly depth: number | null }[];
}

/** The plane square to its x or y. */
const squareTo = (axis: 'x' | 'y', { origin, x, y, normal }: Frame): Frame => (axis === 'x' ? { origin, x: y, y: normal, normal: x } : { origin, x: normal, y: x, normal: y }); // prettier-ignore

/** The cutter comes after the one solid that is cut. */
const CUTTER = 1;

/** @throws SectionMisses, KernelError */
export function cutOpen(
  frame: Frame,
  { axis, strips }: CutPlan,
  seen: readonly { readonly solid: SolidHandle }[],
  kernel: SolidKernel,
): CutOpen {
  const made: SolidHandle[] = [];
  const done = () => made.forEach((solid) => kernel.free(solid));
  const kept: Piece[] = [];
  const faces: { of: number; outline: FlatPiece[] }[] = [];
  try {
    const parted = (solid: SolidHandle, by: Frame) => {
      const pieces = kernel.split([solid], { kind: 'plane', frame: by });
      made.push(...pieces.map((p) => p.solid));
      return pieces;
    };
    const along = (solid: SolidHandle, direction: Vec3) => dot(minus(kernel.bulk(solid).center, frame.origin), direction); // prettier-ignore
    const side = squareTo(axis, frame);
    seen.forEach((own, of) => {
      let pieces: readonly SolidHandle[] = [own.solid];
      for (const { to } of strips)
        if (Number.isFinite(to)) pieces = pieces.flatMap((piece) => parted(piece, raised(side, to)).map((p) => p.solid)); // prettier-ignore
      for (const solid of pieces) {
        const { depth } = strips.length === 1 ? strips[0]! : (strips.find((s) => along(solid, side.normal) < s.to) ?? strips.at(-1)!); // prettier-ignore
        if (depth === null) {
          kept.push({ solid, of });
          continue;
        }
        for (const piece of parted(solid, raised(frame, depth))) {
          if (along(piece.solid, frame.normal) > depth) continue;
          kept.push({ solid: piece.solid, of });
          piece.faces.forEach((parents, face) => {
            if (!parents.some((p) => p.argument === CUTTER)) return;
            const outline = kernel.faceOutline(piece.solid, face, 0).flat().map((curve) => flatten(frame, curve)); // prettier-ignore
            faces.push({ of, outline: outline.filter((p) => p.kind !== 'point') });
          });
        }
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
