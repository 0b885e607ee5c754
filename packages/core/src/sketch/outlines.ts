/**
 * Whether a solution turns an outline over: it runs round the other way than it
 * was drawn, or an arc that ran on smoothly from its neighbour doubles back on
 * it, as the rounds of a corner do that are larger than the side between them.
 * Both meet all equations, and are never meant.
 */
import { BUILT_IN, isDimension, type SketchGeometry } from './schema.ts';
import type { System } from './system.ts';

type Place = readonly [number, number];
type Places = (point: string) => Place;

/** Sine of an angle under which two directions are one. */
const SMOOTH = 1e-3;
/** Share of the square of the sketch's size: an outline with less area has no side to speak of. */
const NO_AREA = 1e-7;
/** Share of the sketch's size that a point must have moved for anything to be turned over. */
const UNMOVED = 1e-6;

/** A line or an arc, walked from its start or from its end. */
interface Walked {
  readonly id: string;
  readonly forward: boolean;
}

/** @param size of the sketch, mm */
export function turnedOver(system: System, size: number): boolean {
  const { drawn, values: v, points } = system;
  const before: Places = (p) => (p === BUILT_IN.origin ? [0, 0] : (drawn.points[p] ?? [0, 0]));
  const after: Places = (p) => {
    const slots = points.get(p)!;
    return [v[slots.x]!, v[slots.y]!];
  };
  let moved = false;
  for (const [id, p] of points) {
    const at = drawn.points[id];
    if (at && Math.abs(at[0] - v[p.x]!) + Math.abs(at[1] - v[p.y]!) > UNMOVED * size) moved = true;
  }
  if (!moved || isGarbled(system, size)) return false;
  const joints = jointsOf(system);
  for (const [one, other] of joints.values()) {
    if (!one || !other || (!isArc(drawn, one) && !isArc(drawn, other))) continue;
    if (runsOn(drawn, one, other, before) === true && runsOn(drawn, one, other, after) === false) return true;
  }
  return loopsOf(system, joints).some((loop) => {
    const [was, is] = [areaOf(drawn, loop, before), areaOf(drawn, loop, after)];
    return Math.min(Math.abs(was), Math.abs(is)) > NO_AREA * size * size && was > 0 !== is > 0;
  });
}

/** As drawn, so much of the sketch's size off is not drawn so. */
const OFF = 1e-3;

/** A drawing in which most of its relations do not hold has no sides to keep. */
function isGarbled({ merger, drawn, points, rounds, equations }: System, size: number): boolean {
  // What was made one starts where the first of it is drawn; the others may be drawn elsewhere.
  const start = merger.values();
  const placed = new Set<number>();
  const place = (slot: number, value: number) => {
    if (placed.has(slot) || merger.isFixed(slot)) return;
    placed.add(slot);
    start[slot] = value;
  };
  for (const [id, { x, y }] of points) {
    const at = drawn.points[id];
    if (at) place(x, at[0]);
    if (at) place(y, at[1]);
  }
  for (const [id, { radius, center, ends }] of rounds) {
    const c = drawn.curves[id];
    if (c?.kind === 'circle') place(radius, c.radius);
    const [end] = ends;
    if (end) place(radius, Math.hypot(start[end.x]! - start[center.x]!, start[end.y]! - start[center.y]!));
  }
  let [said, unmet] = [0, 0];
  const count = (off: number) => {
    said++;
    if (Math.abs(off) > OFF * size) unmet++;
  };
  for (const [id, p] of points) {
    const at = drawn.points[id];
    if (at) count(Math.hypot(at[0] - start[p.x]!, at[1] - start[p.y]!));
  }
  const gradient = new Float64Array(equations.reduce((most, e) => Math.max(most, e.slots.length), 1));
  for (const e of equations) {
    const constraint = drawn.constraints[e.owner];
    if (!constraint || !isDimension(constraint)) count(e.evaluate(start, gradient));
  }
  return unmet > said / 2;
}

const isArc = (sketch: SketchGeometry, { id }: Walked) => sketch.curves[id]!.kind === 'arc';

