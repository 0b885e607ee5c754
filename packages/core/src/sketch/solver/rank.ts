/**
 * Rank of the equations' derivatives by sparse elimination, row by row, each
 * pivoting on its largest remaining entry. Says which equations depend on
 * which others, how many freedoms are left, and what still moves.
 */
import type { EquationRows } from './rows.ts';

/**
 * A row counts as dependent when, scaled to unit length, less than this is left of it.
 * Solved positions are good to about 1e-10; a double root makes 1e-5 of that.
 */
const DEPENDENT = 1e-7;

export interface RankResult {
  readonly rank: number;
  readonly freedoms: number;
  /** For each local unknown, whether any freedom moves it. */
  readonly moves: readonly boolean[];
  /** One motion for each freedom, as a direction of the unknowns; at most this many. */
  motions(most: number): Float64Array[];
  /** Dependent equations, each with all the equations it takes part with, itself among them. */
  readonly dependent: readonly { readonly equation: number; readonly among: readonly number[] }[];
}

interface Pivot {
  readonly equation: number;
  readonly column: number;
  /** The reduced row, pivot entry 1. */
  readonly columns: readonly number[];
  readonly values: readonly number[];
  /** The reduced row is (equation − Σ factor × earlier pivot rows) × scale. */
  readonly scale: number;
  readonly factors: readonly (readonly [pivot: number, factor: number])[];
}

/** `rows` must have been evaluated at the solved position. */
export function rankOf(rows: EquationRows): RankResult {
  const n = rows.unknowns;
  const pivots: Pivot[] = [];
  const pivotOf = new Int32Array(n).fill(-1);
  const row = new Float64Array(n);
  const touched = new Uint8Array(n);
  const dependent: { equation: number; among: number[] }[] = [];
  for (let r = 0; r < rows.equations.length; r++) {
    const columns: number[] = [];
    const due = new Queue();
    /** Note a column that may hold something now, and the pivot it meets. */
    const touch = (c: number) => {
      if (touched[c]) return;
      touched[c] = 1;
      columns.push(c);
      if (pivotOf[c]! >= 0) due.add(pivotOf[c]!);
    };
    let norm = 0;
    for (let p = rows.start[r]!; p < rows.start[r + 1]!; p++) norm += rows.value[p]! ** 2;
    norm = Math.sqrt(norm);
    if (norm > 0) {
      for (let p = rows.start[r]!; p < rows.start[r + 1]!; p++) {
        row[rows.unknown[p]!] = rows.value[p]! / norm;
        touch(rows.unknown[p]!);
      }
    }
    const factors: [number, number][] = [];
    // A pivot's row holds no column of an earlier pivot, so those found on the way always come later.
    for (let k = due.take(); k !== undefined; k = due.take()) {
      const pivot = pivots[k]!;
      const factor = row[pivot.column]!;
      if (factor === 0) continue;
      for (let i = 0; i < pivot.columns.length; i++) {
        row[pivot.columns[i]!]! -= factor * pivot.values[i]!;
        touch(pivot.columns[i]!);
      }
      row[pivot.column] = 0;
      factors.push([k, factor]);
    }
    let column = -1;
    for (const c of columns) if (column < 0 || Math.abs(row[c]!) > Math.abs(row[column]!)) column = c;
    if (column < 0 || Math.abs(row[column]!) < DEPENDENT)
      dependent.push({ equation: r, among: [r, ...traceBack(factors, pivots)] });
    else {
      const scale = 1 / row[column]!;
      const own = columns.filter((c) => Math.abs(row[c]!) > 1e-14);
      pivotOf[column] = pivots.length;
      pivots.push({ equation: r, column, columns: own, values: own.map((c) => row[c]! * scale), scale, factors });
    }
    for (const c of columns) {
      row[c] = 0;
      touched[c] = 0;
    }
  }
  return {
    rank: pivots.length,
    freedoms: n - pivots.length,
    moves: movingUnknowns(n, pivots, pivotOf),
    dependent,
    motions: (most) => {
      const free = Array.from({ length: n }, (_, c) => c).filter((c) => pivotOf[c] === -1);
      return free.slice(0, most).map((c) => {
        const motion = new Float64Array(n);
        motion[c] = 1;
        follow(pivots, motion);
        return motion;
      });
    },
  };
}

/** Numbers taken out smallest first (a binary heap). */
class Queue {
  private readonly heap: number[] = [];

  add(value: number): void {
    const { heap } = this;
    let i = heap.push(value) - 1;
    while (i > 0) {
      const up = (i - 1) >> 1;
      if (heap[up]! <= heap[i]!) break;
      [heap[up], heap[i]] = [heap[i]!, heap[up]!];
      i = up;
    }
  }

  take(): number | undefined {
    const { heap } = this;
    const least = heap[0];
    const last = heap.pop();
    if (heap.length === 0 || last === undefined) return least;
    heap[0] = last;
    for (let i = 0; ;) {
      let child = 2 * i + 1;
      if (child + 1 < heap.length && heap[child + 1]! < heap[child]!) child++;
      if (child >= heap.length || heap[i]! <= heap[child]!) return least;
      [heap[i], heap[child]] = [heap[child]!, heap[i]!];
      i = child;
    }
  }
}

/** Complete a motion of the free unknowns by what the pivots' equations make of it. */
function follow(pivots: readonly Pivot[], motion: Float64Array): void {
  for (let k = pivots.length - 1; k >= 0; k--) {
    const { column, columns, values } = pivots[k]!;
    let sum = 0;
    for (let i = 0; i < columns.length; i++) if (columns[i] !== column) sum -= values[i]! * motion[columns[i]!]!;
    motion[column] = sum;
  }
}

/** The equations whose combination makes up a row that vanished. */
function traceBack(factors: readonly (readonly [number, number])[], pivots: readonly Pivot[]): number[] {
  const weight = new Float64Array(pivots.length);
  for (const [k, f] of factors) weight[k] = f;
  const among: number[] = [];
  for (let k = pivots.length - 1; k >= 0; k--) {
    if (Math.abs(weight[k]!) < 1e-9) continue;
    among.push(pivots[k]!.equation);
    const pivot = pivots[k]!;
    for (const [j, f] of pivot.factors) weight[j]! -= weight[k]! * pivot.scale * f;
  }
  return among;
}

/** Set the free unknowns to arbitrary values twice and see what follows them. */
function movingUnknowns(n: number, pivots: readonly Pivot[], pivotOf: Int32Array): boolean[] {
  const moves = new Array<boolean>(n).fill(false);
  for (const seed of [0.37, 0.71]) {
    const motion = new Float64Array(n);
    for (let c = 0; c < n; c++) if (pivotOf[c] === -1) motion[c] = 0.5 + (((c + 1) * seed * 1.618) % 1);
    follow(pivots, motion);
    for (let c = 0; c < n; c++) if (Math.abs(motion[c]!) > 1e-6) moves[c] = true;
  }
  return moves;
}
