/**
 * Damped Gauss–Newton: repeatedly solves (JᵀJ + λW) Δ = −Jᵀr by sparse factorisation.
 *
 * With λ tiny, Δ is the smallest change (weighted by W) that meets the
 * linearised equations, so what need not move stays; λ grows only when a step
 * fails to lessen the residual. Redundant equations do no harm.
 */
import { EquationRows } from './rows.ts';
import { SparseLdl } from './ldl.ts';

/** Small against the unit slopes of the equations, large against rounding (see the class comment). */
const LEAST_DAMPING = 1e-9;
/** As far as damping is let go where progress is slow; below it, rounding would move what is free. */
const SOFT_DAMPING = 1e-13;
const MOST_DAMPING = 1e6;
/** The least part of a step that is tried. */
const LEAST_SHARE = 1 / 64;
/** Squared sine of the angle, of a column with those before it, that rounding cannot feign. */
const CLEAR = 1e-9;
const MAX_ITERATIONS = 60;
/** Where so many iterations leave more than this share of the cost, it goes nowhere: what cannot be met is soon told. */
const [PATIENCE, HARDLY_LESS] = [10, 0.9];

export interface SolveSummary {
  readonly converged: boolean;
  readonly iterations: number;
  /** Largest |residual| left, mm. */
  readonly residual: number;
}

export class GaussNewton {
  private readonly ldl: SparseLdl;
  private readonly normal: Float64Array;
  /** For each product of entries within a row, the place in `normal` it adds to. */
  private readonly target: Int32Array;
  private readonly diagonal: Int32Array;
  private readonly step: Float64Array;
  private readonly before: Float64Array;

  /**
   * @param rows the group's equations
   * @param slots the slot in the value array of each local unknown
   */
  constructor(
    readonly rows: EquationRows,
    private readonly slots: ArrayLike<number>,
  ) {
    const n = rows.unknowns;
    const pattern = normalPattern(rows);
    this.diagonal = pattern.diagonal;
    this.target = pattern.target;
    this.normal = new Float64Array(pattern.rowOf.length);
    this.ldl = new SparseLdl(n, pattern.rowOf, pattern.colOf);
    this.step = new Float64Array(n);
    this.before = new Float64Array(n);
  }

  /**
   * Change `values` in place until every residual is below `tolerance` (mm).
   * @param weights how dear it is to move each local unknown; 1 is usual
   * @param leastDamping higher, it goes in smaller steps and ends nearer to where it began
   */
  solve(values: Float64Array, tolerance: number, weights?: Float64Array, leastDamping = LEAST_DAMPING): SolveSummary {
    const { rows, slots, step, before } = this;
    let cost = rows.evaluate(values);
    let damping = leastDamping;
    let iterations = 0;
    let stalled = 0;
    let was = cost;
    while (iterations < MAX_ITERATIONS && largest(rows.residual) > tolerance && stalled < 3) {
      if (iterations > 0 && iterations % PATIENCE === 0) {
        if (cost > HARDLY_LESS * was) break;
        was = cost;
      }
      iterations++;
      if (!this.computeStep(damping, weights)) {
        damping = Math.max(damping * 100, 1e-7);
        continue;
      }
      for (let i = 0; i < step.length; i++) before[i] = values[slots[i]!]!;
      // A whole step may overshoot where the equations bend; a part of it is tried before it is damped.
      let next = Infinity;
      for (let share = 1; share >= LEAST_SHARE && !(next < cost); share /= 4) {
        for (let i = 0; i < step.length; i++) values[slots[i]!] = before[i]! + share * step[i]!;
        next = rows.evaluate(values);
      }
      if (next < cost) {
        // Rounding sets a floor; standing there is not progress.
        stalled = next > cost * 0.999 ? stalled + 1 : 0;
        // Long chains bend softly: where damping holds a motion back, it is let go further.
        const slow = next > cost * 0.05;
        cost = next;
        damping = Math.max(damping / 30, slow && leastDamping === LEAST_DAMPING ? SOFT_DAMPING : leastDamping);
      } else {
        for (let i = 0; i < step.length; i++) values[slots[i]!] = before[i]!;
        rows.evaluate(values);
        if (damping >= MOST_DAMPING) break;
        damping = Math.max(damping * 30, 1e-7);
      }
    }
    const residual = largest(rows.residual);
    return { converged: residual <= tolerance, iterations, residual };
  }