/** Lines and arcs by the place at which they end, where exactly two do; each as it is walked away from there. */
function jointsOf({ drawn, points, values }: System): Map<number, readonly Walked[]> {
  const joints = new Map<number, Walked[]>();
  for (const [id, c] of Object.entries(drawn.curves)) {
    if ((c.kind !== 'line' && c.kind !== 'arc') || c.construction) continue;
    for (const [end, forward] of [
      [c.from, true],
      [c.to, false],
    ] as const) {
      const p = points.get(end);
      if (!p) continue;
      const key = p.x * values.length + p.y;
      const list = joints.get(key);
      if (list) list.push({ id, forward });
      else joints.set(key, [{ id, forward }]);
    }
  }
  for (const [key, list] of joints) if (list.length !== 2) joints.delete(key);
  return joints;
}

/** Closed chains that meet no third curve. */
function loopsOf({ drawn, points, values }: System, joints: ReadonlyMap<number, readonly Walked[]>): Walked[][] {
  const loops: Walked[][] = [];
  const done = new Set<string>();
  for (const [first] of joints.values()) {
    if (done.has(first!.id)) continue;
    const loop: Walked[] = [];
    let at: Walked | undefined = first;
    while (at && !done.has(at.id)) {
      done.add(at.id);
      loop.push(at);
      const p = points.get(endOf(drawn, at))!;
      const here: string = at.id;
      at = joints.get(p.x * values.length + p.y)?.find((w) => w.id !== here);
    }
    if (at && at.id === loop[0]!.id && loop.length > 1) loops.push(loop);
  }
  return loops;
}

function endsOf(sketch: SketchGeometry, { id, forward }: Walked): readonly [string, string] {
  const { from, to } = sketch.curves[id] as { from: string; to: string };
  return forward ? [from, to] : [to, from];
}
const endOf = (sketch: SketchGeometry, walked: Walked) => endsOf(sketch, walked)[1];

/** The direction in which a line or arc leaves its start as walked. */
function leaving(sketch: SketchGeometry, walked: Walked, at: Places): Place {
  const c = sketch.curves[walked.id]!;
  const [a, b] = endsOf(sketch, walked).map(at) as [Place, Place];
  if (c.kind !== 'arc') return [b[0] - a[0], b[1] - a[1]];
  const m = at(c.center);
  const [x, y] = [a[0] - m[0], a[1] - m[1]];
  return walked.forward ? [-y, x] : [y, -x];
}

/** Where two curves share an end: true, the one runs on into the other; false, it doubles back; null, they make a corner. */
function runsOn(sketch: SketchGeometry, one: Walked, other: Walked, at: Places): boolean | null {
  const [u, w] = [leaving(sketch, one, at), leaving(sketch, other, at)];
  const size = Math.hypot(...u) * Math.hypot(...w);
  if (Math.abs(u[0] * w[1] - u[1] * w[0]) > SMOOTH * size) return null;
  return u[0] * w[0] + u[1] * w[1] < 0;
}

/** Signed area: the polygon of its ends (by the shoelace formula), and the segments of its arcs, ½ r² (φ − sin φ). */
function areaOf(sketch: SketchGeometry, loop: readonly Walked[], at: Places): number {
  let area = 0;
  for (const walked of loop) {
    const [a, b] = endsOf(sketch, walked).map(at) as [Place, Place];
    area += (a[0] * b[1] - a[1] * b[0]) / 2;
    const c = sketch.curves[walked.id]!;
    if (c.kind !== 'arc') continue;
    const m = at(c.center);
    const [from, to] = walked.forward ? [a, b] : [b, a];
    const [ux, uy, wx, wy] = [from[0] - m[0], from[1] - m[1], to[0] - m[0], to[1] - m[1]];
    let sweep = Math.atan2(ux * wy - uy * wx, ux * wx + uy * wy);
    if (sweep <= 0) sweep += 2 * Math.PI;
    area += ((walked.forward ? 1 : -1) * (ux * ux + uy * uy) * (sweep - Math.sin(sweep))) / 2;
  }
  return area;
}
