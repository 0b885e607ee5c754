/** What a ledger has found out so far about each of its entries, by their places; and how an edit renews it. */
import type { Quantity } from '../dimensions/evaluate.ts';
import { runNumeric, type Numeric, type Shape } from '../dimensions/numeric.ts';
import { downstream } from './changed.ts';

export type Value =
  | { readonly ok: true; readonly quantity: Quantity }
  | { readonly ok: false; readonly message: string; readonly from: number; readonly to: number };

/** Filled from the start: lists with holes are slow. */
const nothing = (count: number) => Array.from<undefined>({ length: count }).fill(undefined);

export class Findings {
  private constructor(
    private readonly values: (Value | undefined)[],
    /** The numbers alone, in mm, rad or as they are; NaN where there is none. */
    private readonly numbers: Float64Array,
    /** Its arithmetic, while neither its expression nor the units of what it uses change; null where it has none. */
    private readonly numerics: (Numeric | null | undefined)[],
    /** References it uses directly. */
    readonly uses: (readonly string[] | undefined)[],
    /** Expressions as people read them. */
    readonly texts: (string | undefined)[],
  ) {}

  static none(count: number): Findings {
    const numbers = new Float64Array(count).fill(NaN);
    return new Findings(nothing(count), numbers, nothing(count), nothing(count), nothing(count));
  }

  /** The same, to be renewed by an edit. @param renamed expressions may read otherwise */
  handOn(renamed: boolean): Findings {
    const texts = renamed ? nothing(this.texts.length) : [...this.texts];
    return new Findings([...this.values], this.numbers.slice(), [...this.numerics], [...this.uses], texts);
  }

  /** The value of a place, if it is known by now. */
  value(slot: number): Value | undefined {
    const known = this.values[slot];
    if (known || Number.isNaN(this.numbers[slot])) return known;
    const { powers, bare } = this.numerics[slot]!.shape;
    return (this.values[slot] = { ok: true, quantity: { value: this.numbers[slot]!, powers, bare } });
  }

  keep(slot: number, value: Value): Value {
    this.numbers[slot] = value.ok ? value.quantity.value : NaN;
    return (this.values[slot] = value);
  }

  /**
   * Compute anew what hangs on the stale: where only numbers can have changed, by arithmetic alone.
   * @param before what was found before the edit
   * @param users for each place, those that use it
   * @param evaluate the value of a place from its expression
   * @param compile the arithmetic of a place, by the units of what it used before
   */
  renew(
    before: Findings,
    stale: ReadonlySet<number>,
    users: readonly (readonly number[])[],
    evaluate: (slot: number) => Value,
    compile: (slot: number) => Numeric | null,
  ): void {
    const { values, numbers, numerics } = this;
    const order = downstream(stale, users);
    for (const slot of order) {
      values[slot] = undefined;
      numbers[slot] = NaN;
    }
    /** Places that have come to be of another unit, or without a value. */
    const reshaped = new Set<number>();
    for (const slot of order) {
      // What had no value, or what nobody asked for, is computed when somebody asks.
      if (Number.isNaN(before.numbers[slot])) continue;
      if (!stale.has(slot) && Number.isNaN(numbers[slot])) {
        const numeric = (numerics[slot] ??= compile(slot));
        if (numeric && (reshaped.size === 0 || !numeric.slots.some((s) => reshaped.has(s)))) {
          const number = runNumeric(numeric, numbers);
          if (Number.isFinite(number)) {
            numbers[slot] = number;
            continue;
          }
        }
      }
      const [was, is] = [before.value(slot), evaluate(slot)];
      if (!was?.ok || !is.ok || !sameShape(was.quantity, is.quantity)) reshaped.add(slot);
    }
    for (const slot of stale) numerics[slot] = undefined;
    for (const slot of reshaped) for (const user of [slot, ...users[slot]!]) numerics[user] = undefined;
  }
}

function sameShape(a: Shape, b: Shape): boolean {
  return a.powers.length === b.powers.length && a.powers.angle === b.powers.angle && a.bare === b.bare;
}
