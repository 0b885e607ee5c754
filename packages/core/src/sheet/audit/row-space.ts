/** Rows added one by one, each told whether it says something that those before it do not (Gram–Schmidt, twice). */
const SAYS = 1e-7;

export class RowSpace<T> {
  private readonly basis: Float64Array[] = [];
  /** Of each row of the basis, which of the rows that were added made it, and how much of each. */
  private readonly made: Map<number, number>[] = [];
  private readonly added: T[] = [];

  constructor(readonly width: number) {}

  get rank(): number {
    return this.basis.length;
  }

  /** Would it say something new? */
  says(row: Float64Array): boolean {
    return Math.hypot(...this.reduced(row).rest) > SAYS;
  }

  /** @returns null when it says something new; else whose rows it follows from */
  add(row: Float64Array, of: T): readonly T[] | null {
    const own = this.added.push(of) - 1;
    const { rest, from, size } = this.reduced(row);
    const left = Math.hypot(...rest);
    if (left <= SAYS) return [...from].filter(([, by]) => Math.abs(by) > SAYS).map(([i]) => this.added[i]!);
    const made = new Map([...from].map(([i, by]) => [i, -by / left] as const));
    made.set(own, 1 / (size * left));
    this.basis.push(rest.map((x) => x / left));
    this.made.push(made);
    return null;
  }

  private reduced(row: Float64Array): { rest: Float64Array; from: Map<number, number>; size: number } {
    const size = Math.hypot(...row);
    const from = new Map<number, number>();
    if (size === 0) return { rest: row, from, size: 1 };
    const rest = row.map((x) => x / size);
    for (let twice = 0; twice < 2; twice++)
      this.basis.forEach((b, k) => {
        let f = 0;
        for (let i = 0; i < b.length; i++) f += b[i]! * rest[i]!;
        if (f === 0) return;
        for (let i = 0; i < b.length; i++) rest[i]! -= f * b[i]!;
        for (const [i, by] of this.made[k]!) from.set(i, (from.get(i) ?? 0) + f * by);
      });
    return { rest, from, size };
  }
}
