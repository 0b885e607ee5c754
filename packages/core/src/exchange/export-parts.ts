/** Parts as a file of exact solids or of triangles. */
import { colorOf } from '../document/part-colors.ts';
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { asMade } from '../evaluation/as-made.ts';
import type { PartEvaluator } from '../evaluation/evaluate.ts';
import type { PartOutcome } from '../part/outcome.ts';
import type { MeshQuality, SolidKernel, StepPart } from '../solid/kernel.ts';
import { ExportFailure } from './export-failure.ts';
import { writeStl } from './stl.ts';
import { write3mf } from './write-3mf.ts';
import { writeGltf } from './write-gltf.ts';

export type SolidFormat = 'step' | 'stl' | '3mf' | 'glb';

/** Fine enough that a printed round looks round: 0.05 mm off, 10° a facet. */
const PRINT_QUALITY: MeshQuality = { linear: 0.05, angular: 10 * (Math.PI / 180) };

/** Parts as they will be made, with their allowances. @throws ExportFailure when a step fails or nothing is solid */
export async function exportParts(
  design: Design,
  format: SolidFormat,
  parts: readonly string[],
  evaluator: PartEvaluator,
  kernel: SolidKernel,
): Promise<Uint8Array> {
  const outcomes: PartOutcome[] = [];
  for (const id of parts) {
    const own = asMade(design, id);
    const outcome = await evaluator.evaluate(own, Ledger.of(own), id);
    refuseFailed(design, outcome);
    if (outcome.bodies.length > 0) outcomes.push(outcome);
  }
  if (outcomes.length === 0) throw new ExportFailure('There is no solid to export yet; extrude something first.');
  const items = outcomes.map(({ part, bodies }) => {
    const { name, opacity = 1 } = design.parts[part]!;
    return { name, color: colorOf(design, part), opacity, solids: bodies.map((b) => b.solid) };
  });
  return writeSolids(items, format, design.name, kernel);
}

/** @throws ExportFailure when a step of the part fails */
export function refuseFailed(design: Design, { part, steps: outcomes }: PartOutcome): void {
  const failed = outcomes.find((s) => s.status === 'failed');
  if (!failed) return;
  const { name, steps } = design.parts[part]!;
  throw new ExportFailure(
    `${name} has a step that fails (${steps[failed.id]!.name}: ${failed.message}); mend it before exporting.`,
  );
}

/** Solids by name and colour as a file; nothing of them is let go of. */
export async function writeSolids(
  items: readonly StepPart[],
  format: SolidFormat,
  title: string,
  kernel: SolidKernel,
): Promise<Uint8Array> {
  if (format === 'step') return kernel.exportStep(items);
  const meshed = items.map(({ solids, ...look }) => ({ ...look, meshes: solids.map((s) => kernel.mesh(s, PRINT_QUALITY)) })); // prettier-ignore
  if (format === 'stl') return writeStl(meshed.flatMap((m) => m.meshes), title); // prettier-ignore
  return format === 'glb' ? writeGltf(meshed, title) : write3mf(meshed, title);
}
