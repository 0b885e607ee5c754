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

  /** Entries of L below its diagonal: what a solve costs. */
  get fill(): number {
    return this.lIndex.length;
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

/** So many neighbours are no crowd, however small the whole. */
const LEAST_CROWD = 16;

/**
 * Minimum-degree elimination order on the quotient graph: an eliminated unknown
 * becomes an element, the list of those it couples, in place of all their pairs.
 * Degrees are the upper bounds of P. R. Amestoy, T. A. Davis and I. S. Duff, "An
 * approximate minimum degree ordering algorithm", SIAM J. Matrix Anal. Appl. 17(4), 1996.
 */
function minimumDegree(n: number, rows: ArrayLike<number>, cols: ArrayLike<number>): Int32Array {
  const neighbours: number[][] = Array.from({ length: n }, () => []);
  for (let k = 0; k < rows.length; k++) {
    const [a, b] = [rows[k]!, cols[k]!];
    if (a === b) continue;
    neighbours[a]!.push(b);
    neighbours[b]!.push(a);
  }
  const elements: number[][] = Array.from({ length: n }, () => []);
  const members: number[][] = new Array<number[]>(n);
  const absorbed = new Uint8Array(n);
  // An unknown that nearly all others meet, as the centre of a wheel, would be gone through at each of them; it comes last.
  const crowd = LEAST_CROWD + 2 * Math.sqrt(n);
  const last = neighbours.flatMap((list, i) => (list.length > crowd ? [i] : []));
  const isLast = new Uint8Array(n);
  for (const i of last) isLast[i] = 1;
  const queue = new DegreeQueue(n);
  for (let i = 0; i < n; i++) {
    if (isLast[i] === 1) continue;
    if (last.length > 0) neighbours[i] = neighbours[i]!.filter((j) => isLast[j] === 0);
    queue.put(i, neighbours[i]!.length);
  }
  /** In which step an unknown was last in the ring, an element last counted; how much of it lies outside the ring. */
  const [inRing, counted] = [new Int32Array(n).fill(-1), new Int32Array(n).fill(-1)];
  const outside = new Int32Array(n);
  const order = new Int32Array(n);
  const others = n - last.length;
  order.set(last, others);
  for (let k = 0; k < others; k++) {
    const pivot = queue.takeLeast();
    order[k] = pivot;
    inRing[pivot] = k;
    const ring: number[] = [];
    const join = (list: readonly number[]) => {
      for (const i of list) {
        if (inRing[i] === k) continue;
        inRing[i] = k;
        ring.push(i);
      }
    };
    join(neighbours[pivot]!);
    for (const e of elements[pivot]!) {
      join(members[e]!);
      absorbed[e] = 1;
    }
    members[pivot] = ring;
    for (const i of ring) {
      for (const e of elements[i]!) {
        if (counted[e] !== k) {
          counted[e] = k;
          outside[e] = members[e]!.length;
        }
        outside[e]!--;
      }
    }
    for (const i of ring) {
      const near = (neighbours[i] = neighbours[i]!.filter((j) => inRing[j] !== k));
      let degree = near.length + ring.length - 1;
      // An element that lies within the ring says nothing beyond it.
      const kept = elements[i]!.filter((e) => absorbed[e] === 0 && outside[e]! > 0);
      for (const e of kept) degree += outside[e]!;
      kept.push(pivot);
      elements[i] = kept;
      queue.move(i, Math.min(degree, others - k - 2));
    }
  }
  return order;
}

/**
 * Unknowns by degree, in doubly linked lists. Of equal degrees the one that has
 * waited longest comes first: so elimination goes round the whole, and does not
 * grow one element through it.
 */
class DegreeQueue {
  private readonly head: Int32Array;
  private readonly tail: Int32Array;
  private readonly next: Int32Array;
  private readonly before: Int32Array;
  private readonly degree: Int32Array;
  private least = 0;

  constructor(n: number) {
    const none = () => new Int32Array(n).fill(-1);
    [this.head, this.tail, this.next, this.before, this.degree] = [none(), none(), none(), none(), none()];
  }

  put(i: number, degree: number): void {
    const last = this.tail[degree]!;
    this.before[i] = last;
    this.next[i] = -1;
    if (last >= 0) this.next[last] = i;
    else this.head[degree] = i;
    this.tail[degree] = i;
    this.degree[i] = degree;
    if (degree < this.least) this.least = degree;
  }

  move(i: number, degree: number): void {
    this.remove(i);
    this.put(i, degree);
  }

  takeLeast(): number {
    while (this.head[this.least]! < 0) this.least++;
    const i = this.head[this.least]!;
    this.remove(i);
    return i;
  }

  private remove(i: number): void {
    const [a, b, degree] = [this.before[i]!, this.next[i]!, this.degree[i]!];
    if (a >= 0) this.next[a] = b;
    else this.head[degree] = b;
    if (b >= 0) this.before[b] = a;
    else this.tail[degree] = a;
  }
}
