/** Computes an expression's tree with units. Nothing but arithmetic can happen here. */
import {
  describePowers, displayFactor, NO_POWERS, powersOfKind, samePowers, unitNamed,
  type DisplayUnits, type Powers, type QuantityKind,
} from '../units/units.ts'; // prettier-ignore
import { ExpressionError } from './lexer.ts';
import type { Expression, Span } from './parser.ts';

export interface Quantity {
  /** In mm, rad, and their products. */
  readonly value: number;
  readonly powers: Powers;
  /** Built from unitless literals only: takes the unit of the field or of its neighbour. */
  readonly bare: boolean;
}

export interface EvaluationContext {
  readonly units: DisplayUnits;
  /** The value behind a name. @throws ExpressionError when there is none. */
  lookUp(name: string, at: Span): Quantity;
  /** Told of every bare number that took a unit, so that the unit can be written down. */
  tookUnit?(node: Expression, kind: QuantityKind): void;
}

const plain = (value: number): Quantity => ({ value, powers: NO_POWERS, bare: false });

/** @throws ExpressionError when units clash or a result is not a finite number. */
export function evaluate(tree: Expression, context: EvaluationContext): Quantity {
  const result = compute(tree, context);
  if (!Number.isFinite(result.value)) {
    throw new ExpressionError(
      'This does not come to a number; look for a division by zero or a root of a negative.',
      tree.from,
      tree.to,
    );
  }
  return result;
}

function compute(tree: Expression, context: EvaluationContext): Quantity {
  switch (tree.kind) {
    case 'number':
      return { value: tree.value, powers: NO_POWERS, bare: true };
    case 'measure': {
      const unit = unitNamed(tree.unit)!;
      return { value: tree.value * unit.factor, powers: unit.powers, bare: false };
    }
    case 'name':
      // A reference is never a constant; most names are references.
      if (tree.name.startsWith('$')) return context.lookUp(tree.name, tree);
      return constantNamed(tree.name) ?? context.lookUp(tree.name, tree);
    case 'negate': {
      const operand = compute(tree.operand, context);
      return { ...operand, value: -operand.value };
    }
    case 'binary':
      return binary(tree, evaluate(tree.left, context), evaluate(tree.right, context), context);
    case 'call':
      return call(tree, context);
  }
}

type Binary = Extract<Expression, { kind: 'binary' }>;
type Call = Extract<Expression, { kind: 'call' }>;

function binary(tree: Binary, left: Quantity, right: Quantity, context: EvaluationContext): Quantity {
  const bare = left.bare && right.bare;
  switch (tree.operator) {
    case '*':
      return {
        value: left.value * right.value,
        powers: productOf(left.powers, right.powers, 1),
        bare,
      };
    case '/':
      if (right.value === 0) throw new ExpressionError('This divides by zero.', tree.right.from, tree.right.to);
      return {
        value: left.value / right.value,
        powers: productOf(left.powers, right.powers, -1),
        bare,
      };
    case '^':
      return power(tree, left, right);
    default: {
      const [a, b] = alike(
        tree,
        tree.operator,
        { node: tree.left, is: left },
        { node: tree.right, is: right },
        context,
      );
      return sumOrComparison(tree.operator, a, b, bare);
    }
  }
}

function productOf(a: Powers, b: Powers, sign: 1 | -1): Powers {
  if (b.length === 0 && b.angle === 0) return a;
  return { length: a.length + sign * b.length, angle: a.angle + sign * b.angle };
}

function sumOrComparison(operator: string, a: Quantity, b: Quantity, bare: boolean): Quantity {
  const truth = (yes: boolean) => plain(yes ? 1 : 0);
  switch (operator) {
    case '+':
      return { value: a.value + b.value, powers: a.powers, bare };
    case '-':
      return { value: a.value - b.value, powers: a.powers, bare };
    case '<':
      return truth(a.value < b.value);
    case '>':
      return truth(a.value > b.value);
    case '<=':
      return truth(a.value <= b.value);
    case '>=':
      return truth(a.value >= b.value);
    case '==':
      return truth(a.value === b.value);
    default:
      return truth(a.value !== b.value);
  }
}

