/** Bringing a system's equations to nothing, group by group. */
import type { SketchGeometry } from './schema.ts';
import { GaussNewton, type SolveSummary } from './solver/gauss-newton.ts';
import { splitGroups, type Group, type Split } from './solver/groups.ts';
import type { System } from './system.ts';

/** Residuals below this share of the sketch's size count as met. */
export const RELATIVE_TOLERANCE = 1e-10;
/** Size, mm, below which a sketch is treated as this large. */
const LEAST_SIZE = 1;

/** Extent of the drawn points, mm; the yardstick for tolerances. */
export function sketchSize(sketch: SketchGeometry): number {
  let size = LEAST_SIZE;
  for (const [x, y] of Object.values(sketch.points)) size = Math.max(size, Math.abs(x), Math.abs(y));
  for (const c of Object.values(sketch.curves)) if (c.kind === 'circle') size = Math.max(size, c.radius);
  return size;
}

/** How far a stuck group is shaken, as shares of its extent. */
const SHAKES = [0.003, 0.05];

/**
 * Solve one group. A drawing may stand exactly where an equation has no slope
 * (a line level that must slant): shaken a little, it may find its way.
 */
function solveGroup(group: Group, values: Float64Array, tolerance: number): SolveSummary {
  const { slots, rows } = group;
  const start = slots.map((s) => values[s]!);
  const solver = new GaussNewton(rows, slots);
  const first = solver.solve(values, tolerance);
  if (first.converged) return first;
  const stuck = slots.map((s) => values[s]!);
  const extent = Math.max(LEAST_SIZE, Math.max(...start) - Math.min(...start));
  for (const share of SHAKES) {
    slots.forEach((s, i) => (values[s] = start[i]! + share * extent * Math.sin(12.9898 * (i + 1))));
    const again = solver.solve(values, tolerance);
    if (again.converged) return again;
  }
  slots.forEach((s, i) => (values[s] = stuck[i]!));
  return first;
}

/** Settle the equations of `system` in place; false if some cannot be met. */
export function settle(
  system: System,
  tolerance: number,
): { ok: boolean; iterations: number; residual: number; split: Split } {
  const split = splitGroups(system);
  let iterations = 0;
  let residual = 0;
  let failed = false;
  for (const group of split.groups) {
    const summary = solveGroup(group, system.values, tolerance);
    iterations = Math.max(iterations, summary.iterations);
    residual = Math.max(residual, summary.residual);
    failed ||= !summary.converged;
  }
  const gradient = new Float64Array(Math.max(1, ...split.without.map((e) => e.slots.length)));
  for (const e of split.without) {
    const r = Math.abs(e.evaluate(system.values, gradient));
    residual = Math.max(residual, r);
    failed ||= !(r <= tolerance);
  }
  // A radius that came out below nothing met the equations, but is no circle.
  for (const { radius } of system.rounds.values()) failed ||= system.values[radius]! < -tolerance;
  for (const { minor } of system.ellipses.values()) failed ||= system.values[minor]! < -tolerance;
  return { ok: !failed && system.clashing.length === 0, iterations, residual, split };
}
