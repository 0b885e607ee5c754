import { Ledger, PartEvaluator, writeDesign, writeStl, type Design, type PartOutcome } from '@helb/core';
import { loadKernel } from '@helb/kernel';
import { CliError } from './cli-error.ts';

export const EXPORT_FORMATS = ['step', 'stl', 'helb'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** Fine enough that a printed round looks round: 0.05 mm off, 10° per facet. */
const STL_QUALITY = { linear: 0.05, angular: 10 * (Math.PI / 180) };

/** The bytes of an export. @throws CliError when a step fails or nothing is solid */
export async function exportDesign(
  design: Design,
  format: ExportFormat,
  only: string | undefined,
): Promise<Uint8Array | string> {
  if (format === 'helb') return writeDesign(design);
  const ids = design.partOrder.filter((id) => only === undefined || id === only || design.parts[id]!.name === only);
  if (ids.length === 0) throw new CliError(`No part is called “${only}” in this design.`);
  const kernel = await loadKernel();
  const evaluator = new PartEvaluator(kernel);
  const ledger = Ledger.of(design);
  const outcomes: PartOutcome[] = [];
  for (const id of ids) {
    const outcome = await evaluator.evaluate(design, ledger, id);
    const failed = outcome.steps.find((s) => s.status === 'failed');
    if (failed) {
      const part = design.parts[id]!;
      throw new CliError(`${part.name}, ${part.steps[failed.id]!.name}: ${failed.message}`);
    }
    outcomes.push(outcome);
  }
  const solid = outcomes.filter((o) => o.bodies.length > 0);
  if (solid.length === 0) throw new CliError('There is no solid in this design to export yet.');
  if (format === 'step') {
    return kernel.exportStep(
      solid.map((o) => ({ name: design.parts[o.part]!.name, solids: o.bodies.map((b) => b.solid) })),
    );
  }
  return writeStl(
    solid.flatMap((o) => o.bodies.map((b) => kernel.mesh(b.solid, STL_QUALITY))),
    design.name,
  );
}
