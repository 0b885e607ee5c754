/** Solving a sketch: where everything goes, what is still loose, what disagrees. */
import { BUILT_IN, pointsOf, type SketchGeometry } from './schema.ts';
import type { Equation } from './solver/equation.ts';
import { GaussNewton } from './solver/gauss-newton.ts';
import { splitGroups, type Split } from './solver/groups.ts';
import { rankOf } from './solver/rank.ts';
import { buildSystem, ConstraintMisfit, readGeometry, type System } from './system.ts';

/** Residuals below this share of the sketch's size count as met. */
const RELATIVE_TOLERANCE = 1e-10;
/** Size, mm, below which a sketch is treated as this large. */
const LEAST_SIZE = 1;

export interface SketchSolution {
  /** The sketch with solved positions; as it was where it clashes. */
  readonly geometry: SketchGeometry;
  readonly solved: boolean;
  /** Independent motions left. */
  readonly freedoms: number;
  /** Points and curves that can still move. */
  readonly loose: ReadonlySet<string>;
  /** Constraints that say what others already say. */
  readonly redundant: readonly string[];
  /** A smallest set of constraints that cannot all hold; empty when solved. */
  readonly clash: readonly string[];
  /** Why a constraint cannot be applied at all, with its id. */
  readonly misfit: { readonly constraint: string; readonly message: string } | null;
  readonly iterations: number;
  /** Largest residual, mm. */
  readonly residual: number;
}

/** Extent of the drawn points, mm; the yardstick for tolerances. */
export function sketchSize(sketch: SketchGeometry): number {
  let size = LEAST_SIZE;
  for (const [x, y] of Object.values(sketch.points)) size = Math.max(size, Math.abs(x), Math.abs(y));
  for (const c of Object.values(sketch.curves)) if (c.kind === 'circle') size = Math.max(size, c.radius);
  return size;
}

/** Settle the equations of `system` in place; false if some cannot be met. */
function settle(
  system: System,
  tolerance: number,
): { ok: boolean; iterations: number; residual: number; split: Split } {
  const split = splitGroups(system);
  let iterations = 0;
  let residual = 0;
  let failed = false;
  for (const group of split.groups) {
    const summary = new GaussNewton(group.rows, group.slots).solve(system.values, tolerance);
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
  return { ok: !failed && system.clashing.length === 0, iterations, residual, split };
}

/** Solved positions alone, or null when they cannot be found: for when nobody asks what is still loose. */
export function solvePositions(sketch: SketchGeometry, dimension: (id: string) => number): SketchGeometry | null {
  try {
    const system = buildSystem(sketch, dimension);
    return settle(system, RELATIVE_TOLERANCE * sketchSize(sketch)).ok ? readGeometry(sketch, system) : null;
  } catch (error) {
    if (error instanceof ConstraintMisfit) return null;
    throw error;
  }
}

/**
 * Solve from the positions in `sketch`, moving as little as needed.
 * @param dimension value of each dimension constraint by id, mm or rad
 */
export function solveSketch(sketch: SketchGeometry, dimension: (id: string) => number): SketchSolution {
  const tolerance = RELATIVE_TOLERANCE * sketchSize(sketch);
  let system: System;
  try {
    system = buildSystem(sketch, dimension);
  } catch (error) {
    if (error instanceof ConstraintMisfit) return unsolved(sketch, { misfit: misfitOf(sketch, dimension, error) });
    throw error;
  }
  const outcome = settle(system, tolerance);
  if (!outcome.ok) {
    return unsolved(sketch, {
      clash: smallestClash(sketch, dimension, tolerance),
      iterations: outcome.iterations,
      residual: outcome.residual,
    });
  }
  const { freedoms, movingSlots, redundant } = freedomsOf(outcome.split);
  const saysNothing = new Set([...system.redundant, ...wholly(system, [...redundant, ...outcome.split.without])]);
  return {
    geometry: readGeometry(sketch, system),
    solved: true,
    freedoms,
    loose: looseEntities(sketch, system, movingSlots),
    redundant: Object.keys(sketch.constraints).filter((id) => saysNothing.has(id)),
    clash: [],
    misfit: null,
    iterations: outcome.iterations,
    residual: outcome.residual,
  };
}

function unsolved(sketch: SketchGeometry, found: Partial<SketchSolution>): SketchSolution {
  return {
    geometry: sketch,
    solved: false,
    freedoms: 0,
    loose: new Set(),
    redundant: [],
    clash: [],
    misfit: null,
    iterations: 0,
    residual: Infinity,
    ...found,
  };
}

/** Owners all of whose equations are among `dependent`: one of several may well follow from the rest. */
function wholly(system: System, dependent: readonly Equation[]): string[] {
  const count = (equations: readonly Equation[]) => {
    const byOwner = new Map<string, number>();
    for (const { owner } of equations) byOwner.set(owner, (byOwner.get(owner) ?? 0) + 1);
    return byOwner;
  };
  const all = count(system.equations);
  return [...count(dependent)].flatMap(([owner, n]) => (n === all.get(owner) ? [owner] : []));
}

function freedomsOf(split: Split): { freedoms: number; movingSlots: Set<number>; redundant: Equation[] } {
  let freedoms = split.idle.length;
  const movingSlots = new Set(split.idle);
  const redundant: Equation[] = [];
  for (const { rows, slots } of split.groups) {
    const rank = rankOf(rows);
    freedoms += rank.freedoms;
    rank.moves.forEach((moves, i) => moves && movingSlots.add(slots[i]!));
    for (const d of rank.dependent) redundant.push(rows.equations[d.equation]!);
  }
  return { freedoms, movingSlots, redundant };
}

function looseEntities(sketch: SketchGeometry, system: System, moving: ReadonlySet<number>): Set<string> {
  const loose = new Set<string>();
  const moves = (id: string) => {
    const p = system.points.get(id)!;
    return moving.has(p.x) || moving.has(p.y);
  };
  for (const id of Object.keys(sketch.points)) if (id !== BUILT_IN.origin && moves(id)) loose.add(id);
  for (const [id, curve] of Object.entries(sketch.curves)) {
    const size = system.rounds.get(id)?.radius ?? system.ellipses.get(id)?.minor;
    if ((size !== undefined && moving.has(size)) || pointsOf(curve).some(moves)) loose.add(id);
  }
  return loose;
}

/**
 * A smallest set of constraints that cannot all hold: leave out one after the
 * other, and keep out those without which the rest still disagrees.
 */
function smallestClash(sketch: SketchGeometry, dimension: (id: string) => number, tolerance: number): string[] {
  const holds = (skip: ReadonlySet<string>) => settle(buildSystem(sketch, dimension, skip), tolerance).ok;
  const all = Object.keys(sketch.constraints);
  const out = new Set<string>();
  // Leave out large shares first, so that a big sketch takes few solves.
  const tryWithout = (ids: readonly string[]): void => {
    if (ids.length === 0) return;
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

function misfitOf(
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
