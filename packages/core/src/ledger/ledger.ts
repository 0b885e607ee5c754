/** The values of all dimensions of a design, computed on demand along their dependencies. */
import { asKind, evaluate, type Quantity } from '../dimensions/evaluate.ts';
import { ExpressionError } from '../dimensions/lexer.ts';
import { compileNumeric, type Numeric } from '../dimensions/numeric.ts';
import { namesIn, parseExpression, type Expression, type Span } from '../dimensions/parser.ts';
import { isBound, treeOf } from '../dimensions/trees.ts';
import { lendersOf } from '../document/outside.ts';
import type { Design } from '../document/schema.ts';
import { formatProduct, powersOfKind, unitNamed, type QuantityKind } from '../units/units.ts';
import { changedEntries } from './changed.ts';
import { collectEntries, type DimensionEntry, type Measured } from './entries.ts';
import { Findings, type Value } from './findings.ts';
import { bindNames, missingName, NameIndex, scopeOf, showNames, type Scope } from './names.ts';

export type { Value };

/** The ledger of each document, so that none is computed twice. */
const known = new WeakMap<Design, Ledger>();
/** The one computed last: the next differs from it by one edit, mostly. */
let latest: Ledger | null = null;

export class Ledger {
  /** Entries whose computation has begun, each used by the one before it. */
  private readonly pending = new Set<DimensionEntry>();
  /** Who uses what directly, by place; shared with the next ledgers of the same places. */
  private users: readonly (readonly number[])[] | null = null;

  private constructor(
    private readonly design: Design,
    readonly entries: readonly DimensionEntry[],
    readonly index: NameIndex,
    private readonly found: Findings,
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
    return new Ledger(design, entries, NameIndex.of(entries), Findings.none(entries.length));
  }

  private static after(before: Ledger, design: Design): Ledger | null {
    const edit = changedEntries(before.design, design, before.entries);
    if (!edit) return null;
    const { changed, renamed } = edit;
    const slotOf = (ref: string) => before.index.slotOf(ref)!;
    const entries = changed.size > 0 ? [...before.entries] : before.entries;
    for (const [ref, entry] of changed) (entries as DimensionEntry[])[slotOf(ref)] = entry;
    const found = before.found.handOn(renamed);
    const index = renamed ? NameIndex.of(entries) : before.index.with(entries);
    const after = new Ledger(design, entries, index, found);
    const stale = new Set<number>();
    for (const [ref, entry] of changed) {
      const slot = slotOf(ref);
      found.texts[slot] = undefined;
      if (!sameNumber(entry, before.entries[slot]!)) stale.add(slot);
    }
    // Under new names, only what names dimensions by id is sure to mean the same.
    if (renamed)
      for (const [slot, e] of entries.entries())
        if (!before.found.value(slot)?.ok || (!e.measured && !isBound(e.expression))) stale.add(slot);
    after.takeUsers(before, stale);
    found.renew(
      before.found,
      stale,
      after.users!,
      (slot) => after.valueOfEntry(entries[slot]!),
      (slot) => after.numericOf(slot, before.found),
    );
    return after;
  }

  /** Take over who uses what, brought up to date; the same list where nothing uses anything else than before. */
  private takeUsers(before: Ledger, stale: ReadonlySet<number>): void {
    const known = before.usersOfAll();
    let users: (readonly number[])[] | null = null;
    for (const slot of stale) {
      const was = this.found.uses[slot] ?? [];
      this.found.uses[slot] = undefined;
      const is = this.dependenciesOf(this.entries[slot]!);
      if (was.length === is.length && was.every((ref, i) => ref === is[i])) continue;
      users ??= [...known];
      for (const used of was.map((ref) => this.index.slotOf(ref)!))
        users[used] = users[used]!.filter((user) => user !== slot);
      for (const used of is.map((ref) => this.index.slotOf(ref)!)) users[used] = [...users[used]!, slot];
    }
    this.users = users ?? known;
  }

  /** @param before what it uses, when it was last computed */
  private numericOf(slot: number, before: Findings): Numeric | null {
    const { expression, kind, measured } = this.entries[slot]!;
    const tree = measured ? null : treeOf(expression);
    if (!tree || tree instanceof ExpressionError) return null;
    return compileNumeric(tree, kind, this.design.units, (name) => {
      const used = this.index.slotOf(name.slice(1));
      const value = used === undefined ? undefined : before.value(used);
      return value?.ok ? { slot: used!, shape: value.quantity } : null;
    });
  }

