/** Which numbers a part's recipe uses, and as what: a diameter, a radius, a length, an angle, a count. */
import type { Part } from '../document/schema.ts';
import type { DimensionEntry } from '../ledger/entries.ts';
import type { Ledger } from '../ledger/ledger.ts';
import type { GIVEN_SIZES } from '../document/brief.ts';
import { ExpressionError } from '../dimensions/lexer.ts';
import type { Expression } from '../dimensions/parser.ts';
import { treeOf } from '../dimensions/trees.ts';
import { asSketch } from '../steps/schema.ts';
import { unitNamed } from '../units/units.ts';

export interface NumberUse {
  readonly entry: DimensionEntry;
  readonly as: (typeof GIVEN_SIZES)[number];
  /** mm, rad or plain. */
  readonly value: number;
  /** Numbers within its expression, and in those of what it names: mm, rad or plain. */
  readonly within: readonly number[];
}

/** Dimensions that nothing is made by are no uses. */
export function usesOfNumbers(part: string, own: Part, ledger: Ledger): NumberUse[] {
  return ledger.entries.flatMap((entry): NumberUse[] => {
    const { owner } = entry;
    if (!('step' in owner) || owner.part !== part || entry.measured) return [];
    const value = ledger.valueOfEntry(entry);
    if (!value.ok) return [];
    return [{ entry, as: asWhat(entry, own), value: value.quantity.value, within: [...numbersBehind(entry, ledger)] }];
  });
}

function asWhat({ ref, kind, owner }: DimensionEntry, own: Part): NumberUse['as'] {
  const key = ref.slice(ref.indexOf('.') + 1);
  const step = 'step' in owner ? own.steps[owner.step] : undefined;
  const word = (step && asSketch(step)?.constraints[key]?.kind) ?? key;
  if (kind === 'angle') return 'angle';
  if (kind === 'number') return 'count';
  if (/diameter/.test(word)) return 'diameter';
  return /radius|radii/.test(word) ? 'radius' : 'length';
}

const MOST_DEEP = 50;

function numbersBehind(entry: DimensionEntry, ledger: Ledger): Set<number> {
  const found = new Set<number>();
  const seen = new Set<string>();
  const look = (one: DimensionEntry, deep: number) => {
    if (seen.has(one.ref) || deep > MOST_DEEP) return;
    seen.add(one.ref);
    const tree = treeOf(one.expression);
    if (!(tree instanceof ExpressionError)) for (const n of numbersIn(tree)) found.add(n);
    for (const ref of ledger.dependenciesOf(one)) {
      const behind = ledger.index.byReference(ref);
      const value = behind && ledger.valueOfEntry(behind);
      if (value?.ok) found.add(value.quantity.value);
      if (behind) look(behind, deep + 1);
    }
  };
  look(entry, 0);
  return found;
}

function numbersIn(tree: Expression): number[] {
  switch (tree.kind) {
    case 'number':
      return [tree.value];
    case 'measure':
      return [tree.value * (unitNamed(tree.unit)?.factor ?? 1)];
    case 'negate':
      return numbersIn(tree.operand);
    case 'binary':
      return [...numbersIn(tree.left), ...numbersIn(tree.right)];
    case 'call':
      return tree.args.flatMap(numbersIn);
    default:
      return [];
  }
}
