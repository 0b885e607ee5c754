/**
 * The freedoms a sketch has left, each as a motion that can be shown, and named
 * by what moves and how. Natural motions (sliding, turning, growing of what
 * hangs together) are tried first, so that the names mean something; what they
 * leave over comes from the equations' own null space.
 */
import { BUILT_IN, pointsOf, type SketchGeometry } from '../schema.ts';
import { splitGroups, type Group } from '../solver/groups.ts';
import { rankOf, type RankResult } from '../solver/rank.ts';
import type { System } from '../system.ts';
import { buildSystem } from '../system.ts';
import { sketchSize } from '../settle.ts';
import { describeMotion, type MotionKind } from './motions.ts';
import { partsOf, type SketchPart } from './parts.ts';
import { inOrder } from './natural-motions.ts';
import type { ThingNames } from './thing-names.ts';

export interface Freedom {
  readonly kind: MotionKind;
  /** “The slot can still slide along its axis.” */
  readonly sentence: string;
  /** What moves: curves, and points that are on no curve. */
  readonly entities: readonly string[];
  /** Direction each point goes, the farthest by 1; and how sizes change along. */
  readonly points: ReadonlyMap<string, readonly [number, number]>;
  readonly sizes: ReadonlyMap<string, number>;
}

/** More than this are not told apart one by one. */
const MOST_FREEDOMS = 60;
/** A motion belongs to the null space when it changes no equation by more than this share of itself. */
const KEEPS = 1e-6;

