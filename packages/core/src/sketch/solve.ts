/** Solving a sketch: where everything goes, what is still loose, what disagrees. */
import { wrap } from './equations/direction.ts';
import { quantityOf } from './dimension-names.ts';
import { measureDimension } from './edit/measure.ts';
import { BUILT_IN, isDimension, pointsOf, type SketchGeometry } from './schema.ts';
import { Senses } from './senses.ts';
import type { Equation } from './solver/equation.ts';
import { misfitOf, smallestClash } from './clash.ts';
import { shakeLoose } from './shake.ts';
import { isLeft } from './left-unsolved.ts';
import { neighbourhoods, only } from './near.ts';
import { RELATIVE_TOLERANCE, settle, sketchSize, type Settled, type Way } from './settle.ts';
import { rankOf } from './solver/rank.ts';
import { ConstraintMisfit } from './constraints/misfit.ts';
import { buildSystem, readGeometry, type System } from './system.ts';

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

/** Finest way a large change of dimensions is cut into steps; in a very large sketch so many times its constraints. */
const [MOST_STEPS, MOST_WORK] = [64, 20_000];

interface Reached extends Settled {
  readonly sketch: SketchGeometry;
  readonly system: System;
}

function reachIn(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
  tolerance: number,
  way: Way = 'as usual',
  drawn = sketch,
): Reached {
  const system = buildSystem(sketch, dimension, undefined, drawn);
  return { sketch, system, ...settle(system, tolerance, way) };
}

function flips(sketch: SketchGeometry, { system, ok }: Reached): boolean {
  if (!ok) return true;
  const senses = new Senses(sketch, system);
  return senses.flipped(senses.read(drawnValues(sketch, system)), senses.read(system.values));
}

/** Values as drawn, in the slots of a system. */
function drawnValues(sketch: SketchGeometry, system: System): Float64Array {
  const v = system.values.slice();
  for (const [id, p] of system.points) {
    const drawn = sketch.points[id];
    if (drawn) [v[p.x], v[p.y]] = drawn;
  }
  for (const [id, { radius }] of system.rounds) {
    const c = sketch.curves[id];
    if (c?.kind === 'circle') v[radius] = c.radius;
  }
  return v;
}

/**
 * Solve at once where that flips nothing; else bring the dimensions from what
 * they now read to what they shall be in ever finer steps, each from the last.
 */
function reach(sketch: SketchGeometry, dimension: (id: string) => number): Reached {
  const tolerance = RELATIVE_TOLERANCE * sketchSize(sketch);
  const once = reachIn(sketch, dimension, tolerance, 'once');
  if (!once.ok && disagreesNearby(sketch, dimension)) return once;
  const direct = once.ok ? once : reachIn(sketch, dimension, tolerance);
  if (direct.system.clashing.length > 0 || !flips(sketch, direct)) return direct;
  const now = presentReadings(sketch, dimension);
  const most = Math.min(MOST_STEPS, Math.max(4, MOST_WORK / Object.keys(sketch.constraints).length));
  for (let steps = 4; now.size > 0 && steps <= most; steps *= 4) {
    const stepped = walk(sketch, dimension, now, steps, tolerance);
    if (stepped) return stepped;
  }
  // From a drawing that held until a number changed, a way that steps do not find would be a jump.
  if (direct.ok || holds(sketch, (id) => now.get(id) ?? dimension(id), 1e3 * tolerance)) return direct;
  return shakeLoose(direct, (from) => reachIn(from, dimension, tolerance, 'gently', sketch)) ?? direct;
}

/** A sketch with fewer constraints is tried in all ways at once. */
const LARGE = 40;

/** Is there, in a large sketch, a small part that cannot be had even alone? Then the whole need not be tried further. */
function disagreesNearby(sketch: SketchGeometry, dimension: (id: string) => number): boolean {
  const most = Object.keys(sketch.constraints).length / 4;
  if (4 * most < LARGE) return false;
  return neighbourhoods(sketch, dimension).some(
    (near) => near.size <= most && !reach(only(sketch, near), dimension).ok,
  );
}

function holds(sketch: SketchGeometry, dimension: (id: string) => number, tolerance: number): boolean {
  const { equations, values } = buildSystem(sketch, dimension);
  const gradient = new Float64Array(Math.max(1, ...equations.map((e) => e.slots.length)));
  return equations.every((e) => Math.abs(e.evaluate(values, gradient)) <= tolerance);
}

/** Dimensions that are to change, with what they read as drawn. */
function presentReadings(sketch: SketchGeometry, dimension: (id: string) => number): Map<string, number> {
  const now = new Map<string, number>();
  for (const [id, c] of Object.entries(sketch.constraints)) {
    if (!isDimension(c) || c.driven || quantityOf(c) === 'number') continue;
    const [reads, wanted] = [measureDimension(sketch, c), dimension(id)];
    const from = c.kind === 'angle' ? wanted - wrap(wanted - reads) : reads;
    if (Math.abs(from - wanted) > 1e-9) now.set(id, from);
  }
  return now;
}

