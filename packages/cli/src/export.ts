import {
  asVariant,
  ExportFailure,
  exportParts,
  PartEvaluator,
  withReadings,
  writeDesign,
  type Design,
} from '@helb/core';
import { loadKernel } from '@helb/kernel';
import { CliError } from './cli-error.ts';

export const EXPORT_FORMATS = ['step', 'stl', 'helb'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** The design as one of its variants, by name. @throws CliError */
export function variantOf(design: Design, name: string): Design {
  const { rows = {}, order = [] } = design.variants ?? {};
  const id = order.find((key) => rows[key]!.name === name);
  if (!id) {
    const known = order.map((key) => rows[key]!.name);
    throw new CliError(
      `No variant is called “${name}”; ${known.length > 0 ? `there are ${known.join(', ')}` : 'this design has none'}.`,
    );
  }
  const outcome = asVariant(design, id);
  if ('message' in outcome) throw new CliError(`${name}: ${outcome.message}`);
  return outcome.design;
}

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
  try {
    return await exportParts(await withReadings(design, evaluator, kernel), format, ids, evaluator, kernel);
  } catch (error) {
    if (error instanceof ExportFailure) throw new CliError(error.message);
    throw error;
  }
}
