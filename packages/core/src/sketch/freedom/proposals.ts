/** What would take a freedom away: relations the drawing nearly meets, and dimensions at what they now read. */
import { constraintOf, readingsFor, type Reading } from '../edit/readings.ts';
import { angleFrom, lineIn, placeIn, radiusIn } from '../drawn.ts';
import { measureDimension } from '../edit/measure.ts';
import {
  BUILT_IN,
  isDimension,
  pointsOf,
  type Constraint,
  type DimensionConstraint,
  type SketchGeometry,
} from '../schema.ts';
import { lineName } from '../line-names.ts';
import { sketchSize } from '../settle.ts';
import { solvePositions, solveSketch } from '../solve.ts';
import { freedomsIn, movedBy, type Freedom } from './freedoms.ts';

export interface Proposal {
  readonly reading: Reading;
  /** “Width of the line, 42.5”; the number is for the interface to write. */
  readonly label: string;
  readonly constraint: Constraint;
  /** How far the farthest thing moves when it is taken, mm. */
  readonly moves: number;
}

/** Share of the sketch's size: what moves less holds as drawn. */
const AS_DRAWN = 1e-6;
/** A relation that tidies a drawing moves no more than these shares of the whole and of its shortest line; it says how much. */
const TIDIES = { whole: 0.004, shortest: 0.05 };
/** Near enough to be meant: share of the sketch's size, and of a turn. */
const NEARLY = 0.02;
const NEARLY_LEVEL = (6 * Math.PI) / 180;
const MOST_CANDIDATES = 24;
const MOST_PROPOSALS = 4;

/** Numbers of dimensions proposed but not yet in the design. */
function withOwn(dimension: (id: string) => number, own: ReadonlyMap<string, number>): (id: string) => number {
  return (id) => own.get(id) ?? dimension(id);
}

