import { PATTERN_DIMENSIONS, pointsOf, type SketchGeometry } from '../schema.ts';
import { memberOf } from '../pattern/equations.ts';

/**
 * Take entities, patterns and constraints out of a sketch, with the curves built on them,
 * the points nothing else uses, and the constraints that would dangle. A pattern goes with
 * its members when the last of its originals or what it runs along goes, or its count.
 * @returns ids of the constraints that went along
 */
export function removeFromSketch(sketch: SketchGeometry, ids: readonly string[]): string[] {
  const gone = new Set(ids);
  const endpoints = new Set<string>();
  takePatterns(sketch, gone);
  for (const [id, curve] of Object.entries(sketch.curves)) {
    const points = pointsOf(curve);
    if (!gone.has(id) && !points.some((p) => gone.has(p))) continue;
    gone.add(id);
    delete sketch.curves[id];
    for (const p of points) endpoints.add(p);
  }
  for (const curve of Object.values(sketch.curves)) for (const p of pointsOf(curve)) endpoints.delete(p);
  for (const p of endpoints) gone.add(p);
  for (const id of gone) delete sketch.points[id];
  for (const [id, pattern] of Object.entries(sketch.patterns ?? {})) {
    pattern.of = pattern.of.filter((e) => !gone.has(e));
    if (pattern.of.length === 0) delete sketch.patterns![id];
  }
  for (const [id, borrowed] of Object.entries(sketch.borrowed ?? {})) {
    borrowed.of = borrowed.of.filter((e) => !gone.has(e));
    if (borrowed.of.length === 0) delete sketch.borrowed![id];
  }
  const dangling: string[] = [];
  for (const [id, constraint] of Object.entries(sketch.constraints)) {
    const onLostPattern =
      PATTERN_DIMENSIONS.has(constraint.kind) && !Object.hasOwn(sketch.patterns ?? {}, constraint.of[0]!);
    if (!gone.has(id) && !onLostPattern && !constraint.of.some((e) => gone.has(e))) continue;
    delete sketch.constraints[id];
    if (!gone.has(id)) dangling.push(id);
  }
  return dangling;
}

/** Patterns that cannot go on, and the members of originals that go. */
function takePatterns(sketch: SketchGeometry, gone: Set<string>): void {
  const patterns = sketch.patterns ?? {};
  // Members of a pattern that goes are still known by it.
  const known = { ...patterns };
  const counts = Object.entries(sketch.constraints).flatMap(([id, c]) =>
    c.kind === 'count' && gone.has(id) ? c.of : [],
  );
  for (const [id, pattern] of Object.entries(patterns)) {
    const support = pattern.kind === 'linear' ? pattern.along : pattern.around;
    if (gone.has(id) || gone.has(support) || counts.includes(id) || pattern.of.every((e) => gone.has(e))) {
      delete patterns[id];
      gone.add(id);
    }
  }
  for (const e of [...Object.keys(sketch.points), ...Object.keys(sketch.curves)]) {
    const member = memberOf(e, known);
    if (member && (gone.has(member.pattern) || gone.has(member.original))) gone.add(e);
  }
}
