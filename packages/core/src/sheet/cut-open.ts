/** Solids cut open to be looked into: what lies before the plane is taken away, what was cut is outlined. */
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { flatten } from '../slots/regions/flatten.ts';
import type { SolidHandle, SolidKernel } from '../solid/kernel.ts';
import type { CutLine } from './cut-lines.ts';
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
  /** Where faces of what is seen were cut. */
  readonly lines: readonly CutLine[];
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

/** A piece of a solid, and which face of that each of its own is of; null of one made by cutting. */
interface Tracked {
  readonly solid: SolidHandle;
  readonly ownOf: (face: number) => number | null;
}

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
  const lines: CutLine[] = [];
  try {
    const parted = ({ solid, ownOf }: Tracked, by: Frame) => {
      const pieces = kernel.split([solid], { kind: 'plane', frame: by });
      made.push(...pieces.map((p) => p.solid));
      return pieces.map((p) => {
        const from = p.faces.map((parents) => parents.find((f) => f.argument !== CUTTER && f.kind === 'face'));
        return { ...p, ownOf: (face: number) => (from[face] ? ownOf(from[face].index) : null) };
      });
    };
    const along = (solid: SolidHandle, direction: Vec3) => dot(minus(kernel.bulk(solid).center, frame.origin), direction); // prettier-ignore
    const side = squareTo(axis, frame);
    seen.forEach((own, of) => {
      let pieces: readonly Tracked[] = [{ solid: own.solid, ownOf: (face) => face }];
      for (const { to } of strips)
        if (Number.isFinite(to)) pieces = pieces.flatMap((piece) => parted(piece, raised(side, to))); // prettier-ignore
      for (const whole of pieces) {
        const { solid } = whole;
        const { depth } = strips.length === 1 ? strips[0]! : (strips.find((s) => along(solid, side.normal) < s.to) ?? strips.at(-1)!); // prettier-ignore
        if (depth === null) {
          kept.push({ solid, of });
          continue;
        }
        for (const piece of parted(whole, raised(frame, depth))) {
          if (along(piece.solid, frame.normal) > depth) continue;
          kept.push({ solid: piece.solid, of });
          piece.faces.forEach((parents, face) => {
            if (!parents.some((p) => p.argument === CUTTER)) return;
            const outline = kernel.faceOutline(piece.solid, face, 0).flat().map((curve) => flatten(frame, curve)); // prettier-ignore
            faces.push({ of, outline: outline.filter((p) => p.kind !== 'point') });
          });
          const isCut = (face: number | undefined) => piece.faces[face!]?.some((p) => p.argument === CUTTER) ?? false;
          const edges = kernel.edges(piece.solid);
          kernel.curves(piece.solid).forEach((curve, i) => {
            const [one, other] = edges[i]!.faces;
            const along = isCut(one) ? other : isCut(other) ? one : undefined;
            const face = along === undefined || isCut(along) ? null : piece.ownOf(along);
            if (face !== null) lines.push({ of, face, piece: flatten(frame, curve), depth });
          });
        }
      }
    });
    if (faces.length === 0)
      throw new SectionMisses('This section goes through nothing; take it through something else.');
    return { kept, faces, lines, done };
  } catch (error) {
    done();
    throw error;
  }
}
