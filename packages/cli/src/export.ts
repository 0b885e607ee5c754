import {
  asVariant,
  exportAssembly,
  exportFace,
  ExportFailure,
  exportParts,
  KernelError,
  Ledger,
  PartEvaluator,
  refOfFace,
  withReadings,
  writeDesign,
  type Design,
  type SolidKernel,
} from '@helb/core';
import { watchedKernel } from './watched.ts';
import { CliError } from './cli-error.ts';

export const EXPORT_FORMATS = ['step', 'stl', '3mf', 'glb', 'dxf', 'svg', 'pdf', 'helb'] as const;
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
  cutWidth = 0,
  together?: string,
): Promise<Uint8Array | string> {
  if (format === 'helb') return writeDesign(design);
  if (format === 'pdf') throw new CliError('A PDF is of a sheet; say of which with --sheet.');
  if (together !== undefined && only !== undefined) throw new CliError('Give --part or --assembly, not both.');
  if (together !== undefined) return exportTogether(design, format, together);
  const ids = design.partOrder.filter((id) => only === undefined || id === only || design.parts[id]!.name === only);
  if (ids.length === 0) throw new CliError(`No part is called “${only}” in this design.`);
  const kernel = await watchedKernel();
  const evaluator = new PartEvaluator(kernel);
  try {
    const own = await withReadings(design, evaluator, kernel);
    if (format === 'dxf' || format === 'svg')
      return await largestFace(own, format, ids, cutWidth / 2, evaluator, kernel);
    return await exportParts(own, format, ids, evaluator, kernel);
  } catch (error) {
    if (error instanceof ExportFailure || error instanceof KernelError) throw new CliError(error.message);
    throw error;
  }
}

/** An assembly, by name or id, as it stands at home. @throws CliError */
async function exportTogether(design: Design, format: ExportFormat, name: string): Promise<Uint8Array> {
  if (format === 'dxf' || format === 'svg' || format === 'pdf' || format === 'helb')
    throw new CliError(`An assembly is written as step, stl, 3mf or glb; ${format} is of one part.`);
  const id = design.assemblyOrder?.find((key) => key === name || design.assemblies?.[key]?.name === name);
  if (id === undefined) throw new CliError(`No assembly is called “${name}” in this design.`);
  const kernel = await watchedKernel();
  const evaluator = new PartEvaluator(kernel);
  try {
    return await exportAssembly(await withReadings(design, evaluator, kernel), id, format, evaluator, kernel);
  } catch (error) {
    if (error instanceof ExportFailure || error instanceof KernelError) throw new CliError(error.message);
    throw error;
  }
}

/** The outline of the largest flat face of the one part that is meant. @throws CliError, ExportFailure, KernelError */
async function largestFace(
  design: Design,
  format: 'dxf' | 'svg',
  [part, ...more]: readonly string[],
  grown: number,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
): Promise<Uint8Array> {
  if (more.length > 0) throw new CliError('An outline is of one part; say of which with --part.');
  const { bodies } = await evaluator.evaluate(design, Ledger.of(design), part!);
  const flat = bodies.flatMap((body) =>
    body.facts.faces.flatMap((f, index) => (f.normal ? [{ body, index, area: f.area }] : [])),
  );
  const [largest] = flat.sort((a, b) => b.area - a.area);
  if (!largest) throw new CliError(`${design.parts[part!]!.name} has no flat face to take the outline of.`);
  const face = refOfFace(largest.body, largest.index, bodies);
  const { bytes, closed, free } = await exportFace(design, part!, face, format, grown, null, evaluator, kernel);
  if (closed > 0) console.error(`Holes narrower than the cut, and missing in the drawing: ${closed}.`);
  if (free > 0) console.error(`Free curves drawn through places on them, not exactly: ${free}.`);
  return bytes;
}