  /**
   * Whether there are as many equations as unknowns and they surely pin all of
   * them: every unknown's column of derivatives stands clear of the others, by
   * far more than rounding. False says nothing. Rows must stand evaluated.
   */
  surelySettled(): boolean {
    if (this.rows.equations.length !== this.rows.unknowns || !this.computeStep(0, undefined)) return false;
    return this.ldl.leastLeft(this.normal, this.diagonal) > CLEAR;
  }

  private computeStep(damping: number, weights: Float64Array | undefined): boolean {
    const { rows, normal, target, step } = this;
    normal.fill(0);
    step.fill(0);
    let t = 0;
    for (let r = 0; r < rows.equations.length; r++) {
      const residual = rows.residual[r]!;
      const end = rows.start[r + 1]!;
      for (let p = rows.start[r]!; p < end; p++) {
        const value = rows.value[p]!;
        step[rows.unknown[p]!]! -= value * residual;
        for (let q = p; q < end; q++) normal[target[t++]!]! += value * rows.value[q]!;
      }
    }
    for (let i = 0; i < step.length; i++) normal[this.diagonal[i]!]! += damping * (weights ? weights[i]! : 1);
    if (!this.ldl.factor(normal)) return false;
    this.ldl.solve(step);
    return step.every(Number.isFinite);
  }
}

/** Where the entries of JᵀJ stand, one triangle, and which of them each product of two entries of a row adds to. */
function normalPattern(rows: EquationRows) {
  const { unknowns: n, start, unknown } = rows;
  const equations = rows.equations.length;
  // Products are gathered by the smaller of their two unknowns, so that one mark an unknown tells pairs apart.
  const from = new Int32Array(n + 1);
  let products = 0;
  for (let r = 0; r < equations; r++) {
    for (let p = start[r]!; p < start[r + 1]!; p++) {
      for (let q = p; q < start[r + 1]!; q++) from[Math.min(unknown[p]!, unknown[q]!) + 1]!++;
      products += start[r + 1]! - p;
    }
  }
  for (let i = 0; i < n; i++) from[i + 1]! += from[i]!;
  const [product, other] = [new Int32Array(products), new Int32Array(products)];
  const next = from.slice(0, n);
  for (let r = 0, k = 0; r < equations; r++) {
    for (let p = start[r]!; p < start[r + 1]!; p++) {
      for (let q = p; q < start[r + 1]!; q++, k++) {
        const [a, b] = [unknown[p]!, unknown[q]!];
        const at = next[Math.min(a, b)]!++;
        product[at] = k;
        other[at] = Math.max(a, b);
      }
    }
  }
  const [rowOf, colOf]: [number[], number[]] = [[], []];
  const [target, diagonal] = [new Int32Array(products), new Int32Array(n)];
  const [marked, place] = [new Int32Array(n).fill(-1), new Int32Array(n)];
  for (let i = 0; i < n; i++) {
    marked[i] = i;
    place[i] = diagonal[i] = rowOf.push(i) - 1;
    colOf.push(i);
    for (let at = from[i]!; at < from[i + 1]!; at++) {
      const j = other[at]!;
      if (marked[j] !== i) {
        marked[j] = i;
        place[j] = rowOf.push(i) - 1;
        colOf.push(j);
      }
      target[product[at]!] = place[j]!;
    }
  }
  return { rowOf, colOf, target, diagonal };
}

function largest(values: Float64Array): number {
  let most = 0;
  for (let i = 0; i < values.length; i++) {
    const size = Math.abs(values[i]!);
    // NaN counts as infinitely wrong.
    if (!(size <= most)) most = Number.isNaN(size) ? Infinity : size;
  }
  return most;
}
