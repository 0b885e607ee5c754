/**
 * Cuts all primitives where they meet into pieces between vertices, and walks
 * the faces of that plane graph. Each face is walked with its inside on the left.
 */
import { meetings } from './intersect.ts';
import { boxOf, derivativeAt, distance, isWhole, lengthOf, pointAt, type Primitive, type Vec2 } from './primitives.ts';

/** Part of a primitive between two vertices, walked forwards or backwards. */
export interface HalfEdge {
  readonly primitive: Primitive;
  /** Parameters on the primitive where this walk starts and ends. */
  readonly t0: number;
  readonly t1: number;
  readonly from: number;
  readonly to: number;
  /** Index of the same piece walked the other way. */
  readonly twin: number;
}

export interface Arrangement {
  readonly vertices: readonly Vec2[];
  readonly halves: readonly HalfEdge[];
  /** Each closed walk as half-edge indices. */
  readonly walks: readonly (readonly number[])[];
  /** Vertices where only one piece ends. */
  readonly openEnds: readonly Vec2[];
}

class VertexGrid {
  readonly points: Vec2[] = [];
  private readonly cells = new Map<number, number[]>();
  constructor(private readonly tolerance: number) {}

  indexOf(p: Vec2): number {
    const { tolerance } = this;
    const size = tolerance * 4;
    const cellOf = (v: number) => Math.floor(v / size);
    // A point lies near the edge of few cells: mostly its own is all there is to look at.
    for (let i = cellOf(p[0] - tolerance); i <= cellOf(p[0] + tolerance); i++) {
      for (let j = cellOf(p[1] - tolerance); j <= cellOf(p[1] + tolerance); j++) {
        for (const v of this.cells.get(keyOf(i, j)) ?? []) if (distance(this.points[v]!, p) <= tolerance) return v;
      }
    }
    const index = this.points.push(p) - 1;
    const key = keyOf(cellOf(p[0]), cellOf(p[1]));
    const cell = this.cells.get(key);
    if (cell) cell.push(index);
    else this.cells.set(key, [index]);
    return index;
  }
}

/** Cells that share a key do no harm: what lies in them is measured. */
const keyOf = (i: number, j: number) => Math.imul(i, 73856093) ^ Math.imul(j, 19349663);

/** Parameters at which each primitive is cut, ends included. */
function cutParameters(primitives: readonly Primitive[], tolerance: number): number[][] {
  const cuts = primitives.map((p) => (isWhole(p) ? [] : [0, 1]));
  const boxes = primitives.map(boxOf);
  const order = primitives.map((_, i) => i).sort((a, b) => boxes[a]![0] - boxes[b]![0]);
  for (let i = 0; i < order.length; i++) {
    const a = order[i]!;
    for (let j = i + 1; j < order.length; j++) {
      const b = order[j]!;
      if (boxes[b]![0] > boxes[a]![2] + tolerance) break;
      if (boxes[b]![1] > boxes[a]![3] + tolerance || boxes[b]![3] < boxes[a]![1] - tolerance) continue;
      if (followEachOther(primitives[a]!, primitives[b]!)) continue;
      for (const m of meetings(primitives[a]!, primitives[b]!, tolerance)) {
        cuts[a]!.push(m.onFirst);
        cuts[b]!.push(m.onSecond);
      }
    }
  }
  return cuts.map((ts, i) => tidy(ts, primitives[i]!, tolerance));
}

/** Pieces of one lettering that share an end meet nowhere else. */
function followEachOther(a: Primitive, b: Primitive): boolean {
  if (a.curve !== b.curve) return false;
  const ends = [pointAt(b, 0), pointAt(b, 1)];
  return [pointAt(a, 0), pointAt(a, 1)].some((p) => ends.some((q) => p[0] === q[0] && p[1] === q[1]));
}

function tidy(ts: number[], p: Primitive, tolerance: number): number[] {
  const slack = (2 * tolerance) / lengthOf(p);
  const kept: number[] = [];
  for (const t of ts.sort((a, b) => a - b)) if (kept.length === 0 || t - kept.at(-1)! > slack) kept.push(t);
  if (!isWhole(p)) return kept;
  // Around a circle the last piece runs over the seam back to the first cut.
  if (kept.length > 1 && kept[0]! + 1 - kept.at(-1)! <= slack) kept.pop();
  const first = kept[0] ?? 0;
  return kept.length === 0 ? [0, 1] : [...kept, first + 1];
}

