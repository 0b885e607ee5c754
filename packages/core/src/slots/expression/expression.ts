/** A number of a given kind, as an expression. */
import { Expr } from '../../dimensions/expression.ts';
import type { QuantityKind } from '../../units/units.ts';
import { slotKind, type SlotKind } from '../slot.ts';

export function expression(kind: QuantityKind): SlotKind<string, number> {
  return slotKind<string, number>({
    kind: 'expression',
    schema: Expr,
    numbers: (stored, slot, naming) => [
      { key: slot, name: naming[slot] ?? slot, kind, expression: stored, level: 'slot', measured: null },
    ],
    holds: (_, slot, key) => key === slot,
    setNumber: (step, slot, _, text) => void (step[slot] = text),
    rewritten: (stored, change) => change.expression(stored),
    resolve: (_, slot, context) => {
      const value = context.number(slot);
      return { value, digest: String(value) };
    },
    label: (_, slot, reading) => reading.number(slot),
  });
}
