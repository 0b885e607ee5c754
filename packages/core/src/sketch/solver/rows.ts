/** The equations of one group with their derivatives, as a sparse matrix by rows. */
import type { Equation } from './equation.ts';

export class EquationRows {
  /** Row r spans entries start[r] … start[r + 1]. */
  readonly start: Int32Array;
  /** Local unknown of each entry; each unknown stands at most once in a row. */
  readonly unknown: Int32Array;
  readonly value: Float64Array;
  readonly residual: Float64Array;
  private readonly gradient: Float64Array;
  /** For each slot of each equation, the entry it adds to, or −1 where the slot is fixed. */
  private readonly entryOf: Int32Array;

  /**
   * @param localOf maps a slot to its unknown in this group, or −1 where it is fixed
   */
  constructor(
    readonly equations: readonly Equation[],
    readonly unknowns: number,
    localOf: (slot: number) => number,
  ) {
    let [most, all] = [1, 0];
    for (const { slots } of equations) {
      most = Math.max(most, slots.length);
      all += slots.length;
    }
    this.gradient = new Float64Array(most);
    this.start = new Int32Array(equations.length + 1);
    this.entryOf = new Int32Array(all);
    const unknown = new Int32Array(all);
    let [entries, k] = [0, 0];
    for (let r = 0; r < equations.length; r++) {
      const first = entries;
      for (const slot of equations[r]!.slots) {
        const local = localOf(slot);
        let entry = local < 0 ? -1 : first;
        while (entry >= 0 && entry < entries && unknown[entry] !== local) entry++;
        if (entry === entries) unknown[entries++] = local;
        this.entryOf[k++] = entry;
      }
      this.start[r + 1] = entries;
    }
    this.unknown = unknown.slice(0, entries);
    this.value = new Float64Array(entries);
    this.residual = new Float64Array(equations.length);
  }

  /** Evaluate all at `values`; returns the sum of squared residuals. */
  evaluate(values: Float64Array): number {
    this.value.fill(0);
    let sum = 0;
    let k = 0;
    for (let r = 0; r < this.equations.length; r++) {
      const equation = this.equations[r]!;
      const residual = equation.evaluate(values, this.gradient);
      this.residual[r] = residual;
      sum += residual * residual;
      for (let i = 0; i < equation.slots.length; i++) {
        const entry = this.entryOf[k++]!;
        if (entry >= 0) this.value[entry]! += this.gradient[i]!;
      }
    }
    return sum;
  }
}