/** The freedoms of a solved sketch. @param dimension value of each dimension constraint, mm or rad */
export function freedomsIn(sketch: SketchGeometry, dimension: (id: string) => number): Freedom[] {
  const steps = freedomSteps(sketch, dimension);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** The same in small steps, as a large sketch takes its time. */
export function* freedomSteps(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
): Generator<undefined, Freedom[]> {
  const system = buildSystem(sketch, dimension);
  const { groups, idle } = splitGroups(system);
  const ranks: { group: Group; rank: RankResult; local: ReadonlyMap<number, number> }[] = [];
  for (const group of groups) {
    group.rows.evaluate(system.values);
    ranks.push({ group, rank: rankOf(group.rows), local: new Map(group.slots.map((s, i) => [s, i])) });
    yield;
  }
  const wanted = Math.min(MOST_FREEDOMS, idle.length + ranks.reduce((sum, r) => sum + r.rank.freedoms, 0));
  if (wanted === 0) return [];
  const { parts, names } = partsOf(sketch, system);
  const found: Freedom[] = [];
  const span = new Span();
  const keep = (motion: ReadonlyMap<number, number>, part?: SketchPart) => {
    if (found.length >= wanted || !span.grow(motion)) return;
    const freedom = asFreedom(sketch, system, names, motion, part);
    if (freedom) found.push(freedom);
  };
  const idleSlots = new Set(idle);
  for (const { part, motion } of inOrder(sketch, system, parts)) {
    if (found.length >= wanted) break;
    yield;
    let idleOnes = 0;
    for (const s of motion.keys()) if (idleSlots.has(s)) idleOnes++;
    const touched = ranks.filter(({ local }) => [...motion.keys()].some((s) => local.has(s)));
    const allowed = touched.every(({ group, rank, local }) => {
      if (rank.freedoms === 0) return false;
      const v = new Float64Array(group.slots.length);
      for (const [s, d] of motion) if (local.has(s)) v[local.get(s)!] = d;
      return keepsAll(group.rows, v);
    });
    const covered =
      idleOnes + touched.reduce((sum, t) => sum + [...motion.keys()].filter((s) => t.local.has(s)).length, 0);
    if (allowed && covered === motion.size) keep(motion, part);
  }
  for (const s of idle) keep(new Map([[s, 1]]));
  for (const { group, rank } of ranks) {
    if (found.length >= wanted || rank.freedoms === 0) continue;
    for (const v of rank.motions(MOST_FREEDOMS))
      keep(new Map(group.slots.flatMap((s, i) => (Math.abs(v[i]!) > 1e-9 ? [[s, v[i]!] as const] : []))));
  }
  return toldApart(found);
}

/** Two that would read alike say that they are not the same. */
function toldApart(freedoms: readonly Freedom[]): Freedom[] {
  const seen = new Map<string, number>();
  return freedoms.map((f) => {
    const n = (seen.get(f.sentence) ?? 0) + 1;
    seen.set(f.sentence, n);
    if (n === 1) return f;
    return { ...f, sentence: f.sentence.replace(/\.$/, n === 2 ? ', in another way.' : `, in another way (${n}).`) };
  });
}

/** Motions kept so far, orthonormal, to tell a new one from a mixture of old ones. */
class Span {
  private readonly basis: ReadonlyMap<number, number>[] = [];

  /** Takes a motion in; false when it holds nothing new. */
  grow(motion: ReadonlyMap<number, number>): boolean {
    const size = norm(motion);
    const rest = new Map(motion);
    for (const b of this.basis) {
      let share = 0;
      for (const [s, d] of b) share += d * (rest.get(s) ?? 0);
      if (share !== 0) for (const [s, d] of b) rest.set(s, (rest.get(s) ?? 0) - share * d);
    }
    const left = norm(rest);
    if (!(left > 1e-5 * size)) return false;
    this.basis.push(new Map([...rest].map(([s, d]) => [s, d / left])));
    return true;
  }
}

const norm = (motion: ReadonlyMap<number, number>) =>
  Math.sqrt([...motion.values()].reduce((sum, d) => sum + d * d, 0));

function keepsAll(rows: Group['rows'], v: Float64Array): boolean {
  const size = v.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
  if (size === 0) return false;
  for (let r = 0; r < rows.equations.length; r++) {
    let change = 0;
    let weight = 0;
    for (let p = rows.start[r]!; p < rows.start[r + 1]!; p++) {
      change += rows.value[p]! * v[rows.unknown[p]!]!;
      weight += Math.abs(rows.value[p]!) * size;
    }
    if (Math.abs(change) > KEEPS * (weight || 1)) return false;
  }
  return true;
}

/** From slots to what is seen: points and sizes, scaled so that the farthest moves by 1. */
function asFreedom(
  sketch: SketchGeometry,
  system: System,
  names: ThingNames,
  motion: ReadonlyMap<number, number>,
  hint: SketchPart | undefined,
): Freedom | null {
  const points = new Map<string, [number, number]>();
  for (const id of Object.keys(sketch.points)) {
    const p = system.points.get(id)!;
    const d: [number, number] = [motion.get(p.x) ?? 0, motion.get(p.y) ?? 0];
    if (Math.hypot(...d) > 1e-7) points.set(id, d);
  }
  const sizes = new Map<string, number>();
  for (const id of Object.keys(sketch.curves)) {
    const slot = system.rounds.get(id)?.radius ?? system.ellipses.get(id)?.minor;
    const d = slot === undefined ? 0 : (motion.get(slot) ?? 0);
    if (Math.abs(d) > 1e-7) sizes.set(id, d);
  }
  for (const [id, [along, across]] of system.steps) {
    const d = motion.get(along) ?? motion.get(across) ?? 0;
    if (Math.abs(d) > 1e-7) sizes.set(id, d);
  }
  const most = Math.max(...[...points.values()].map((d) => Math.hypot(...d)), ...[...sizes.values()].map(Math.abs));
  if (!(most > 0) || !Number.isFinite(most)) return null;
  for (const [id, [x, y]] of points) points.set(id, [x / most, y / most]);
  for (const [id, d] of sizes) sizes.set(id, d / most);
  const curves = Object.entries(sketch.curves).flatMap(([id, c]) =>
    sizes.has(id) || pointsOf(c).some((p) => points.has(p)) ? [id] : [],
  );
  const covered = new Set(curves.flatMap((id) => pointsOf(sketch.curves[id]!)));
  const entities = [...curves, ...[...points.keys()].filter((p) => !covered.has(p) && p !== BUILT_IN.origin)];
  return { ...describeMotion(sketch, names, { points, sizes, entities }, hint), entities, points, sizes };
}

/** The sketch moved along a freedom by `amount` mm at its farthest point, for showing; not solved. */
export function movedBy(sketch: SketchGeometry, freedom: Freedom, amount: number): SketchGeometry {
  const points = { ...sketch.points };
  for (const [id, [dx, dy]] of freedom.points)
    points[id] = [points[id]![0] + dx * amount, points[id]![1] + dy * amount];
  const curves = { ...sketch.curves };
  for (const [id, d] of freedom.sizes) {
    const c = curves[id];
    if (c?.kind === 'circle') curves[id] = { ...c, radius: Math.max(1e-6, c.radius + d * amount) };
    else if (c && 'minor' in c) curves[id] = { ...c, minor: Math.max(1e-6, c.minor + d * amount) };
  }
  return { ...sketch, points, curves };
}

/** How far a freedom is shown to move, mm. */
export const showingReach = (sketch: SketchGeometry): number => sketchSize(sketch) * 0.06;
