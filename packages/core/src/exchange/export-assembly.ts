/** An assembly as one file: each part where it stands at home, as it will be made. */
import { colorOf } from '../document/part-colors.ts';
import type { Design } from '../document/schema.ts';
import { evaluateAsMade } from '../evaluation/as-made.ts';
import type { PartEvaluator } from '../evaluation/evaluate.ts';
import { standTogether } from '../evaluation/stand-together.ts';
import type { Body } from '../names/body.ts';
import type { SolidHandle, SolidKernel } from '../solid/kernel.ts';
import { poseWithin, transformOf } from '../space/pose.ts';
import { ExportFailure } from './export-failure.ts';
import { refuseFailed, writeSolids, type SolidFormat } from './export-parts.ts';

/** @throws ExportFailure when a step fails, a joint is not met, or nothing stands in it */
export async function exportAssembly(
  design: Design,
  assembly: string,
  format: SolidFormat,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
): Promise<Uint8Array> {
  const own = design.assemblies?.[assembly];
  if (!own) throw new ExportFailure('This assembly is not there any more.');
  const { it } = await standTogether(design, assembly, evaluator);
  const made = new Map<string, readonly Body[]>();
  for (const part of new Set(it.members.map((m) => m.part))) {
    const { outcome } = await evaluateAsMade(design, part, evaluator);
    refuseFailed(design, outcome);
    made.set(part, outcome.bodies);
  }
  const fault = it.faults[0] ?? it.joints.flatMap((j) => (j.fault === null ? [] : [`${j.joint.name}: ${j.fault}`]))[0];
  if (fault !== undefined) throw new ExportFailure(`${own.name} does not stand as drawn (${fault}); mend it before exporting.`); // prettier-ignore
  if (!it.closed) throw new ExportFailure(`The joints of ${own.name} cannot all be met; mend them before exporting.`);
  const placed: SolidHandle[] = [];
  try {
    const items = it.members.flatMap(({ part, name, link, within }) => {
      const to = transformOf(poseWithin(it.home.poses[link]!, within));
      const solids = made.get(part)!.map((body) => kernel.placed(body.solid, to).solid);
      placed.push(...solids);
      const { opacity = 1 } = design.parts[part]!;
      return solids.length > 0 ? [{ name, color: colorOf(design, part), opacity, solids }] : [];
    });
    if (items.length === 0)
      throw new ExportFailure(`Nothing solid stands in ${own.name} yet; place a part in it first.`);
    return await writeSolids(items, format, own.name, kernel);
  } finally {
    for (const solid of placed) kernel.free(solid);
  }
}
