/** Parts as a file of exact solids or of triangles. */
import { colorOf } from '../document/part-colors.ts';
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { asMade } from '../evaluation/as-made.ts';
import type { PartEvaluator } from '../evaluation/evaluate.ts';
import type { PartOutcome } from '../part/outcome.ts';
import type { MeshQuality, SolidKernel } from '../solid/kernel.ts';
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
    const failed = outcome.steps.find((s) => s.status === 'failed');
    if (failed) {
      const { name, steps } = design.parts[id]!;
      throw new ExportFailure(
        `${name} has a step that fails (${steps[failed.id]!.name}: ${failed.message}); mend it before exporting.`,
      );
    }
    if (outcome.bodies.length > 0) outcomes.push(outcome);
  }
  if (outcomes.length === 0) throw new ExportFailure('There is no solid to export yet; extrude something first.');
  const lookOf = ({ part }: PartOutcome) => {
    const { name, opacity = 1 } = design.parts[part]!;
    return { name, color: colorOf(design, part), opacity };
  };
  if (format === 'step')
    return kernel.exportStep(outcomes.map((o) => ({ ...lookOf(o), solids: o.bodies.map((b) => b.solid) })));
  const meshes = outcomes.map((o) => o.bodies.map((b) => kernel.mesh(b.solid, PRINT_QUALITY)));
  if (format === 'stl') return writeStl(meshes.flat(), design.name);
  const named = outcomes.map((o, i) => ({ ...lookOf(o), meshes: meshes[i]! }));
  return format === 'glb' ? writeGltf(named, design.name) : write3mf(named, design.name);
}
