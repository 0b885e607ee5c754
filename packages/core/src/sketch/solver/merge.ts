/**
 * Variables that constraints make one, or pin to a value, before any equation
 * is solved: coincident points, level and upright lines, equal radii, fixed
 * points, given radii.
 */
export type MergeOutcome = 'merged' | 'redundant' | 'clash';

/** Values nearer than this (mm) are taken as the same number. */
const SAME_VALUE = 1e-9;

export class SlotMerger {
  private readonly parent: number[] = [];
  /** The value a root is pinned to; NaN where it is not. */
  private readonly fixedAt: number[] = [];
  private readonly start: number[] = [];

  add(value: number, fixed: boolean): number {
    const slot = this.parent.length;
    this.parent.push(slot);
    this.start.push(value);
    this.fixedAt.push(fixed ? value : NaN);
    return slot;
  }

  root(slot: number): number {
    while (this.parent[slot] !== slot) {
      this.parent[slot] = this.parent[this.parent[slot]!]!;
      slot = this.parent[slot]!;
    }
    return slot;
  }

  /** Make two slots one. `clash` when both are pinned to different values; nothing changes then. */
  merge(a: number, b: number): MergeOutcome {
    const ra = this.root(a);
    const rb = this.root(b);
    if (ra === rb) return 'redundant';
    const fa = this.fixedAt[ra]!;
    const fb = this.fixedAt[rb]!;
    if (!Number.isNaN(fa) && !Number.isNaN(fb)) return Math.abs(fa - fb) <= SAME_VALUE ? 'redundant' : 'clash';
    // Keep the pinned one as the root; else keep the first, which was there before.
    if (!Number.isNaN(fb)) this.parent[ra] = rb;
    else this.parent[rb] = ra;
    return 'merged';
  }

  /** Pin a slot to a value. */
  pin(slot: number, value: number): MergeOutcome {
    const root = this.root(slot);
    const fixed = this.fixedAt[root]!;
    if (!Number.isNaN(fixed)) return Math.abs(fixed - value) <= SAME_VALUE ? 'redundant' : 'clash';
    this.fixedAt[root] = value;
    return 'merged';
  }

  /** The value a slot starts from. */
  valueAt(slot: number): number {
    const root = this.root(slot);
    const fixed = this.fixedAt[root]!;
    return Number.isNaN(fixed) ? this.start[root]! : fixed;
  }

  isFixed(slot: number): boolean {
    return !Number.isNaN(this.fixedAt[this.root(slot)]!);
  }

  /** Start values by slot; a merged slot starts where its root does. */
  values(): Float64Array {
    const values = new Float64Array(this.parent.length);
    for (let slot = 0; slot < values.length; slot++) values[slot] = this.valueAt(slot);
    return values;
  }

  get size(): number {
    return this.parent.length;
  }
}
