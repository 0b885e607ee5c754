/** What the schema alone cannot say: that ids meet their maps, and are unique where expressions need it. */
import { faultsOfStep } from '../steps/slots-of.ts';
import type { Design, Part } from './schema.ts';

/** Faults as sentences; empty when the design is sound. */
export function checkConsistency(design: Design): string[] {
  const faults: string[] = [];
  checkOrder(design.dimensionOrder, design.dimensions, 'dimensionOrder', faults);
  checkOrder(design.partOrder, design.parts, 'partOrder', faults);
  if (design.shared) checkOrder(design.shared.dimensionOrder, design.shared.dimensions, 'shared', faults);
  if (design.variants) checkOrder(design.variants.order, design.variants.rows, 'variants', faults);
  if (design.requirements) checkOrder(design.requirements.order, design.requirements.rows, 'requirements', faults);
  const seen = new Map<string, string>();
  const claim = (id: string, where: string) => {
    const before = seen.get(id);
    if (before) faults.push(`the id “${id}” is used twice, in ${before} and in ${where}.`);
    else seen.set(id, where);
  };
  for (const id of Object.keys(design.dimensions)) claim(id, 'dimensions');
  for (const [partId, part] of Object.entries(design.parts)) {
    const where = `part “${part.name}”`;
    for (const id of [...Object.keys(part.dimensions), ...Object.keys(part.steps)]) claim(id, where);
    checkPart(partId, part, faults);
  }
  return faults;
}

function checkOrder(
  order: readonly string[],
  map: Readonly<Record<string, unknown>>,
  where: string,
  faults: string[],
): void {
  const listed = new Set(order);
  if (listed.size !== order.length) faults.push(`${where} lists an id twice.`);
  for (const id of listed) if (!Object.hasOwn(map, id)) faults.push(`${where} lists “${id}”, which does not exist.`);
  for (const id of Object.keys(map)) if (!listed.has(id)) faults.push(`${where} does not list “${id}”.`);
}

function checkPart(partId: string, part: Part, faults: string[]): void {
  checkOrder(part.dimensionOrder, part.dimensions, `parts › ${partId} › dimensionOrder`, faults);
  checkOrder(part.stepOrder, part.steps, `parts › ${partId} › stepOrder`, faults);
  for (const [id, step] of Object.entries(part.steps)) faults.push(...faultsOfStep(id, step));
}
