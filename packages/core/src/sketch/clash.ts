/** Which constraints disagree: the smallest set of them. */
import type { SketchGeometry } from './schema.ts';
import { settle } from './settle.ts';
import { ConstraintMisfit } from './constraints/misfit.ts';
import { buildSystem } from './system.ts';

/** Solves times constraints spent on looking for the smallest set; a huge sketch may get a larger one. */
const MOST_WORK = 400_000;

/**
 * A smallest set of constraints that cannot all hold: leave out one after the
 * other, and keep out those without which the rest still disagrees.
 */
export function smallestClash(sketch: SketchGeometry, dimension: (id: string) => number, tolerance: number): string[] {
  const all = Object.keys(sketch.constraints);
  let budget = MOST_WORK / Math.max(all.length, 1);
  const holds = (skip: ReadonlySet<string>) => {
    budget--;
    return settle(buildSystem(sketch, dimension, skip), tolerance).ok;
  };
  const out = new Set<string>();
  // Leave out large shares first, so that a big sketch takes few solves.
  const tryWithout = (ids: readonly string[]): void => {
    if (ids.length === 0 || budget <= 0) return;
    const skip = new Set([...out, ...ids]);
    if (!holds(skip)) {
      for (const id of ids) out.add(id);
      return;
    }
    if (ids.length === 1) return;
    const half = ids.length >> 1;
    tryWithout(ids.slice(0, half));
    tryWithout(ids.slice(half));
  };
  tryWithout(all);
  return all.filter((id) => !out.has(id));
}

export function misfitOf(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
  error: ConstraintMisfit,
): { constraint: string; message: string } {
  for (const id of Object.keys(sketch.constraints)) {
    try {
      buildSystem({ ...sketch, constraints: { [id]: sketch.constraints[id]! } }, dimension);
    } catch (again) {
      if (again instanceof ConstraintMisfit) return { constraint: id, message: again.message };
      throw again;
    }
  }
  return { constraint: '', message: error.message };
}
