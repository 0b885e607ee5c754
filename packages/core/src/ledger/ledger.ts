/** The values of all dimensions of a design, computed on demand along their dependencies. */
import { asKind, evaluate, type Quantity } from '../dimensions/evaluate.ts';
import { ExpressionError } from '../dimensions/lexer.ts';
import { namesIn, parseExpression, type Expression, type Span } from '../dimensions/parser.ts';
import { isBound, treeOf } from '../dimensions/trees.ts';
import type { Design } from '../document/schema.ts';
import { formatQuantity, kindOfPowers, powersOfKind, UNITS, unitNamed, type QuantityKind } from '../units/units.ts';
import { changedEntries, reachedFrom } from './changed.ts';
import { collectEntries, type DimensionEntry, type Measured } from './entries.ts';
import { bindNames, missingName, NameIndex, scopeOf, showNames, type Scope } from './names.ts';

export type Value =
  | { readonly ok: true; readonly quantity: Quantity }
  | { readonly ok: false; readonly message: string; readonly from: number; readonly to: number };

/** The ledger of each document, so that none is computed twice. */
const known = new WeakMap<Design, Ledger>();
/** The one computed last: the next differs from it by one edit, mostly. */
let latest: Ledger | null = null;

export class Ledger {
  /** Entries whose computation has begun, each used by the one before it. */
  private readonly pending = new Set<DimensionEntry>();
  /** Who uses what directly; handed on to the next ledger of the same names. */
  private users: Map<string, Set<string>> | null = null;

  private constructor(
    private readonly design: Design,
    readonly entries: readonly DimensionEntry[],
    readonly index: NameIndex,
    private readonly values: Map<string, Value>,
    private readonly uses: Map<string, readonly string[]>,
    /** Expressions as people read them. */
    private readonly texts: Map<string, string> = new Map(),
  ) {}

  /** The ledger of a design; what an edit did not touch is taken from the one before. */
  static of(design: Design): Ledger {
    const own = known.get(design) ?? (latest && Ledger.after(latest, design)) ?? Ledger.fresh(design);
    known.set(design, own);
    latest = own;
    return own;
  }

  /** The ledger of a design, computed from nothing. */
  static fresh(design: Design): Ledger {
    const entries = collectEntries(design);
    return new Ledger(design, entries, NameIndex.of(entries), new Map(), new Map());
  }

  private static after(before: Ledger, design: Design): Ledger | null {
    const found = changedEntries(before.design, design, before.entries);
    if (!found) return null;
    const { changed, renamed } = found;
    const values = new Map(before.values);
    const uses = new Map(before.uses);
    const users = before.usersOfAll();
    // Handed on and brought up to date; the ledger before finds its own again if asked.
    before.users = null;
    const entries = changed.size > 0 ? before.entries.map((e) => changed.get(e.ref) ?? e) : before.entries;
    const other = [...changed.values()].filter((e) => !sameNumber(e, before.index.byReference(e.ref)!));
    const stale = new Set(other.map((e) => e.ref));
    if (renamed) {
      // Only what names dimensions by id is sure to mean the same under new names.
      for (const e of entries) if (!values.get(e.ref)?.ok || (!e.measured && !isBound(e.expression))) stale.add(e.ref);
    }
    for (const ref of reachedFrom(stale, (r) => users.get(r))) values.delete(ref);
    const index = renamed ? NameIndex.of(entries) : before.index.with([...changed.values()]);
    const texts = renamed ? new Map<string, string>() : new Map(before.texts);
    for (const ref of changed.keys()) texts.delete(ref);
    const after = new Ledger(design, entries, index, values, uses, texts);
    for (const ref of renamed ? stale : other.map((e) => e.ref)) {
      const entry = index.byReference(ref)!;
      for (const used of uses.get(ref) ?? []) users.get(used)?.delete(ref);
      uses.delete(ref);
      for (const used of after.dependenciesOf(entry)) addTo(users, used, ref);
    }
    after.users = users;
    return after;
  }

  private usersOfAll(): Map<string, Set<string>> {
    if (this.users) return this.users;
    this.users = new Map();
    for (const entry of this.entries) for (const used of this.dependenciesOf(entry)) addTo(this.users, used, entry.ref);
    return this.users;
  }

  /** References of the dimensions that use this one directly. */
  usersOf(ref: string): string[] {
    return [...(this.usersOfAll().get(ref) ?? [])];
  }

  /** The value of the dimension with this reference. */
  valueOf(ref: string): Value {
    const entry = this.index.byReference(ref);
    return entry ? this.valueOfEntry(entry) : { ok: false, message: 'There is no such dimension.', from: 0, to: 0 };
  }

