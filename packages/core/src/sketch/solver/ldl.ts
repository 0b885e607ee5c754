/**
 * Sparse symmetric factorisation A = L D Lᵀ, in plain arrays.
 *
 * Up-looking, after the method of T. A. Davis, "Algorithm 849: A concise sparse
 * Cholesky factorization package", ACM TOMS 31(4), 2005, with a minimum-degree
 * ordering. Guarantees: exact pattern, no pivoting, so A must be positive
 * definite (the solver's damping sees to it). One structure may be factored
 * any number of times with new values.
 */
export class SparseLdl {
  private readonly order: Int32Array;
  /** Upper triangle of the permuted matrix by columns; `source` says which value goes where. */
  private readonly colStart: Int32Array;
  private readonly rowIndex: Int32Array;
  private readonly source: Int32Array;
  private readonly parent: Int32Array;
  private readonly lStart: Int32Array;
  private readonly lIndex: Int32Array;
  private readonly lValue: Float64Array;
  private readonly d: Float64Array;
  private readonly y: Float64Array;
  private readonly pattern: Int32Array;
  private readonly flag: Int32Array;
  private readonly lCount: Int32Array;
  private readonly work: Float64Array;

  /**
   * @param n size of the matrix
   * @param rows,cols pattern of one triangle with the diagonal; entry k is A[rows[k], cols[k]]
   */
  constructor(
    readonly n: number,
    rows: ArrayLike<number>,
    cols: ArrayLike<number>,
  ) {
    this.order = minimumDegree(n, rows, cols);
    const place = new Int32Array(n);
    this.order.forEach((original, k) => (place[original] = k));

    const counts = new Int32Array(n + 1);
    for (let k = 0; k < rows.length; k++) counts[Math.max(place[rows[k]!]!, place[cols[k]!]!) + 1]!++;
    for (let j = 0; j < n; j++) counts[j + 1]! += counts[j]!;
    this.colStart = counts.slice();
    this.rowIndex = new Int32Array(rows.length);
    this.source = new Int32Array(rows.length);
    const next = counts.slice(0, n);
    for (let k = 0; k < rows.length; k++) {
      const a = place[rows[k]!]!;
      const b = place[cols[k]!]!;
      const at = next[Math.max(a, b)]!++;
      this.rowIndex[at] = Math.min(a, b);
      this.source[at] = k;
    }

    // Elimination tree and column counts of L.
    this.parent = new Int32Array(n).fill(-1);
    this.flag = new Int32Array(n);
    this.lCount = new Int32Array(n);
    for (let k = 0; k < n; k++) {
      this.flag[k] = k;
      for (let p = this.colStart[k]!; p < this.colStart[k + 1]!; p++) {
        for (let i = this.rowIndex[p]!; this.flag[i] !== k; i = this.parent[i]!) {
          if (this.parent[i] === -1) this.parent[i] = k;
          this.lCount[i]!++;
          this.flag[i] = k;
        }
      }
    }
    this.lStart = new Int32Array(n + 1);
    for (let k = 0; k < n; k++) this.lStart[k + 1] = this.lStart[k]! + this.lCount[k]!;
    const fill = this.lStart[n]!;
    this.lIndex = new Int32Array(fill);
    this.lValue = new Float64Array(fill);
    this.d = new Float64Array(n);
    this.y = new Float64Array(n);
    this.pattern = new Int32Array(n);
    this.work = new Float64Array(n);
  }

  /** Factor with these values (same order as the constructor's pattern). False if not positive definite. */
  factor(values: Float64Array): boolean {
    const { n, parent, flag, lCount, lStart, lIndex, lValue, d, y, pattern } = this;
    for (let k = 0; k < n; k++) {
      y[k] = 0;
      let top = n;
      flag[k] = k;
      lCount[k] = 0;
      for (let p = this.colStart[k]!; p < this.colStart[k + 1]!; p++) {
        let i = this.rowIndex[p]!;
        y[i]! += values[this.source[p]!]!;
        let length = 0;
        for (; flag[i] !== k; i = parent[i]!) {
          pattern[length++] = i;
          flag[i] = k;
        }
        while (length > 0) pattern[--top] = pattern[--length]!;
      }
      let dk = y[k]!;
      y[k] = 0;
      for (; top < n; top++) {
        const i = pattern[top]!;
        const yi = y[i]!;
        y[i] = 0;
        const start = lStart[i]!;
        const end = start + lCount[i]!;
        for (let p = start; p < end; p++) y[lIndex[p]!]! -= lValue[p]! * yi;
        const lki = yi / d[i]!;
        dk -= lki * yi;
        lIndex[end] = k;
        lValue[end] = lki;
        lCount[i]!++;
      }
      if (!(dk > 0)) return false;
      d[k] = dk;
    }
    return true;
  }

  /** The least share of any diagonal entry that was left when its turn came, after `factor` with these values. */
  leastLeft(values: Float64Array, diagonal: Int32Array): number {
    let least = Infinity;
    for (let k = 0; k < this.n; k++) least = Math.min(least, this.d[k]! / values[diagonal[this.order[k]!]!]!);
    return least;
  }

  /** Solve A x = b after `factor`; writes x over `b`. */
  solve(b: Float64Array): void {
    const { n, order, work: x, lStart, lIndex, lValue, d } = this;
    for (let k = 0; k < n; k++) x[k] = b[order[k]!]!;
    for (let j = 0; j < n; j++) {
      const xj = x[j]!;
      for (let p = lStart[j]!; p < lStart[j + 1]!; p++) x[lIndex[p]!]! -= lValue[p]! * xj;
    }
    for (let j = 0; j < n; j++) x[j]! /= d[j]!;
    for (let j = n - 1; j >= 0; j--) {
      let xj = x[j]!;
      for (let p = lStart[j]!; p < lStart[j + 1]!; p++) xj -= lValue[p]! * x[lIndex[p]!]!;
      x[j] = xj;
    }
    for (let k = 0; k < n; k++) b[order[k]!] = x[k]!;
  }
}

/** Greedy minimum-degree elimination order; degrees are kept in buckets. */
function minimumDegree(n: number, rows: ArrayLike<number>, cols: ArrayLike<number>): Int32Array {
  const neighbours: Set<number>[] = Array.from({ length: n }, () => new Set());
  for (let k = 0; k < rows.length; k++) {
    const a = rows[k]!;
    const b = cols[k]!;
    if (a !== b) {
      neighbours[a]!.add(b);
      neighbours[b]!.add(a);
    }
  }
  const buckets: Set<number>[] = [];
  const bucket = (degree: number) => (buckets[degree] ??= new Set());
  for (let i = 0; i < n; i++) bucket(neighbours[i]!.size).add(i);
  const order = new Int32Array(n);
  let least = 0;
  for (let k = 0; k < n; k++) {
    while (!buckets[least]?.size) least++;
    const pivot: number = buckets[least]!.values().next().value!;
    buckets[least]!.delete(pivot);
    order[k] = pivot;
    const ring = [...neighbours[pivot]!];
    for (const i of ring) {
      const own = neighbours[i]!;
      buckets[own.size]!.delete(i);
      own.delete(pivot);
      for (const j of ring) if (j !== i) own.add(j);
    }
    for (const i of ring) {
      const degree = neighbours[i]!.size;
      bucket(degree).add(i);
      if (degree < least) least = degree;
    }
  }
  return order;
}