  /** For each entry, by its place, the places of those that use it directly; the same list as long as no link changes. */
  usersOfAll(): readonly (readonly number[])[] {
    if (this.users) return this.users;
    const users: number[][] = this.entries.map(() => []);
    for (const [slot, entry] of this.entries.entries())
      for (const used of this.dependenciesOf(entry)) users[this.index.slotOf(used)!]!.push(slot);
    return (this.users = users);
  }

  /** References of the dimensions that use this one directly. */
  usersOf(ref: string): string[] {
    const slot = this.index.slotOf(ref);
    return slot === undefined ? [] : this.usersOfAll()[slot]!.map((user) => this.entries[user]!.ref);
  }

  /** The value of the dimension with this reference. */
  valueOf(ref: string): Value {
    const entry = this.index.byReference(ref);
    return entry ? this.valueOfEntry(entry) : { ok: false, message: 'There is no such dimension.', from: 0, to: 0 };
  }

  private known(ref: string): Value | undefined {
    return this.found.value(this.index.slotOf(ref)!);
  }

  private keep(entry: DimensionEntry): Value {
    return this.found.keep(this.index.slotOf(entry.ref)!, this.compute(entry));
  }

  /** Walks the dependencies with a list rather than recursion: chains may be thousands long. */
  valueOfEntry(entry: DimensionEntry): Value {
    const known = this.known(entry.ref);
    if (known) return known;
    if (this.pending.size === 0 && !this.nextUnvalued(entry)) return this.keep(entry);
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
      this.keep(top);
      this.pending.delete(top);
      path.pop();
    }
    return this.known(entry.ref)!;
  }

  private nextUnvalued(entry: DimensionEntry): DimensionEntry | undefined {
    for (const ref of this.dependenciesOf(entry)) {
      const used = this.index.byReference(ref)!;
      if (!this.known(ref) && !this.pending.has(used)) return used;
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
    const { uses } = this.found;
    const slot = this.index.slotOf(entry.ref)!;
    return (uses[slot] ??= entry.measured ? this.behind(entry.measured) : this.usedIn(entry));
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

  /**
   * All numbers that can move what is measured: those of the part's steps up to there, and of the parts these borrow
   * from. Where the lenders stand is left out: it hangs on few of the numbers there, and sound designs would be refused.
   */
  private behind(measured: Measured): string[] {
    const steps = this.design.parts[measured.part]?.stepOrder ?? [];
    const last = measured.of === 'sketch' ? measured.step : measured.after;
    const first = last === null ? steps : steps.slice(0, steps.indexOf(last) + 1);
    const counts = new Set(first);
    const lent = lendersOf(this.design, measured.part, first).steps;
    return this.entries.flatMap(({ ref, owner, measured: reads }) => {
      if (!('step' in owner)) return [];
      const own = counts.has(owner.step) && (!reads || owner.step !== last);
      return own || lent.has(owner.step) ? [ref] : [];
    });
  }

  /** An entry's expression as people read it. */
  shown(entry: DimensionEntry): string {
    const { texts } = this.found;
    return (texts[this.index.slotOf(entry.ref)!] ??= this.shownText(entry.expression, entry));
  }

  /** Any stored expression that stands beside an entry's own: an end of its range, a cell of a variant. */
  shownText(expression: string, entry: DimensionEntry): string {
    return this.shownAt(expression, scopeOf(entry));
  }

  /** A stored expression as people read it at `scope`. */
  shownAt(expression: string, scope: Scope): string {
    return showNames(expression, scope, this.index);
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
      if (!this.known(ref) && this.pending.has(used))
        throw new ExpressionError(circle(this.pendingFrom(used)), 0, entry.expression.length);
      const value = this.known(ref);
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
        if (!this.known(used.ref) && this.pending.has(used))
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
    return formatProduct(value.quantity.value, value.quantity.powers, this.design.units);
  }
}

/** Do two entries of one reference differ at most in how they are named and described? */
function sameNumber(a: DimensionEntry, b: DimensionEntry): boolean {
  return a.expression === b.expression && a.kind === b.kind && a.measured === null && b.measured === null;
}

const IN_A_CIRCLE = 'goes in a circle';

function circle(entries: readonly DimensionEntry[]): string {
  return `${entries.map((e) => e.path.join('.')).join(' → ')} ${IN_A_CIRCLE}; give one of them a number of its own.`;
}

function failure(error: unknown): Value {
  if (error instanceof ExpressionError) return { ok: false, message: error.message, from: error.from, to: error.to };
  throw error;
}
