/**
 * How near two meshes come, wherever they stand: down two trees of boxes at once, what is farther than the nearest
 * found so far left out. Begun with the triangles that were nearest last, as they mostly are so again.
 */
import { placedAt, type Pose } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';
import type { SolidMesh } from './kernel.ts';
import { nearestPlaces, triangleGap } from './triangle-gap.ts';

/** Numbers of a node: its box’s middle, half its sides, and half its longest way across. */
const NODE = 7;

/** The triangles of a mesh by halves; a node’s children are the halves of its run of triangles. */
export class MeshTree {
  /** Nine numbers a triangle, in the order of the tree. */
  readonly corners: Float64Array;
  readonly count: number;
  private readonly nodes: Float64Array;
  /** By node: first triangle and end of its run, and where its second child stands; its first is the next. */
  private readonly runs: Int32Array;

  constructor({ positions, triangles }: Pick<SolidMesh, 'positions' | 'triangles'>) {
    this.count = triangles.length / 3;
    const given = new Float64Array(this.count * 9);
    for (let t = 0; t < this.count; t++)
      for (let c = 0; c < 3; c++)
        for (let k = 0; k < 3; k++) given[t * 9 + c * 3 + k] = positions[triangles[t * 3 + c]! * 3 + k]!;
    const order = Int32Array.from({ length: this.count }, (_, i) => i);
    const most = Math.max(1, 2 * this.count - 1);
    this.nodes = new Float64Array(most * NODE);
    this.runs = new Int32Array(most * 3);
    this.corners = given;
    if (this.count > 0) this.build(order, 0, this.count, 0);
    this.corners = new Float64Array(given.length);
    order.forEach((from, to) => this.corners.set(given.subarray(from * 9, from * 9 + 9), to * 9));
  }

  private build(order: Int32Array, from: number, to: number, node: number): number {
    const low = [Infinity, Infinity, Infinity];
    const high = [-Infinity, -Infinity, -Infinity];
    for (let i = from; i < to; i++)
      for (let c = 0; c < 9; c++) {
        const x = this.corners[order[i]! * 9 + c]!;
        if (x < low[c % 3]!) low[c % 3] = x;
        if (x > high[c % 3]!) high[c % 3] = x;
      }
    const sides = high.map((h, k) => (h - low[k]!) / 2);
    const middle = high.map((h, k) => (h + low[k]!) / 2);
    this.nodes.set([...middle, ...sides, Math.hypot(...sides)], node * NODE);
    this.runs.set([from, to, 0], node * 3);
    if (to - from === 1) return node + 1;
    const axis = sides.indexOf(Math.max(...sides));
    const at = (t: number) => this.corners[t * 9 + axis]! + this.corners[t * 9 + 3 + axis]! + this.corners[t * 9 + 6 + axis]!; // prettier-ignore
    order.subarray(from, to).sort((p, q) => at(p) - at(q) || p - q);
    const half = (from + to) >> 1;
    const second = this.build(order, from, half, node + 1);
    this.runs[node * 3 + 2] = second;
    return this.build(order, half, to, second);
  }

  triangleOf(node: number): number {
    return this.runs[node * 3 + 1]! - this.runs[node * 3]! === 1 ? this.runs[node * 3]! : -1;
  }
  secondOf(node: number): number {
    return this.runs[node * 3 + 2]!;
  }
  get boxes(): Float64Array {
    return this.nodes;
  }
}

const trees = new WeakMap<object, MeshTree>();
export function treeOf(mesh: Pick<SolidMesh, 'positions' | 'triangles'>): MeshTree {
  let known = trees.get(mesh);
  if (!known) trees.set(mesh, (known = new MeshTree(mesh)));
  return known;
}

export interface MeshGap {
  /** mm; 0 where surfaces go through each other. */
  readonly gap: number;
  /** In the space of the first, mm. */
  readonly on: readonly [Vec3, Vec3];
  /** Triangles, to begin with the next time. */
  readonly last: readonly [number, number];
}

/** Turn and place of the second in the first, as twelve numbers; and of the first in the second. */
const into = new Float64Array(12);
const back = new Float64Array(12);
const moved = new Float64Array(9);

