/** A whole number of things, as an expression. */
import { StepFailure } from '../../names/body.ts';
import { expression } from '../expression/expression.ts';
import type { SlotKind } from '../slot.ts';

/** Nearer than this to a whole number is that number. */
const WHOLE = 1e-9;

export function count(most: number): SlotKind<string, number> {
  const number = expression('number');
  return {
    ...number,
    kind: 'count',
    resolve(stored, slot, context) {
      const { value } = number.resolve(stored, slot, context);
      const whole = Math.round(value);
      if (Math.abs(value - whole) > WHOLE)
        throw new StepFailure(`${slot} comes to ${value}, which is no whole number.`);
      if (whole < 1 || whole > most) throw new StepFailure(`${slot} comes to ${whole}; it must be from 1 to ${most}.`);
      return { value: whole, digest: String(whole) };
    },
  };
}
