/** Which slots of a step hold numbers, so that the ledger can list them. */
import type { QuantityKind } from '../units/units.ts';
import type { Step } from './schema.ts';

export interface NumberSlot {
  /** The slot's key in the step, and its name in the ledger. */
  readonly key: string;
  readonly kind: QuantityKind;
  readonly expression: string;
}

/** The numbers a step carries itself; a sketch's dimensions are constraints and not among them. */
export function numberSlots(step: Step): NumberSlot[] {
  if (step.kind !== 'extrude') return [];
  const slots: NumberSlot[] = [{ key: 'distance', kind: 'length', expression: step.distance }];
  if (step.way === 'both_ways' && step.back_distance !== undefined) {
    slots.push({ key: 'back_distance', kind: 'length', expression: step.back_distance });
  }
  return slots;
}

/** Put a new expression into a number slot of a step that is being edited. */
export function setNumberSlot(step: Step, key: string, expression: string): void {
  if (step.kind !== 'extrude') return;
  if (key === 'distance') step.distance = expression;
  else if (key === 'back_distance') step.back_distance = expression;
}
