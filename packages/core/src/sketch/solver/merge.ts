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
  private readonly fixedAt: (number | undefined)[] = [];
  private readonly start: number[] = [];

  add(value: number, fixed: boolean): number {
    const slot = this.parent.length;
    this.parent.push(slot);
    this.start.push(value);
    this.fixedAt.push(fixed ? value : undefined);
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
    const fa = this.fixedAt[ra];
    const fb = this.fixedAt[rb];
    if (fa !== undefined && fb !== undefined) return Math.abs(fa - fb) <= SAME_VALUE ? 'redundant' : 'clash';
    // Keep the pinned one as the root; else keep the first, which was there before.
    if (fb !== undefined) this.parent[ra] = rb;
    else this.parent[rb] = ra;
    return 'merged';
  }

  /** Pin a slot to a value. */
  pin(slot: number, value: number): MergeOutcome {
    const root = this.root(slot);
    const fixed = this.fixedAt[root];
    if (fixed !== undefined) return Math.abs(fixed - value) <= SAME_VALUE ? 'redundant' : 'clash';
    this.fixedAt[root] = value;
    return 'merged';
  }

  /** The value a slot starts from. */
  valueAt(slot: number): number {
    const root = this.root(slot);
    return this.fixedAt[root] ?? this.start[root]!;
  }

  isFixed(slot: number): boolean {
    return this.fixedAt[this.root(slot)] !== undefined;
  }

  /** Start values by slot; a merged slot starts where its root does. */
  values(): Float64Array {
    return Float64Array.from(this.parent, (_, slot) => this.valueAt(slot));
  }

  get size(): number {
    return this.parent.length;
  }
}