export function arrange(primitives: readonly Primitive[], tolerance: number): Arrangement {
  const grid = new VertexGrid(tolerance * 2);
  const halves: HalfEdge[] = [];
  const seen = new Map<string, Vec2[]>();
  cutParameters(primitives, tolerance).forEach((ts, i) => {
    const primitive = primitives[i]!;
    for (let k = 0; k + 1 < ts.length; k++) {
      const [t0, t1] = [ts[k]!, ts[k + 1]!];
      const from = grid.indexOf(pointAt(primitive, t0));
      const to = grid.indexOf(pointAt(primitive, t1));
      const middle = pointAt(primitive, (t0 + t1) / 2);
      // Two curves drawn over each other give the same piece twice; the first one counts.
      const key = `${Math.min(from, to)},${Math.max(from, to)}`;
      const before = seen.get(key) ?? [];
      if (before.some((m) => distance(m, middle) <= tolerance * 10)) continue;
      seen.set(key, [...before, middle]);
      const index = halves.length;
      halves.push(
        { primitive, t0, t1, from, to, twin: index + 1 },
        { primitive, t0: t1, t1: t0, from: to, to: from, twin: index },
      );
    }
  });
  const { alive, openEnds } = dropDangling(halves, grid.points);
  return { vertices: grid.points, halves, walks: walkFaces(halves, alive), openEnds };
}

/** Pieces with a loose end bound nothing; taking them away may loosen others. */
function dropDangling(halves: readonly HalfEdge[], points: readonly Vec2[]): { alive: boolean[]; openEnds: Vec2[] } {
  const alive = new Array<boolean>(halves.length).fill(true);
  const leaving = points.map(() => new Set<number>());
  halves.forEach((h, i) => leaving[h.from]!.add(i));
  const open = points.flatMap((_, v) => (leaving[v]!.size === 1 ? [v] : []));
  const queue = [...open];
  for (let v = queue.pop(); v !== undefined; v = queue.pop()) {
    if (leaving[v]!.size !== 1) continue;
    const [h] = leaving[v]!;
    const half = halves[h!]!;
    alive[h!] = alive[half.twin] = false;
    leaving[v]!.delete(h!);
    leaving[half.to]!.delete(half.twin);
    if (leaving[half.to]!.size === 1) queue.push(half.to);
  }
  return { alive, openEnds: open.map((v) => points[v]!) };
}

/** Direction in which a half-edge leaves its vertex, and how it then bends (left positive). */
function departure(h: HalfEdge): { angle: number; bend: number } {
  const { primitive: p, t0, t1 } = h;
  const sense = t1 > t0 ? 1 : -1;
  const [dx, dy] = derivativeAt(p, t0, 1);
  const [ex, ey] = derivativeAt(p, t0, 2);
  return {
    angle: Math.atan2(sense * dy, sense * dx),
    bend: (sense * (dx * ey - dy * ex)) / Math.max(Math.hypot(dx, dy) ** 3, 1e-300),
  };
}

/** Directions closer than this (rad) are the same, and the bend decides. */
const SAME_DIRECTION = 1e-7;

function walkFaces(halves: readonly HalfEdge[], alive: readonly boolean[]): number[][] {
  const fans = new Map<number, { half: number; angle: number; bend: number }[]>();
  halves.forEach((h, i) => {
    if (!alive[i]) return;
    const fan = fans.get(h.from);
    const spoke = { half: i, ...departure(h) };
    if (fan) fan.push(spoke);
    else fans.set(h.from, [spoke]);
  });
  const next = new Int32Array(halves.length).fill(-1);
  for (const fan of fans.values()) {
    // Angles next to ±π are the same direction.
    const low = Math.min(...fan.map((s) => s.angle));
    for (const s of fan) if (s.angle - low > 2 * Math.PI - SAME_DIRECTION) s.angle -= 2 * Math.PI;
    fan.sort((a, b) => (Math.abs(a.angle - b.angle) < SAME_DIRECTION ? a.bend - b.bend : a.angle - b.angle));
    fan.forEach((spoke, k) => {
      // Arriving by this spoke's twin, the sharpest left turn is the spoke before it, clockwise.
      const before = fan[(k + fan.length - 1) % fan.length]!;
      next[halves[spoke.half]!.twin] = before.half;
    });
  }
  const walks: number[][] = [];
  const done = new Uint8Array(halves.length);
  for (let i = 0; i < halves.length; i++) {
    if (!alive[i] || done[i]) continue;
    const walk: number[] = [];
    for (let h = i; !done[h]; h = next[h]!) {
      done[h] = 1;
      walk.push(h);
    }
    walks.push(walk);
  }
  return walks;
}