  /** Walks the dependencies with a list rather than recursion: chains may be thousands long. */
  valueOfEntry(entry: DimensionEntry): Value {
    const known = this.values.get(entry.ref);
    if (known) return known;
    if (this.pending.size === 0 && !this.nextUnvalued(entry)) {
      const value = this.compute(entry);
      this.values.set(entry.ref, value);
      return value;
    }
    const path = [entry];
    this.pending.add(entry);
    while (path.length > 0) {
      const top = path.at(-1)!;
      const next = this.nextUnvalued(top);
      if (next) {
        path.push(next);
        this.pending.add(next);
        continue;
      }
      this.values.set(top.ref, this.compute(top));
      this.pending.delete(top);
      path.pop();
    }
    return this.values.get(entry.ref)!;
  }

  private nextUnvalued(entry: DimensionEntry): DimensionEntry | undefined {
    for (const ref of this.dependenciesOf(entry)) {
      const used = this.index.byReference(ref)!;
      if (!this.values.has(ref) && !this.pending.has(used)) return used;
    }
    return undefined;
  }

  /** A dimension's value in mm, rad or as a number, for geometry. @throws ExpressionError */
  number(ref: string): number {
    const value = this.valueOf(ref);
    if (!value.ok) throw new ExpressionError(value.message, value.from, value.to);
    return value.quantity.value;
  }

  /** Read any text as an expression standing at `scope`. */
  read(text: string, scope: Scope, kind: QuantityKind | null): Value {
    try {
      return { ok: true, quantity: this.evaluateTree(parseExpression(text), scope, kind) };
    } catch (error) {
      return failure(error);
    }
  }

  /** References an entry uses directly: in its expression or, when it is measured, in what it is measured on. */
  dependenciesOf(entry: DimensionEntry): readonly string[] {
    let refs = this.uses.get(entry.ref);
    if (!refs) {
      refs = entry.measured ? this.behind(entry.measured) : this.usedIn(entry);
      this.uses.set(entry.ref, refs);
    }
    return refs;
  }

  private usedIn(entry: DimensionEntry): string[] {
    const tree = treeOf(entry.expression);
    if (tree instanceof ExpressionError) return [];
    const refs = new Set<string>();
    for (const node of namesIn(tree)) {
      const found = this.entryNamed(node.name, scopeOf(entry));
      if (found.kind === 'one') refs.add(found.entry.ref);
    }
    return [...refs];
  }

  /** All numbers that can move what is measured: those of the part's steps up to there. */
  private behind(measured: Measured): string[] {
    const steps = this.design.parts[measured.part]?.stepOrder ?? [];
    const last = measured.of === 'sketch' ? measured.step : measured.after;
    const end = last === null ? steps.length : steps.indexOf(last) + 1;
    const counts = new Set(steps.slice(0, end));
    return this.entries.flatMap((e) =>
      'step' in e.owner && counts.has(e.owner.step) && (!e.measured || e.owner.step !== last) ? [e.ref] : [],
    );
  }

  /** An entry's expression as people read it. */
  shown(entry: DimensionEntry): string {
    let text = this.texts.get(entry.ref);
    if (text === undefined) {
      text = this.shownText(entry.expression, entry);
      this.texts.set(entry.ref, text);
    }
    return text;
  }

  /** Any stored expression that stands beside an entry's own: an end of its range, a cell of a variant. */
  shownText(expression: string, entry: DimensionEntry): string {
    return showNames(expression, scopeOf(entry), this.index);
  }

  /**
   * Typed text made fit to be stored: names become references, and bare numbers
   * get the unit they were read in, so that neither renaming nor another display
   * unit changes what was meant.
   * @param kind what the place wants; null where any will do
   * @throws ExpressionError when the text cannot be read
   */
  bind(text: string, scope: Scope, kind: QuantityKind | null): string {
    const named = bindNames(text, scope, this.index);
    const took: { node: Expression; kind: QuantityKind }[] = [];
    try {
      this.evaluateTree(parseExpression(named), scope, kind, (node, unit) => took.push({ node, kind: unit }));
    } catch (error) {
      // What has no value yet is stored as typed and says so where it stands.
      if (error instanceof ExpressionError) return named;
      throw error;
    }
    const { length, angle } = this.design.units;
    let result = named;
    for (const { node, kind: of } of took.sort((a, b) => b.node.from - a.node.from)) {
      const unit = of === 'length' ? length : angle;
      const own = result.slice(node.from, node.to);
      const written = node.kind === 'number' ? `${own} ${unit}` : `(${own}) * 1 ${unit}`;
      result = result.slice(0, node.from) + written + result.slice(node.to);
    }
    return result;
  }

