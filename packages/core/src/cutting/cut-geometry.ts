/** All that is to be cut for one set of outlines. */
import { membersOf } from '../assembly/members.ts';
import type { CutPiece, Outlines } from '../document/outlines.ts';
import type { Design } from '../document/schema.ts';
import type { EvaluationHooks, PartEvaluator } from '../evaluation/evaluate.ts';
import type { Known } from '../evaluation/known.ts';
import { ExportFailure } from '../exchange/export-failure.ts';
import type { FaceDrawing } from '../exchange/face-drawing.ts';
import { KernelError, type SolidKernel } from '../solid/kernel.ts';
import { pieceToCut, type PieceToCut } from './cut-piece.ts';

export interface CutGeometry {
  readonly pieces: ReadonlyMap<string, PieceToCut>;
  /** Why others cannot be cut, as sentences. */
  readonly faults: ReadonlyMap<string, string>;
}

/** @throws ExportFailure where the outlines are gone; Superseded */
export async function cutGeometry(
  design: Design,
  id: string,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  known: Known<FaceDrawing>,
  hooks: EvaluationHooks = {},
): Promise<CutGeometry> {
  const own = design.outlines?.[id];
  if (!own) throw new ExportFailure('These outlines are not there any more.');
  const pieces = new Map<string, PieceToCut>();
  const faults = new Map<string, string>();
  for (const [at, key] of own.pieceOrder.entries()) {
    const piece = own.pieces[key]!;
    hooks.progress?.(at, own.pieceOrder.length, design.parts[piece.part]?.name ?? 'a part');
    await hooks.breathe?.();
    try {
      pieces.set(key, await pieceToCut(design, piece, own.cut, evaluator, kernel, known, hooks));
    } catch (error) {
      if (!(error instanceof ExportFailure) && !(error instanceof KernelError)) throw error;
      faults.set(key, error.message);
    }
  }
  return { pieces, faults };
}

/** The parts that stand in an assembly, each once. */
export const partsStanding = (design: Design, assembly: string): string[] => [
  ...new Set(membersOf(design, assembly, () => new Map()).members.map((m) => m.part)),
];

/** How often each piece is cut: as it says itself, as the assembly holds its part, or once. */
export function cutCounts(design: Design, own: Outlines): ReadonlyMap<string, number> {
  const held = own.of === undefined ? null : membersOf(design, own.of, () => new Map()).members;
  const each = ({ count, part }: CutPiece) => count ?? (held ? held.filter((m) => m.part === part).length : 1);
  return new Map(own.pieceOrder.map((key) => [key, each(own.pieces[key]!)]));
}