function walk(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
  now: ReadonlyMap<string, number>,
  steps: number,
  tolerance: number,
): Reached | null {
  let at = sketch;
  for (let i = 1; i <= steps; i++) {
    const share = i / steps;
    const between = (id: string) => {
      const from = now.get(id);
      return from === undefined ? dimension(id) : from + share * (dimension(id) - from);
    };
    const reached = reachIn(at, i === steps ? dimension : between, tolerance, 'as usual', sketch);
    if (flips(at, reached)) return null;
    if (i === steps) return { ...reached, sketch: at };
    at = { ...readGeometry(at, reached.system) };
  }
  return null;
}

/** Solved positions alone, for when nobody asks what is still loose; or why there are none, found when asked. */
export function positionsOrWhy(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
): { readonly geometry: SketchGeometry } | { readonly geometry: null; readonly why: () => SketchSolution } {
  if (isLeft(sketch)) return { geometry: sketch };
  const outcome = reachOrMisfit(sketch, dimension);
  if (outcome instanceof ConstraintMisfit || !outcome.ok)
    return { geometry: null, why: () => unmet(sketch, dimension, outcome) };
  return { geometry: readGeometry(outcome.sketch, outcome.system) };
}

/** Solved positions, or null when they cannot be found. */
export const solvePositions = (sketch: SketchGeometry, dimension: (id: string) => number): SketchGeometry | null =>
  positionsOrWhy(sketch, dimension).geometry;

function reachOrMisfit(sketch: SketchGeometry, dimension: (id: string) => number): Reached | ConstraintMisfit {
  try {
    return reach(sketch, dimension);
  } catch (error) {
    if (error instanceof ConstraintMisfit) return error;
    throw error;
  }
}

/** What stands against a sketch that was not reached. */
function unmet(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
  outcome: Reached | ConstraintMisfit,
): SketchSolution {
  if (outcome instanceof ConstraintMisfit) return unsolved(sketch, { misfit: misfitOf(sketch, dimension, outcome) });
  return unsolved(sketch, {
    clash: smallestClash(sketch, dimension, RELATIVE_TOLERANCE * sketchSize(sketch), outcome),
    iterations: outcome.iterations,
    residual: outcome.residual,
  });
}

/**
 * Solve from the positions in `sketch`, moving as little as needed and flipping nothing that need not flip.
 * @param dimension value of each dimension constraint by id, mm or rad
 */
export function solveSketch(sketch: SketchGeometry, dimension: (id: string) => number): SketchSolution {
  const outcome = reachOrMisfit(sketch, dimension);
  if (outcome instanceof ConstraintMisfit || !outcome.ok) return unmet(sketch, dimension, outcome);
  const { system } = outcome;
  const { freedoms, movingSlots, redundant } = freedomsOf(outcome);
  const saysNothing = new Set([...system.redundant, ...wholly(system, [...redundant, ...outcome.split.without])]);
  return {
    geometry: readGeometry(outcome.sketch, system),
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

function freedomsOf({ split, solvers }: Settled): {
  freedoms: number;
  movingSlots: Set<number>;
  redundant: Equation[];
} {
  let freedoms = split.idle.length;
  const movingSlots = new Set(split.idle);
  const redundant: Equation[] = [];
  for (const [i, { rows, slots }] of split.groups.entries()) {
    // Much the commonest in a finished sketch, and sooner found.
    if (solvers[i]!.surelySettled()) continue;
    const rank = rankOf(rows);
    freedoms += rank.freedoms;
    rank.moves.forEach((moves, k) => moves && movingSlots.add(slots[k]!));
    for (const d of rank.dependent) redundant.push(rows.equations[d.equation]!);
  }
  return { freedoms, movingSlots, redundant };
}

function looseEntities(sketch: SketchGeometry, system: System, moving: ReadonlySet<number>): Set<string> {
  const loose = new Set<string>();
  if (moving.size === 0) return loose;
  const moves = (id: string) => {
    const p = system.points.get(id)!;
    return moving.has(p.x) || moving.has(p.y);
  };
  for (const [id, p] of system.points)
    if (id !== BUILT_IN.origin && (moving.has(p.x) || moving.has(p.y))) loose.add(id);
  for (const [id, curve] of Object.entries(sketch.curves)) {
    const size = system.rounds.get(id)?.radius ?? system.ellipses.get(id)?.minor;
    if ((size !== undefined && moving.has(size)) || pointsOf(curve).some(moves)) loose.add(id);
  }
  return loose;
}