  private compute(entry: DimensionEntry): Value {
    try {
      const { measured } = entry;
      if (measured) this.refuseCircle(entry);
      if (measured?.of === 'sketch') {
        const powers = powersOfKind(entry.kind ?? 'length');
        return { ok: true, quantity: { value: measured.value, powers, bare: false } };
      }
      const tree = treeOf(entry.expression);
      if (tree instanceof ExpressionError) throw tree;
      return { ok: true, quantity: this.evaluateTree(tree, scopeOf(entry), entry.kind) };
    } catch (error) {
      return failure(error);
    }
  }

  /** A measured number has its reading; it must not stand on itself all the same. */
  private refuseCircle(entry: DimensionEntry): void {
    for (const ref of this.dependenciesOf(entry)) {
      const used = this.index.byReference(ref)!;
      if (!this.values.has(ref) && this.pending.has(used))
        throw new ExpressionError(circle(this.pendingFrom(used)), 0, entry.expression.length);
      const value = this.values.get(ref);
      if (value && !value.ok && value.message.includes(IN_A_CIRCLE)) throw new ExpressionError(value.message, 0, 0);
    }
  }

  private pendingFrom(entry: DimensionEntry): DimensionEntry[] {
    const path = [...this.pending];
    return [...path.slice(path.indexOf(entry)), entry];
  }

  private entryNamed(name: string, scope: Scope) {
    if (!name.startsWith('$')) return this.index.find(name, scope);
    const entry = this.index.byReference(name.slice(1));
    return entry ? ({ kind: 'one', entry } as const) : ({ kind: 'none' } as const);
  }

  private evaluateTree(
    tree: Expression,
    scope: Scope,
    kind: QuantityKind | null,
    tookUnit?: (node: Expression, kind: QuantityKind) => void,
  ): Quantity {
    const units = this.design.units;
    const lookUp = (name: string, at: Span): Quantity => {
      const found = this.entryNamed(name, scope);
      if (found.kind === 'one') {
        const used = found.entry;
        if (!this.values.has(used.ref) && this.pending.has(used))
          throw new ExpressionError(circle(this.pendingFrom(used)), at.from, at.to);
        const value = this.valueOfEntry(used);
        if (value.ok) return value.quantity;
        const message = value.message.includes(IN_A_CIRCLE)
          ? value.message
          : `${used.path.join('.')} has no value: ${value.message}`;
        throw new ExpressionError(message, at.from, at.to);
      }
      const unit = unitNamed(name);
      if (unit) throw new ExpressionError(`“${name}” is a unit and needs a number before it.`, at.from, at.to);
      throw missingName(name, found, this.index, at);
    };
    const context = { units, lookUp, ...(tookUnit ? { tookUnit } : {}) };
    const quantity = evaluate(tree, context);
    return kind ? asKind(quantity, kind, tree, context) : quantity;
  }

  /** A value in the design's units, or `?` when there is none. */
  format(value: Value): string {
    if (!value.ok) return '?';
    const { powers, value: number } = value.quantity;
    const kind = kindOfPowers(powers);
    if (kind) return formatQuantity(number, kind, this.design.units);
    const factor =
      UNITS[this.design.units.length]!.factor ** powers.length * UNITS[this.design.units.angle]!.factor ** powers.angle;
    const unit = [
      ...(powers.length ? [`${this.design.units.length}${power(powers.length)}`] : []),
      ...(powers.angle ? [`${this.design.units.angle}${power(powers.angle)}`] : []),
    ];
    return `${formatQuantity(number / factor, 'number', this.design.units)} ${unit.join('·')}`;
  }
}

/** Do two entries of one reference differ at most in how they are named and described? */
function sameNumber(a: DimensionEntry, b: DimensionEntry): boolean {
  return a.expression === b.expression && a.kind === b.kind && a.measured === null && b.measured === null;
}

function addTo(map: Map<string, Set<string>>, key: string, value: string): void {
  const own = map.get(key);
  if (own) own.add(value);
  else map.set(key, new Set([value]));
}

function power(n: number): string {
  return n === 1 ? '' : n === 2 ? '²' : n === 3 ? '³' : `^${n}`;
}

const IN_A_CIRCLE = 'goes in a circle';

function circle(entries: readonly DimensionEntry[]): string {
  return `${entries.map((e) => e.path.join('.')).join(' → ')} ${IN_A_CIRCLE}; give one of them a number of its own.`;
}

function failure(error: unknown): Value {
  if (error instanceof ExpressionError) return { ok: false, message: error.message, from: error.from, to: error.to };
  throw error;
}