/** @param other where the second stands, as seen from the first. @returns null where none is nearer than `within`, mm */
export function meshGap(
  a: MeshTree,
  b: MeshTree,
  other: Pose,
  within: number,
  last: readonly [number, number] | null = null,
): MeshGap | null {
  if (a.count === 0 || b.count === 0) return null;
  setTransform(other);
  const search = new Search(a, b, within);
  if (last && last[0] < a.count && last[1] < b.count) search.look(last[0], last[1]);
  search.down(0, 0);
  return search.found;
}

function setTransform(pose: Pose): void {
  const origin = placedAt(pose, [0, 0, 0]);
  const axes = ([[1, 0, 0], [0, 1, 0], [0, 0, 1]] as const).map((e) => placedAt(pose, e).map((x, k) => x - origin[k]!)); // prettier-ignore
  for (let k = 0; k < 3; k++) {
    for (let c = 0; c < 3; c++) {
      into[k * 3 + c] = axes[c]![k]!;
      back[c * 3 + k] = axes[c]![k]!;
    }
    into[9 + k] = origin[k]!;
  }
  for (let c = 0; c < 3; c++)
    back[9 + c] = -(axes[c]![0]! * origin[0] + axes[c]![1]! * origin[1] + axes[c]![2]! * origin[2]);
}

class Search {
  found: MeshGap | null = null;
  private best: number;

  constructor(
    private readonly a: MeshTree,
    private readonly b: MeshTree,
    within: number,
  ) {
    this.best = within;
  }

  look(i: number, j: number): void {
    const from = this.b.corners;
    for (let c = 0; c < 9; c += 3) {
      const x = from[j * 9 + c]!;
      const y = from[j * 9 + c + 1]!;
      const z = from[j * 9 + c + 2]!;
      for (let k = 0; k < 3; k++)
        moved[c + k] = into[k * 3]! * x + into[k * 3 + 1]! * y + into[k * 3 + 2]! * z + into[9 + k]!;
    }
    const gap = triangleGap(this.a.corners, i * 9, moved, 0, this.best);
    if (gap >= this.best) return;
    this.best = gap;
    const [p, q, r, s, t, u] = nearestPlaces as unknown as [number, number, number, number, number, number];
    this.found = { gap, on: [[p, q, r], [s, t, u]], last: [i, j] }; // prettier-ignore
  }

  down(m: number, n: number): void {
    if (this.best <= 0 || this.bound(m, n) >= this.best) return;
    const i = this.a.triangleOf(m);
    const j = this.b.triangleOf(n);
    if (i >= 0 && j >= 0) return this.look(i, j);
    const large = this.a.boxes[m * NODE + 6]! >= this.b.boxes[n * NODE + 6]!;
    const split = i < 0 && (large || j >= 0);
    const m1 = split ? m + 1 : m;
    const m2 = split ? this.a.secondOf(m) : m;
    const n1 = split ? n : n + 1;
    const n2 = split ? n : this.b.secondOf(n);
    if (this.bound(m1, n1) <= this.bound(m2, n2)) {
      this.down(m1, n1);
      this.down(m2, n2);
    } else {
      this.down(m2, n2);
      this.down(m1, n1);
    }
  }

  /** No triangles of these two nodes are nearer: each one’s box against the box round the other’s, as turned. */
  private bound(m: number, n: number): number {
    const one = outOf(this.a.boxes, m * NODE, this.b.boxes, n * NODE, into);
    return one >= this.best ? one : Math.max(one, outOf(this.b.boxes, n * NODE, this.a.boxes, m * NODE, back));
  }
}

/** How far the box of the second, carried over, is out of the box of the first. */
function outOf(p: Float64Array, m: number, q: Float64Array, n: number, by: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < 3; k++) {
    const x = by[k * 3]!;
    const y = by[k * 3 + 1]!;
    const z = by[k * 3 + 2]!;
    const middle = x * q[n]! + y * q[n + 1]! + z * q[n + 2]! + by[9 + k]!;
    const half = Math.abs(x) * q[n + 3]! + Math.abs(y) * q[n + 4]! + Math.abs(z) * q[n + 5]!;
    const out = Math.abs(middle - p[m + k]!) - p[m + 3 + k]! - half;
    if (out > 0) sum += out * out;
  }
  return Math.sqrt(sum);
}
