/** Which constraints disagree: the smallest set of them. */
import { pointsOf, type SketchGeometry } from './schema.ts';
import { neighbourhoods, only } from './near.ts';
import { settle, type Settled } from './settle.ts';
import { ConstraintMisfit } from './constraints/misfit.ts';
import { buildSystem, type System } from './system.ts';

/** Solves times constraints spent on looking for the smallest set; a huge sketch may get a larger one. */
const MOST_WORK = 400_000;
/** Share of the largest residual below which a constraint takes no part in the disagreement. */
const NO_PART = 1e-4;

/**
 * A smallest set of constraints that cannot all hold: leave out one after the
 * other, and keep out those without which the rest still disagrees.
 * @param tried the attempt to solve them all, which failed
 */
export function smallestClash(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
  tolerance: number,
  tried?: Settled & { readonly system: System },
): string[] {
  const all = Object.keys(sketch.constraints);
  let budget = MOST_WORK / Math.max(all.length, 1);
  const out = new Set<string>();
  let asked = sketch;
  const holds = (skip: ReadonlySet<string>) => {
    budget--;
    return settle(buildSystem(asked, dimension, skip), tolerance).ok;
  };
  const disagreeAlone = (some: ReadonlySet<string>): boolean => {
    asked = only(sketch, some);
    const rest = new Set(all.filter((id) => !some.has(id)));
    if (!holds(rest)) {
      for (const id of rest) out.add(id);
      return true;
    }
    // What disagrees by bringing something else to nothing shows in the whole sketch alone.
    asked = sketch;
    return false;
  };
  // Mostly what was changed last disagrees with what is near it; else, where the attempt came to rest, only what
  // disagrees is unmet.
  const near = neighbourhoods(sketch, dimension);
  if (!near.some(disagreeAlone) && tried) {
    const suspects = suspectsIn(sketch, tried);
    const own = new Set(all.filter((id) => suspects.has(id)));
    if (own.size < all.length) disagreeAlone(own);
  }
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
  tryWithout(all.filter((id) => !out.has(id)));
  return all.filter((id) => !out.has(id));
}

/**
 * Constraints that may take part: those with something left to meet where the
 * attempt came to rest (for a least-squares minimum, exactly those of the
 * contradiction: the residual is a combination of dependent rows), and those
 * that made unknowns one or pinned them beneath these, which have no residual.
 */
function suspectsIn(sketch: SketchGeometry, { system, split }: Settled & { readonly system: System }): Set<string> {
  const suspects = new Set(system.clashing);
  const touched = new Set<number>();
  const gradient = new Float64Array(system.equations.reduce((most, e) => Math.max(most, e.slots.length), 1));
  const left = system.equations.map((e) => Math.abs(e.evaluate(system.values, gradient)));
  const most = left.reduce((a, b) => Math.max(a, b), 0);
  system.equations.forEach((e, i) => {
    if (!(left[i]! > NO_PART * most)) return;
    suspects.add(e.owner);
    for (const slot of e.slots) touched.add(slot);
  });
  const withEquations = new Set([...system.equations, ...split.without].map((e) => e.owner));
  const slotsOf = (id: string): number[] => {
    const curve = sketch.curves[id];
    const points = curve ? pointsOf(curve) : [id];
    const size = system.rounds.get(id)?.radius ?? system.ellipses.get(id)?.minor;
    return [...points.flatMap((p) => [system.points.get(p)?.x ?? -1, system.points.get(p)?.y ?? -1]), size ?? -1];
  };
  const clashing = new Set(system.clashing.flatMap((id) => sketch.constraints[id]!.of.flatMap(slotsOf)));
  for (const [id, c] of Object.entries(sketch.constraints)) {
    if (withEquations.has(id) || suspects.has(id)) continue;
    if (c.of.flatMap(slotsOf).some((s) => touched.has(s) || clashing.has(s))) suspects.add(id);
  }
  return suspects;
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
