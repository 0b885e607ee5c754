/** The values of all dimensions of a design, computed on demand along their dependencies. */
import { asKind, evaluate, type Quantity } from '../dimensions/evaluate.ts';
import { ExpressionError } from '../dimensions/lexer.ts';
import { namesIn, parseExpression, type Expression, type Span } from '../dimensions/parser.ts';
import type { Design } from '../document/schema.ts';
import { formatQuantity, kindOfPowers, UNITS, unitNamed, type QuantityKind } from '../units/units.ts';
import { collectEntries, type DimensionEntry } from './entries.ts';
import { bindNames, missingName, NameIndex, scopeOf, showNames, type Scope } from './names.ts';

export type Value =
  | { readonly ok: true; readonly quantity: Quantity }
  | { readonly ok: false; readonly message: string; readonly from: number; readonly to: number };

export class Ledger {
  readonly entries: readonly DimensionEntry[];
  readonly index: NameIndex;
  private readonly values = new Map<string, Value>();
  private readonly trees = new Map<string, Expression | ExpressionError>();
  /** Entries whose computation has begun, each used by the one before it. */
  private readonly pending: DimensionEntry[] = [];

  constructor(private readonly design: Design) {
    this.entries = collectEntries(design);
    this.index = new NameIndex(this.entries);
  }

  /** The value of the dimension with this reference. */
  valueOf(ref: string): Value {
    const entry = this.index.byReference(ref);
    return entry ? this.valueOfEntry(entry) : { ok: false, message: 'There is no such dimension.', from: 0, to: 0 };
  }

  /** Walks the dependencies with a list rather than recursion: chains may be thousands long. */
  valueOfEntry(entry: DimensionEntry): Value {
    const pending = this.pending;
    const bottom = pending.length;
    pending.push(entry);
    while (pending.length > bottom) {
      const top = pending.at(-1)!;
      const next = this.values.has(top.ref) ? undefined : this.nextUnvalued(top);
      if (next) {
        pending.push(next);
        continue;
      }
      if (!this.values.has(top.ref)) this.values.set(top.ref, this.compute(top));
      pending.pop();
    }
    return this.values.get(entry.ref)!;
  }

  private nextUnvalued(entry: DimensionEntry): DimensionEntry | undefined {
    for (const ref of this.dependenciesOf(entry)) {
      const used = this.index.byReference(ref)!;
      if (!this.values.has(ref) && !this.pending.includes(used)) return used;
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

  /** References an entry's expression uses directly. */
  dependenciesOf(entry: DimensionEntry): string[] {
    const tree = this.treeOf(entry);
    if (tree instanceof ExpressionError) return [];
    const refs = new Set<string>();
    for (const node of namesIn(tree)) {
      const found = this.entryNamed(node.name, scopeOf(entry));
      if (found.kind === 'one') refs.add(found.entry.ref);
    }
    return [...refs];
  }

  /** An entry's expression as people read it. */
  shown(entry: DimensionEntry): string {
    return showNames(entry.expression, scopeOf(entry), this.index);
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
      const tree = this.treeOf(entry);
      if (tree instanceof ExpressionError) throw tree;
      return { ok: true, quantity: this.evaluateTree(tree, scopeOf(entry), entry.kind) };
    } catch (error) {
      return failure(error);
    }
  }

  private treeOf(entry: DimensionEntry): Expression | ExpressionError {
    let tree = this.trees.get(entry.ref);
    if (!tree) {
      try {
        tree = parseExpression(entry.expression);
      } catch (error) {
        if (!(error instanceof ExpressionError)) throw error;
        tree = error;
      }
      this.trees.set(entry.ref, tree);
    }
    return tree;
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
        const start = this.values.has(used.ref) ? -1 : this.pending.indexOf(used);
        if (start >= 0) throw new ExpressionError(circle([...this.pending.slice(start), used]), at.from, at.to);
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