/** Proposals that each remove the freedom, likeliest first. */
export function proposalsFor(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
  freedom: Freedom,
  most = MOST_PROPOSALS,
): Proposal[] {
  const steps = proposalSteps(sketch, dimension, freedom, most);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/**
 * The same in small steps, for a page that must stay awake: one candidate tried between yields.
 * @param exactly only such as hold nearly as drawn
 */
export function* proposalSteps(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
  freedom: Freedom,
  most = MOST_PROPOSALS,
  exactly = false,
): Generator<undefined, Proposal[]> {
  const before = solveSketch(sketch, dimension).freedoms;
  const found: Proposal[] = [];
  for (const reading of candidates(sketch, freedom).slice(0, MOST_CANDIDATES)) {
    if (found.length >= most) break;
    yield undefined;
    const value = reading.value === undefined ? undefined : String(reading.value);
    const constraint = constraintOf(reading, value);
    if (reading.value !== undefined && !changesAlong(sketch, constraint as DimensionConstraint, freedom)) continue;
    const tried: SketchGeometry = { ...sketch, constraints: { ...sketch.constraints, proposed__: constraint } };
    const own = new Map(reading.value === undefined ? [] : [['proposed__', reading.value]]);
    const numbers = withOwn(dimension, own);
    const solved = solveSketch(tried, numbers);
    if (!solved.solved || solved.freedoms >= before) continue;
    const moves = farthest(sketch, solved.geometry);
    if (exactly && moves > allowed(sketch, reading)) continue;
    if (blocks({ ...tried, ...solved.geometry }, numbers, freedom))
      found.push({ reading, label: reading.label, constraint, moves });
  }
  return found;
}

/** How far the farthest point, or the size that changes most, is from where it was, mm. */
function farthest(before: SketchGeometry, after: SketchGeometry): number {
  let most = 0;
  for (const [id, [x, y]] of Object.entries(before.points)) {
    const now = after.points[id];
    if (now) most = Math.max(most, Math.hypot(now[0] - x, now[1] - y));
  }
  for (const id of Object.keys(before.curves)) most = Math.max(most, Math.abs(sizeOf(after, id) - sizeOf(before, id)));
  return most;
}

/** A relation moves things by less than the eye sees; a number that was rounded, by little more than it was rounded by. */
function allowed(sketch: SketchGeometry, { value, drawn }: Rounded): number {
  const size = sketchSize(sketch);
  if (value !== undefined && drawn !== undefined) return AS_DRAWN * size + 2 * Math.abs(value - drawn);
  const lengths = Object.keys(sketch.curves).flatMap((id) => {
    const ends = lineIn(sketch, id);
    const length = ends ? Math.hypot(ends[1][0] - ends[0][0], ends[1][1] - ends[0][1]) : radiusIn(sketch, id);
    return length > AS_DRAWN * size ? [length] : [];
  });
  return Math.min(TIDIES.whole * size, TIDIES.shortest * Math.min(size, ...lengths));
}

/** A reading whose number was rounded from what was drawn. */
type Rounded = Reading & { readonly drawn?: number };

/** Moved along the freedom and solved again, does it come back? A relation may well take some other freedom. */
function blocks(sketch: SketchGeometry, dimension: (id: string) => number, freedom: Freedom): boolean {
  const step = 1e-3 * sketchSize(sketch);
  const moved = movedBy(sketch, freedom, step);
  const back = solvePositions(moved, dimension);
  if (!back) return true;
  const off = [...freedom.points.keys()].map((p) =>
    Math.hypot(back.points[p]![0] - moved.points[p]![0], back.points[p]![1] - moved.points[p]![1]),
  );
  const sizes = [...freedom.sizes.keys()].map((id) => Math.abs(sizeOf(back, id) - sizeOf(moved, id)));
  return Math.max(...off, ...sizes) > 0.1 * step;
}

function sizeOf(sketch: SketchGeometry, id: string): number {
  const c = sketch.curves[id];
  if (c?.kind === 'circle') return c.radius;
  return c && 'minor' in c ? c.minor : (sketch.patterns?.[id]?.steps[0] ?? 0);
}

/** Does the number change when the freedom moves? */
function changesAlong(sketch: SketchGeometry, c: DimensionConstraint, freedom: Freedom): boolean {
  const step = 1e-4 * sketchSize(sketch);
  const change = measureDimension(movedBy(sketch, freedom, step), c) - measureDimension(sketch, c);
  return Math.abs(change) > 1e-4 * step * (c.kind === 'angle' ? 0.01 : 1);
}

function candidates(sketch: SketchGeometry, freedom: Freedom): Rounded[] {
  const near = NEARLY * sketchSize(sketch);
  const curves = freedom.entities.filter((e) => e in sketch.curves);
  const points = pointsByWorth(sketch, freedom);
  const relations: Reading[] = [];
  const dimensions: Reading[] = [];
  for (const p of points.slice(0, 6)) {
    const [x, y] = sketch.points[p]!;
    if (Math.hypot(x, y) < near)
      relations.push({ kind: 'coincident', label: 'Put on the origin', of: [p, BUILT_IN.origin] });
    if (Math.abs(y) < near) relations.push({ kind: 'coincident', label: 'Put on the x axis', of: [p, BUILT_IN.xAxis] });
    if (Math.abs(x) < near) relations.push({ kind: 'coincident', label: 'Put on the y axis', of: [p, BUILT_IN.yAxis] });
  }
  relations.unshift(...symmetries(sketch, freedom, near));
  for (const id of curves.slice(0, 8)) {
    const line = sketch.curves[id]!.kind === 'line' ? lineIn(sketch, id)! : null;
    if (line) {
      const angle = Math.abs(angleFrom([[0, 0], [1, 0]], line)); // prettier-ignore
      if (Math.min(angle, Math.PI - angle) < NEARLY_LEVEL)
        relations.push({ kind: 'horizontal', label: `Make ${lineName(sketch, id)} level`, of: [id] });
      if (Math.abs(angle - Math.PI / 2) < NEARLY_LEVEL)
        relations.push({ kind: 'vertical', label: `Make ${lineName(sketch, id)} upright`, of: [id] });
    }
    relations.push(...equals(sketch, id, near));
    dimensions.push(
      ...readingsFor(sketch, [id])
        .filter((r) => r.value !== undefined && r.kind !== 'radius')
        .slice(0, 2),
    );
    if (line)
      dimensions.push(
        ...readingsFor(sketch, [BUILT_IN.xAxis, id])
          .filter((r) => r.kind === 'angle')
          .slice(0, 1),
      );
  }
  const fromOrigin = points
    .slice(0, 4)
    .flatMap((p) => [
      ...readingsFor(sketch, [BUILT_IN.origin, p]).filter(
        (r) => r.kind === 'horizontal_distance' || r.kind === 'vertical_distance',
      ),
    ]);
  const placing = freedom.kind === 'slide' || freedom.kind === 'move';
  const all = [...relations, ...(placing ? [...fromOrigin, ...dimensions] : [...dimensions, ...fromOrigin])].filter(
    (r) => r.value === undefined || r.value > 1e-9,
  );
  const seen = new Set<string>();
  return all
    .map((r): Rounded =>
      r.value === undefined ? r : { ...r, value: r.kind === 'angle' ? r.value : neat(r.value), drawn: r.value },
    )
    .filter((r) => {
      const key = `${r.label} ${r.value ?? r.of.join()}`;
      if (seen.has(key)) return false;
      seen.add(key);
      return true;
    });
}

/** A round number near a length: drawn 19.97 means 20. Within half a percent, in steps a designer would type. */
function neat(value: number): number {
  for (const step of [10, 5, 1, 0.5, 0.1]) {
    const near = Math.round(value / step) * step;
    if (near > 0 && Math.abs(near - value) < 0.005 * value) return Number(near.toFixed(1));
  }
  return value;
}

/** Centres first, then the points nearest the origin. */
function pointsByWorth(sketch: SketchGeometry, freedom: Freedom): string[] {
  const centers = new Set(Object.values(sketch.curves).flatMap((c) => ('center' in c ? [c.center] : [])));
  const worth = (id: string) => (centers.has(id) ? 0 : 1e6) + Math.hypot(...sketch.points[id]!);
  return [...freedom.points.keys()].sort((a, b) => worth(a) - worth(b));
}

/** Pairs of points that nearly mirror each other across an axis. */
function symmetries(sketch: SketchGeometry, freedom: Freedom, near: number): Reading[] {
  const ids = [...freedom.points.keys()].slice(0, 24);
  const found: Reading[] = [];
  for (const [axis, k] of [
    [BUILT_IN.yAxis, 0],
    [BUILT_IN.xAxis, 1],
  ] as const) {
    const most = found.length + 2;
    for (let i = 0; i < ids.length && found.length < most; i++) {
      for (const other of ids.slice(i + 1)) {
        const [p, q] = [sketch.points[ids[i]!]!, sketch.points[other]!];
        if (Math.abs(p[k] + q[k]) > near || Math.abs(p[1 - k]! - q[1 - k]!) > near || Math.abs(p[k]) < near) continue;
        found.push({
          kind: 'symmetric',
          label: `Symmetric about the ${axis === BUILT_IN.yAxis ? 'y' : 'x'} axis`,
          of: [ids[i]!, other, axis],
        });
        break;
      }
    }
  }
  return found;
}

/** Other lines of nearly the same length, other circles of nearly the same radius. */
function equals(sketch: SketchGeometry, id: string, near: number): Reading[] {
  const lengthOf = (e: string) => {
    const c = sketch.curves[e]!;
    if (c.kind === 'line')
      return Math.hypot(
        ...([0, 1] as const).map((k) => (placeIn(sketch, c.to)?.[k] ?? 0) - (placeIn(sketch, c.from)?.[k] ?? 0)),
      );
    return c.kind === 'circle' || c.kind === 'arc' ? radiusIn(sketch, e) : null;
  };
  const own = lengthOf(id);
  if (own === null) return [];
  const isLine = sketch.curves[id]!.kind === 'line';
  const like = Object.keys(sketch.curves).find((e) => {
    const c = sketch.curves[e]!;
    if (e === id || (c.kind === 'line') !== isLine || c.construction || pointsOf(c).length === 0) return false;
    const size = lengthOf(e);
    return size !== null && Math.abs(size - own) < Math.min(near, own * NEARLY);
  });
  if (!like) return [];
  const label = isLine ? `Equal: ${lineName(sketch, id)} and ${lineName(sketch, like)}` : 'Equal to a like circle';
  return [{ kind: 'equal', label, of: [like, id] }];
}

export interface SettlePlan {
  readonly proposals: readonly Proposal[];
  /** Freedoms left when all are taken. */
  readonly left: number;
}

const MOST_STEPS = 80;

/**
 * A full set of relations and dimensions that settles the sketch, one after the
 * other; yields what it has so far, so that the caller can show it and stop it.
 */
export function* settleAll(
  sketch: SketchGeometry,
  dimension: (id: string) => number,
): Generator<SettlePlan | undefined, SettlePlan> {
  const own = new Map<string, number>();
  const number = withOwn(dimension, own);
  const proposals: Proposal[] = [];
  let now: SketchGeometry = { ...sketch, constraints: { ...sketch.constraints } };
  let left = solveSketch(now, number).freedoms;
  const stuck = new Set<string>();
  while (left > 0 && proposals.length < MOST_STEPS) {
    const solution = solveSketch(now, number);
    now = { ...solution.geometry, constraints: now.constraints };
    const freedoms = freedomsIn(now, number).filter((f) => !stuck.has(f.sentence + f.entities.join()));
    // As one dimensions a drawing: how things are turned, how large they are, and then where they lie.
    const order = ['turn', 'stretch', 'grow', 'size', 'slide', 'move'];
    const [freedom] = freedoms.sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind));
    if (!freedom) break;
    const [best] = yield* proposalSteps(now, number, freedom, 1, true);
    if (!best) {
      stuck.add(freedom.sentence + freedom.entities.join());
      continue;
    }
    const id = `proposed_${proposals.length}`;
    if (best.reading.value !== undefined)
      own.set(id, rounded(best.reading.value, isDimension(best.constraint) && best.constraint.kind === 'angle'));
    now = { ...now, constraints: { ...now.constraints, [id]: best.constraint } };
    proposals.push(best);
    left = solveSketch(now, number).freedoms;
    yield { proposals: [...proposals], left };
  }
  return { proposals, left };
}

/** As the interface would write it. */
const rounded = (value: number, angle: boolean) => Number(value.toFixed(angle ? 6 : 4));
