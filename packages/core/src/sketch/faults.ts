/** What a sketch's schema alone cannot say: that its ids meet. */
import { BUILT_IN, PATTERN_DIMENSIONS, pointsOf, type SketchGeometry } from './schema.ts';

/** Faults as sentences that begin with `where`; empty when all is sound. */
export function faultsOf(sketch: SketchGeometry, where: string): string[] {
  const faults: string[] = [];
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
  return faults;
}
