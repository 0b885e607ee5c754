/** What was asked of the kernel before, by all that it shows: what an edit does not touch is not asked again. */
export class Known<V> {
  private readonly values = new Map<string, V>();

  /** @param most how many are kept; those not asked for longest go first */
  constructor(private readonly most = 60) {}

  of(key: string, make: () => V): V {
    const value = this.values.get(key) ?? make();
    this.values.delete(key);
    this.values.set(key, value);
    if (this.values.size > this.most) this.values.delete(this.values.keys().next().value!);
    return value;
  }
}
