/**
 * Plain arithmetic with its units worked out beforehand, so that a number can be had again, after those it
 * uses changed, many times as quickly as from the expression's tree. Whatever is not plain arithmetic on
 * references, or would be refused, is left to `evaluate`, which also has the words for it.
 */
import { displayFactor, kindOfPowers, NO_POWERS, powersOfKind, samePowers, unitNamed } from '../units/units.ts';
import type { DisplayUnits, Powers, QuantityKind } from '../units/units.ts';
import type { Quantity } from './evaluate.ts';
import type { Expression } from './parser.ts';

/** What a quantity is apart from its number. */
export type Shape = Pick<Quantity, 'powers' | 'bare'>;

export interface Numeric {
  readonly shape: Shape;
  /** The slots it reads. */
  readonly slots: readonly number[];
  /** Operations after one another, each of `Step` and, for the first two, what it takes: one flat list lies together in memory. */
  readonly steps: readonly number[];
}

/** Each puts its result on a stack, and all but the first two take what they work on from it. */
const Step = { number: 0, slot: 1, negate: 2, add: 3, subtract: 4, multiply: 5, divide: 6 } as const;

/**
 * @param kind what the result is read as, as by `asKind`
 * @param input the slot and the shape behind a reference, such as `$d7`; null when it has no value
 * @returns null for what must be evaluated from its tree
 */
export function compileNumeric(
  tree: Expression,
  kind: QuantityKind | null,
  units: DisplayUnits,
  input: (name: string) => { readonly slot: number; readonly shape: Shape } | null,
): Numeric | null {
  const slots: number[] = [];
  const steps: number[] = [];

  function compile(at: Expression): Shape | null {
    switch (at.kind) {
      case 'number':
        steps.push(Step.number, at.value);
        return { powers: NO_POWERS, bare: true };
      case 'measure': {
        const unit = unitNamed(at.unit)!;
        steps.push(Step.number, at.value * unit.factor);
        return { powers: unit.powers, bare: false };
      }
      case 'name': {
        const found = at.name.startsWith('$') ? input(at.name) : null;
        if (!found) return null;
        slots.push(found.slot);
        steps.push(Step.slot, found.slot);
        return found.shape;
      }
      case 'negate': {
        const shape = compile(at.operand);
        steps.push(Step.negate);
        return shape;
      }
      case 'binary':
        return at.operator === '*' || at.operator === '/' ? product(at, at.operator) : sum(at);
      case 'call':
        return null;
    }
  }

  type Binary = Extract<Expression, { kind: 'binary' }>;

  function product(at: Binary, operator: '*' | '/'): Shape | null {
    const left = compile(at.left);
    const right = left && compile(at.right);
    if (!right) return null;
    const sign = operator === '*' ? 1 : -1;
    steps.push(operator === '*' ? Step.multiply : Step.divide);
    const { powers: a } = left;
    const { powers: b } = right;
    const powers = { length: a.length + sign * b.length, angle: a.angle + sign * b.angle };
    return { powers, bare: left.bare && right.bare };
  }

  function sum(at: Binary): Shape | null {
    if (at.operator !== '+' && at.operator !== '-') return null;
    const left = compile(at.left);
    const middle = steps.length;
    const right = left && compile(at.right);
    if (!right) return null;
    // A bare number beside a length or an angle is one in the display unit.
    if (!samePowers(left.powers, right.powers)) {
      const [bare, other] = isPlain(left) ? [left, right] : [right, left];
      const factor = isPlain(bare) ? factorOf(other.powers) : null;
      if (factor === null) return null;
      steps.splice(bare === left ? middle : steps.length, 0, Step.number, factor, Step.multiply);
    }
    steps.push(at.operator === '+' ? Step.add : Step.subtract);
    return { powers: isPlain(left) ? right.powers : left.powers, bare: left.bare && right.bare };
  }

  const isPlain = ({ powers, bare }: Shape) => bare && samePowers(powers, NO_POWERS);

  function factorOf(powers: Powers): number | null {
    const of = kindOfPowers(powers);
    return of === 'length' || of === 'angle' ? displayFactor(of, units) : null;
  }

  const shape = compile(tree);
  if (!shape) return null;
  const wanted = kind && powersOfKind(kind);
  if (!wanted || samePowers(shape.powers, wanted)) return { shape, slots, steps };
  const factor = isPlain(shape) ? factorOf(wanted) : null;
  if (factor === null) return null;
  steps.push(Step.number, factor, Step.multiply);
  return { shape: { powers: wanted, bare: false }, slots, steps };
}

const stack: number[] = [];

/**
 * @param numbers what is in each slot in mm, rad or as it is; NaN where there is none
 * @returns not a finite number where `evaluate` would refuse
 */
export function runNumeric({ steps }: Numeric, numbers: Float64Array): number {
  let top = -1;
  for (let i = 0; i < steps.length; i++) {
    switch (steps[i]) {
      case Step.number:
        stack[++top] = steps[++i]!;
        break;
      case Step.slot:
        stack[++top] = numbers[steps[++i]!]!;
        break;
      case Step.negate:
        stack[top] = -stack[top]!;
        break;
      case Step.add:
        top--;
        stack[top] = stack[top]! + stack[top + 1]!;
        break;
      case Step.subtract:
        top--;
        stack[top] = stack[top]! - stack[top + 1]!;
        break;
      case Step.multiply:
        top--;
        stack[top] = stack[top]! * stack[top + 1]!;
        break;
      default: {
        top--;
        const by = stack[top + 1]!;
        // What is divided by nothing, or by something endless, must not look sound again.
        stack[top] = by === 0 || !Number.isFinite(by) ? NaN : stack[top]! / by;
      }
    }
  }
  return stack[0]!;
}