function power(tree: Binary, base: Quantity, exponent: Quantity): Quantity {
  if (!samePowers(exponent.powers, NO_POWERS)) {
    throw new ExpressionError('An exponent must be a plain number.', tree.right.from, tree.right.to);
  }
  const n = exponent.value;
  const powers = { length: base.powers.length * n, angle: base.powers.angle * n };
  if (!Number.isInteger(powers.length) || !Number.isInteger(powers.angle)) {
    throw new ExpressionError(`${describePowers(base.powers)} cannot be raised to the power ${n}.`, tree.from, tree.to);
  }
  return { value: base.value ** n, powers, bare: base.bare && exponent.bare };
}

const UNIT_OF: Readonly<Record<string, QuantityKind | undefined>> = { 'a length': 'length', 'an angle': 'angle' };

interface Operand {
  readonly node: Expression;
  readonly is: Quantity;
}

/** Bring two operands to the same powers: a bare number takes its neighbour's display unit. */
function alike(
  at: Span,
  operator: string,
  one: Operand,
  other: Operand,
  context: EvaluationContext,
): [Quantity, Quantity] {
  const [a, b] = [one.is, other.is];
  if (samePowers(a.powers, b.powers)) return [a, b];
  const promote = ({ node, is }: Operand, to: Quantity): Quantity | null => {
    const kind = UNIT_OF[describePowers(to.powers)];
    if (!is.bare || !samePowers(is.powers, NO_POWERS) || !kind) return null;
    context.tookUnit?.(node, kind);
    return { value: is.value * displayFactor(kind, context.units), powers: to.powers, bare: false };
  };
  const up = promote(one, b);
  if (up) return [up, b];
  const down = promote(other, a);
  if (down) return [a, down];
  const verb = operator === '+' ? 'added to' : operator === '-' ? 'subtracted from' : 'compared with';
  const [first, second] = operator === '-' ? [b, a] : [a, b];
  throw new ExpressionError(
    `${capital(describePowers(first.powers))} cannot be ${verb} ${describePowers(second.powers)}.`,
    at.from,
    at.to,
  );
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** Angle of a trigonometric argument: an angle, or a bare number in the design's angle unit. */
function angleOf(q: Quantity, at: Expression, context: EvaluationContext): number {
  return asKind(q, 'angle', at, context).value;
}

type Rule = (args: readonly Quantity[], tree: Call, context: EvaluationContext) => Quantity;

const trig =
  (f: (x: number) => number): Rule =>
  ([x], tree, context) =>
    plain(f(angleOf(x!, tree.args[0]!, context)));

const inverseTrig =
  (f: (x: number) => number): Rule =>
  ([x], tree) => {
    if (!samePowers(x!.powers, NO_POWERS))
      throw new ExpressionError(`${tree.name} takes a plain number.`, tree.from, tree.to);
    return { value: f(x!.value), powers: powersOfKind('angle'), bare: false };
  };

const keepsUnit =
  (f: (x: number) => number): Rule =>
  ([x]) => ({ ...x!, value: f(x!.value) });

/** Rounding a length means rounding in the design's unit: round(12.4 mm) is 12 mm. */
const rounding =
  (f: (x: number) => number): Rule =>
  ([x, step], tree, context) => {
    const kind = UNIT_OF[describePowers(x!.powers)];
    if (!step) {
      const unit = kind ? displayFactor(kind, context.units) : 1;
      return { ...x!, value: f(x!.value / unit) * unit };
    }
    const [value, to] = alike(
      tree,
      'compared with',
      { node: tree.args[0]!, is: x! },
      { node: tree.args[1]!, is: step },
      context,
    );
    if (to.value === 0)
      throw new ExpressionError('The step to round to must not be zero.', tree.args[1]!.from, tree.args[1]!.to);
    return { ...value, value: f(value.value / to.value) * to.value };
  };

const extreme =
  (f: (...xs: number[]) => number): Rule =>
  (args, tree, context) => {
    const at = Math.max(
      0,
      args.findIndex((a) => !a.bare),
    );
    const model = { node: tree.args[at]!, is: args[at]! };
    const same = args.map((is, i) => alike(tree, '<', { node: tree.args[i]!, is }, model, context)[0]);
    return { value: f(...same.map((a) => a.value)), powers: model.is.powers, bare: args.every((a) => a.bare) };
  };

const FUNCTIONS: Readonly<Record<string, { readonly args: readonly [number, number]; readonly rule: Rule }>> = {
  sin: { args: [1, 1], rule: trig(Math.sin) },
  cos: { args: [1, 1], rule: trig(Math.cos) },
  tan: { args: [1, 1], rule: trig(Math.tan) },
  asin: { args: [1, 1], rule: inverseTrig(Math.asin) },
  acos: { args: [1, 1], rule: inverseTrig(Math.acos) },
  atan: { args: [1, 1], rule: inverseTrig(Math.atan) },
  abs: { args: [1, 1], rule: keepsUnit(Math.abs) },
  floor: { args: [1, 2], rule: rounding(Math.floor) },
  ceil: { args: [1, 2], rule: rounding(Math.ceil) },
  round: { args: [1, 2], rule: rounding(Math.round) },
  min: { args: [1, 20], rule: extreme(Math.min) },
  max: { args: [1, 20], rule: extreme(Math.max) },
  sqrt: {
    args: [1, 1],
    rule: ([x], tree) => {
      const powers = { length: x!.powers.length / 2, angle: x!.powers.angle / 2 };
      if (!Number.isInteger(powers.length) || !Number.isInteger(powers.angle)) {
        throw new ExpressionError(
          `${capital(describePowers(x!.powers))} has no square root with a unit.`,
          tree.from,
          tree.to,
        );
      }
      return { value: Math.sqrt(x!.value), powers, bare: x!.bare };
    },
  },
  if: {
    args: [3, 3],
    rule: ([test, yes, no], tree, context) => {
      const [a, b] = alike(
        tree,
        'compared with',
        { node: tree.args[1]!, is: yes! },
        { node: tree.args[2]!, is: no! },
        context,
      );
      return test!.value !== 0 ? a : b;
    },
  },
};

const CONSTANTS: Readonly<Record<string, number>> = { pi: Math.PI };

/** Names an expression may use that no dimension can take. */
export const FUNCTION_NAMES: readonly string[] = Object.keys(FUNCTIONS);

export const RESERVED_NAMES: ReadonlySet<string> = new Set([...Object.keys(FUNCTIONS), ...Object.keys(CONSTANTS)]);

export function constantNamed(name: string): Quantity | undefined {
  return Object.hasOwn(CONSTANTS, name) ? { ...plain(CONSTANTS[name]!), bare: true } : undefined;
}

function call(tree: Call, context: EvaluationContext): Quantity {
  const found = Object.hasOwn(FUNCTIONS, tree.name) ? FUNCTIONS[tree.name] : undefined;
  if (!found)
    throw new ExpressionError(`There is no function called “${tree.name}”.`, tree.from, tree.from + tree.name.length);
  const [least, most] = found.args;
  if (tree.args.length < least || tree.args.length > most) {
    const wanted = least === most ? `${least}` : `${least} to ${most}`;
    throw new ExpressionError(
      `${tree.name} takes ${wanted} value${most === 1 ? '' : 's'} in its brackets.`,
      tree.from,
      tree.to,
    );
  }
  return found.rule(
    tree.args.map((a) => evaluate(a, context)),
    tree,
    context,
  );
}

/**
 * Read a result as the kind of quantity a field wants; a bare number takes the design's unit.
 * @throws ExpressionError when it is of another kind.
 */
export function asKind(
  q: Quantity,
  kind: QuantityKind,
  at: Expression,
  context: Pick<EvaluationContext, 'units' | 'tookUnit'>,
): Quantity {
  const wanted = powersOfKind(kind);
  if (samePowers(q.powers, wanted)) return q;
  if (q.bare && samePowers(q.powers, NO_POWERS)) {
    context.tookUnit?.(at, kind);
    return { value: q.value * displayFactor(kind, context.units), powers: wanted, bare: false };
  }
  throw new ExpressionError(
    `This is ${describePowers(q.powers)}, and ${describePowers(wanted)} is needed here.`,
    at.from,
    at.to,
  );
}
