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
    this.gradient = new Float64Array(Math.max(1, ...equations.map((e) => e.slots.length)));
    const start = new Int32Array(equations.length + 1);
    const unknown: number[] = [];
    const entryOf: number[] = [];
    equations.forEach((equation, r) => {
      const first = unknown.length;
      for (const slot of equation.slots) {
        const local = localOf(slot);
        let entry = -1;
        if (local >= 0) {
          entry = unknown.indexOf(local, first);
          if (entry < 0) entry = unknown.push(local) - 1;
        }
        entryOf.push(entry);
      }
      start[r + 1] = unknown.length;
    });
    this.start = start;
    this.unknown = Int32Array.from(unknown);
    this.entryOf = Int32Array.from(entryOf);
    this.value = new Float64Array(unknown.length);
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
