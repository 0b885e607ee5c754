/** One flat face of a part as a drawing to cut by. */
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { findFace } from '../names/find-face.ts';
import { asMade } from '../evaluation/as-made.ts';
import type { PartEvaluator } from '../evaluation/evaluate.ts';
import type { FaceRef } from '../references/references.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { ExportFailure } from './export-failure.ts';
import { drawingOfFace } from './face-drawing.ts';
import { writeDxf } from './write-dxf.ts';
import { writeSvg } from './write-svg.ts';

export type DrawingFormat = 'dxf' | 'svg';

export interface WrittenFace {
  readonly bytes: Uint8Array;
  /** Free curves that are drawn through places on them, not exactly. */
  readonly free: number;
  /** Holes that are narrower than the cut, and missing. */
  readonly closed: number;
}

/**
 * @param grown mm by which the drawing is larger on every side: half the width of the cut keeps the part's size
 * @param engraving a sketch on the face, drawn on a layer of its own
 * @throws ExportFailure, KernelError
 */
export async function exportFace(
  design: Design,
  part: string,
  face: FaceRef,
  format: DrawingFormat,
  grown: number,
  engraving: string | null,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
): Promise<WrittenFace> {
  const own = asMade(design, part);
  const { bodies, steps } = await evaluator.evaluate(own, Ledger.of(own), part);
  const finding = findFace(face, bodies);
  if (finding.how !== 'one')
    throw new ExportFailure('This face is not found for sure in the finished part; pick it there again.');
  const sketch = engraving === null ? null : steps.find((s) => s.id === engraving)?.sketch;
  if (sketch === undefined || (sketch === null && engraving !== null))
    throw new ExportFailure('The sketch to engrave is not there any more, or fails; choose another.');
  const drawing = drawingOfFace(finding.found.body, finding.found.face, grown, sketch, kernel);
  const bytes = format === 'dxf' ? writeDxf(drawing) : writeSvg(drawing, design.parts[part]!.name);
  return { bytes, free: drawing.free, closed: drawing.closed };
}
