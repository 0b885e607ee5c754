/** Bringing a system's equations to nothing, group by group. */
import type { SketchGeometry } from './schema.ts';
import { turnedOver } from './outlines.ts';
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
  for (const id in sketch.points) {
    const [x, y] = sketch.points[id]!;
    size = Math.max(size, Math.abs(x), Math.abs(y));
  }
  for (const id in sketch.curves) {
    const c = sketch.curves[id]!;
    if (c.kind === 'circle') size = Math.max(size, c.radius);
  }
  return size;
}

/** Damping of a gentle start, against equations of unit slope. */
const GENTLE_DAMPING = 1;
/** How far a stuck group is shaken, as shares of its extent. */
const SHAKES = [0.003, 0.05];

/** `gently` goes the first part of the way in small steps: slower, and for a drawing far off surer; `once` is not shaken. */
export type Way = 'as usual' | 'gently' | 'once';

/**
 * Solve one group. A drawing may stand exactly where an equation has no slope
 * (a line level that must slant): shaken a little, it may find its way.
 */
function solveGroup(
  group: Group,
  solver: GaussNewton,
  values: Float64Array,
  tolerance: number,
  way: Way,
): SolveSummary {
  const { slots } = group;
  const start = slots.map((s) => values[s]!);
  if (way === 'gently') solver.solve(values, tolerance, undefined, GENTLE_DAMPING);
  const first = solver.solve(values, tolerance);
  if (first.converged || way === 'once') return first;
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

/** Shares of the sketch's size: what was larger than the first must not end smaller than the second. */
const [SOMETHING, NOTHING] = [1e-6, 1e-8];

/**
 * Did a line, circle or arc that was drawn with a size come to nothing? That meets many equations, and is never meant.
 * @param size of the sketch, mm
 * @param nothing share of it that counts as nothing
 */
export function collapsed({ lines, rounds, drawn, values: v }: System, size: number, nothing = NOTHING): boolean {
  const at = (point: string) => drawn.points[point] ?? ([0, 0] as const);
  const apart = (p: string, q: string) => {
    const [a, b] = [at(p), at(q)];
    return Math.hypot(b[0] - a[0], b[1] - a[1]);
  };
  for (const [id, { from, to }] of lines) {
    if (Math.hypot(v[to.x]! - v[from.x]!, v[to.y]! - v[from.y]!) >= nothing * size) continue;
    const curve = drawn.curves[id];
    if ((curve?.kind === 'line' || curve?.kind === 'text') && apart(curve.from, curve.to) > SOMETHING * size)
      return true;
  }
  for (const [id, { radius }] of rounds) {
    if (v[radius]! >= nothing * size) continue;
    const curve = drawn.curves[id];
    if (curve?.kind === 'circle' && curve.radius > SOMETHING * size) return true;
    if (curve?.kind === 'arc' && apart(curve.center, curve.from) > SOMETHING * size) return true;
  }
  return false;
}

export interface Settled {
  readonly ok: boolean;
  readonly iterations: number;
  /** Largest residual left, mm. */
  readonly residual: number;
  readonly split: Split;
  /** The solver of each group. */
  readonly solvers: readonly GaussNewton[];
  /** Groups whose equations could not be met. */
  readonly stuck: readonly Group[];
}

/** Settle the equations of `system` in place. */
export function settle(system: System, tolerance: number, way: Way = 'as usual'): Settled {
  const stuck: Group[] = [];
  const split = splitGroups(system);
  // A radius that came out below nothing met the equations, but is no circle.
  const sizes = new Set([...system.rounds.values()].map((r) => r.radius));
  for (const { minor } of system.ellipses.values()) sizes.add(minor);
  const real = ({ slots }: Group) => slots.every((s) => !sizes.has(s) || system.values[s]! >= -tolerance);
  let iterations = 0;
  let residual = 0;
  let failed = false;
  const solvers = split.groups.map(({ rows, slots }) => new GaussNewton(rows, slots));
  for (const [i, group] of split.groups.entries()) {
    const summary = solveGroup(group, solvers[i]!, system.values, tolerance, way);
    iterations = Math.max(iterations, summary.iterations);
    residual = Math.max(residual, summary.residual);
    if (!summary.converged || !real(group)) stuck.push(group);
  }
  const gradient = new Float64Array(Math.max(1, ...split.without.map((e) => e.slots.length)));
  for (const e of split.without) {
    const r = Math.abs(e.evaluate(system.values, gradient));
    residual = Math.max(residual, r);
    failed ||= !(r <= tolerance);
  }
  const size = tolerance / RELATIVE_TOLERANCE;
  const met = stuck.length === 0 && !failed && system.clashing.length === 0;
  const ok = met && !collapsed(system, size) && !turnedOver(system, size);
  return { ok, iterations, residual, split, solvers, stuck };
}
