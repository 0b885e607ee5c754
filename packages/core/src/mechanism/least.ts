/** Dense linear algebra of a few hundred rows: least steps, independent rows, ranks, and what a matrix leaves free. */

/**
 * The least x with rows·x = rhs as nearly as damping lets: x = Jᵀ(JJᵀ + λ)⁻¹ rhs, or by the other side where that is
 * smaller; the two are the same.
 * @param damping λ, of the largest diagonal where it is relative
 */
export function leastStep(
  rows: readonly Float64Array[],
  rhs: ArrayLike<number>,
  width: number,
  damping: number,
): Float64Array {
  return rows.length <= width ? byRows(rows, rhs, width, damping) : byColumns(rows, rhs, width, damping);
}

function byRows(rows: readonly Float64Array[], rhs: ArrayLike<number>, width: number, damping: number): Float64Array {
  const m = rows.length;
  const gram = new Float64Array(m * m);
  const filled = rows.map(filledOf);
  for (let i = 0; i < m; i++)
    for (let j = 0; j <= i; j++) {
      const [fewer, more] = filled[i]!.length < filled[j]!.length ? [i, j] : [j, i];
      const [one, other] = [rows[fewer]!, rows[more]!];
      let sum = 0;
      for (const k of filled[fewer]!) sum += one[k]! * other[k]!;
      gram[i * m + j] = sum;
    }
  const factors = solveDamped(gram, Float64Array.from(rhs), m, damping);
  const x = new Float64Array(width);
  for (let i = 0; i < m; i++) for (const k of filled[i]!) x[k]! += factors[i]! * rows[i]![k]!;
  return x;
}

function byColumns(
  rows: readonly Float64Array[],
  rhs: ArrayLike<number>,
  width: number,
  damping: number,
): Float64Array {
  const normal = new Float64Array(width * width);
  const right = new Float64Array(width);
  for (const [i, row] of rows.entries()) {
    const filled = filledOf(row);
    for (const j of filled) {
      const f = row[j]!;
      right[j]! += f * rhs[i]!;
      for (const k of filled) {
        if (k > j) break;
        normal[j * width + k]! += f * row[k]!;
      }
    }
  }
  return solveDamped(normal, right, width, damping);
}

/** Where a row is not nought: loops touch few of all coordinates. */
function filledOf(row: Float64Array): number[] {
  const filled: number[] = [];
  for (let k = 0; k < row.length; k++) if (row[k] !== 0) filled.push(k);
  return filled;
}

function product(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}

/** Least damping, of the largest diagonal: below it redundant rows turn into noise. */
export const LEAST_DAMPING = 1e-11;

/**
 * (A + λ)⁻¹ b of a symmetric matrix by Cholesky, of which the lower half is read; both are used up. Noughts at the
 * beginnings of rows stay, and are passed over.
 */
function solveDamped(a: Float64Array, b: Float64Array, n: number, damping: number): Float64Array {
  let largest = 0;
  for (let i = 0; i < n; i++) largest = Math.max(largest, a[i * n + i]!);
  if (largest === 0) return new Float64Array(n);
  const added = Math.max(damping, LEAST_DAMPING * largest);
  const first = new Int32Array(n);
  for (let i = 0; i < n; i++) {
    a[i * n + i]! += added;
    let k = 0;
    while (a[i * n + k] === 0) k++;
    first[i] = k;
  }
  for (let i = 0; i < n; i++) {
    const row = i * n;
    for (let j = first[i]!; j <= i; j++) {
      const other = j * n;
      let s = a[row + j]!;
      for (let k = Math.max(first[i]!, first[j]!); k < j; k++) s -= a[row + k]! * a[other + k]!;
      a[row + j] = j < i ? s / a[other + j]! : Math.sqrt(Math.max(s, added * 1e-3));
    }
  }
  for (let i = 0; i < n; i++) {
    let s = b[i]!;
    for (let k = first[i]!; k < i; k++) s -= a[i * n + k]! * b[k]!;
    b[i] = s / a[i * n + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    const x = (b[i]! /= a[i * n + i]!);
    for (let k = first[i]!; k < i; k++) b[k]! -= a[i * n + k]! * x;
  }
  return b;
}

/** What of a row is left beside those before it, below which it says nothing new. */
const RANK_TOLERANCE = 1e-8;

export interface Independent {
  /** Places of rows that say all. */
  readonly rows: readonly number[];
  /** The same, made square to each other and of length 1. */
  readonly basis: readonly Float64Array[];
}

/** Rows that say all that all of them say, the strongest first (Gram–Schmidt, pivoted, done twice). */
export function independentRows(rows: readonly Float64Array[]): Independent {
  const rest = rows.map((r) => Float64Array.from(r));
  const sizes = rest.map((r) => product(r, r));
  const scale = Math.max(0, ...sizes);
  const chosen: number[] = [];
  const basis: Float64Array[] = [];
  const left = new Set(rows.keys());
  while (left.size > 0) {
    let best = -1;
    for (const i of left) if (best < 0 || sizes[i]! > sizes[best]!) best = i;
    if (!(sizes[best]! > RANK_TOLERANCE ** 2 * scale)) break;
    const own = rest[best]!;
    for (const b of basis) takeAway(own, b);
    const size = Math.sqrt(product(own, own));
    if (!(size > RANK_TOLERANCE * Math.sqrt(scale))) {
      left.delete(best);
      continue;
    }
    for (let k = 0; k < own.length; k++) own[k]! /= size;
    basis.push(own);
    chosen.push(best);
    left.delete(best);
    for (const i of left) {
      takeAway(rest[i]!, own);
      sizes[i] = product(rest[i]!, rest[i]!);
    }
  }
  return { rows: chosen.sort((p, q) => p - q), basis };
}

function takeAway(from: Float64Array, unit: Float64Array): void {
  const f = product(from, unit);
  if (f !== 0) for (let k = 0; k < from.length; k++) from[k]! -= f * unit[k]!;
}

/** Directions that all rows leave free, square to each other and of length 1. */
export function leftFree({ basis }: Independent, width: number): Float64Array[] {
  const free: Float64Array[] = [];
  const all = [...basis];
  // Those of the unit directions that reach out of the rest furthest, one after another.
  const units = Array.from({ length: width }, (_, k) => {
    const unit = new Float64Array(width);
    unit[k] = 1;
    for (const b of all) takeAway(unit, b);
    return unit;
  });
  while (free.length < width - basis.length) {
    let best: Float64Array | null = null;
    let most = 0;
    for (const u of units) {
      const size = product(u, u);
      if (size > most) [best, most] = [u, size];
    }
    if (!best || most < 1e-12) break;
    const own = Float64Array.from(best);
    for (const b of [...all, ...free]) takeAway(own, b);
    const size = Math.sqrt(product(own, own));
    for (let k = 0; k < width; k++) own[k]! /= size;
    free.push(own);
    for (const u of units) takeAway(u, own);
  }
  return free;
}
