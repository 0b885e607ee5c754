/** What the schema alone cannot say: that ids meet their maps, and are unique where expressions need it. */
import { BUILT_IN, PATTERN_DIMENSIONS, pointsOf, type SketchGeometry } from '../sketch/schema.ts';
import type { Design, Part } from './schema.ts';

/** Faults as sentences; empty when the design is sound. */
export function checkConsistency(design: Design): string[] {
  const faults: string[] = [];
  checkOrder(design.dimensionOrder, design.dimensions, 'dimensionOrder', faults);
  checkOrder(design.partOrder, design.parts, 'partOrder', faults);
  if (design.shared) checkOrder(design.shared.dimensionOrder, design.shared.dimensions, 'shared', faults);
  if (design.variants) checkOrder(design.variants.order, design.variants.rows, 'variants', faults);
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
  for (const [id, step] of Object.entries(part.steps)) {
    if (step.kind === 'sketch') checkSketch(step, `step “${step.name}”`, faults);
    else if (part.steps[step.sketch]?.kind !== 'sketch') {
      // A deleted sketch is reported by the step itself when it is evaluated, not refused here.
      if (step.sketch === id) faults.push(`step “${step.name}” takes itself as its sketch.`);
    }
  }
}

function checkSketch(sketch: SketchGeometry, where: string, faults: string[]): void {
  const builtIn = new Set<string>(Object.values(BUILT_IN));
  for (const id of [...Object.keys(sketch.points), ...Object.keys(sketch.curves)]) {
    if (builtIn.has(id)) faults.push(`${where} uses the built-in id “${id}”.`);
  }
  for (const id of Object.keys(sketch.curves)) {
    if (Object.hasOwn(sketch.points, id)) faults.push(`${where} has a point and a curve both called “${id}”.`);
  }
  for (const [id, curve] of Object.entries(sketch.curves)) {
    for (const point of pointsOf(curve)) {
      if (!Object.hasOwn(sketch.points, point) && point !== BUILT_IN.origin) {
        faults.push(`${where}: curve “${id}” uses point “${point}”, which does not exist.`);
      }
    }
  }
  const exists = (id: string) =>
    Object.hasOwn(sketch.points, id) || Object.hasOwn(sketch.curves, id) || builtIn.has(id);
  for (const [id, constraint] of Object.entries(sketch.constraints)) {
    const onPattern = PATTERN_DIMENSIONS.has(constraint.kind);
    for (const entity of constraint.of) {
      if (onPattern ? !Object.hasOwn(sketch.patterns ?? {}, entity) : !exists(entity)) {
        faults.push(`${where}: constraint “${id}” is on “${entity}”, which does not exist.`);
      }
    }
  }
  for (const [id, pattern] of Object.entries(sketch.patterns ?? {})) {
    for (const entity of [...pattern.of, pattern.kind === 'linear' ? pattern.along : pattern.around])
      if (!exists(entity)) faults.push(`${where}: pattern “${id}” is of “${entity}”, which does not exist.`);
  }
  for (const [id, { of }] of Object.entries(sketch.borrowed ?? {}))
    for (const entity of of)
      if (!exists(entity)) faults.push(`${where}: “${id}” borrows “${entity}”, which does not exist.`);
}
