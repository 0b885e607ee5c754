/** A step's slots as they are there now, and what all of them together say. */
import { withSteps } from '../names/name.ts';
import type { AnySlot, NumberInSlot, Outside, Rewriting, StepData } from '../slots/slot.ts';
import { kindOf } from './register.ts';

export interface FilledSlot {
  readonly name: string;
  readonly slot: AnySlot;
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- each slot kind reads its own
  readonly stored: any;
}

/** The slots that are there, in the order declared, each with what is stored or stands for it. */
export function slotsOf(step: StepData): FilledSlot[] {
  return Object.entries(kindOf(step).slots).flatMap(([name, slot]) => {
    if (slot.when && !slot.when(step)) return [];
    const stored: unknown = slot.of.read(step, name) ?? slot.otherwise?.(step);
    return stored === undefined ? [] : [{ name, slot, stored }];
  });
}

/** Every number in the step's slots. */
export function numbersOf(step: StepData): NumberInSlot[] {
  const naming = step.names ?? {};
  return slotsOf(step).flatMap(({ name, slot, stored }) => [...slot.of.numbers(stored, name, naming)]);
}

/** The slot that holds the number of this key. */
function slotWithNumber(step: StepData, key: string): FilledSlot | undefined {
  return slotsOf(step).find(({ name, slot, stored }) => slot.of.holds(stored, name, key));
}

/** Put a new expression into a step that is being edited. */
export function setNumber(step: StepData, key: string, expression: string): void {
  const at = slotWithNumber(step, key);
  at?.slot.of.setNumber(step, at.name, key, expression);
}

export function setNumberName(step: StepData, key: string, name: string): void {
  const at = slotWithNumber(step, key);
  at?.slot.of.setName(step, at.name, key, name);
}

/** Take a number away by itself; false where it goes only with the step. */
export function removeNumber(step: StepData, key: string): boolean {
  const at = slotWithNumber(step, key);
  return at?.slot.of.removeNumber(step, at.name, key) ?? false;
}

/** Ids of all steps this one rests on. */
export function stepsUsedBy(step: StepData): string[] {
  return [...new Set(slotsOf(step).flatMap(({ slot, stored }) => [...slot.of.steps(stored)]))];
}

/** What a step rests on of other parts. */
export const outsideOf = (step: StepData): Outside[] =>
  slotsOf(step).flatMap(({ slot, stored }) => [...slot.of.outside(stored)]);

/** What the schema cannot say, as sentences. */
export function faultsOfStep(id: string, step: StepData): string[] {
  const where = `step “${step.name}”`;
  return slotsOf(step).flatMap(({ slot, stored }) => [
    // A deleted step is reported by the step itself when it is evaluated, not refused here.
    ...(slot.of.steps(stored).includes(id) ? [`${where} rests on itself.`] : []),
    ...slot.of.faults(stored, where),
  ]);
}

/** A step drawn again, speaking of itself where the original does. */
export const copyOfStep = (step: StepData, id: string, copy: string): StepData =>
  withStepsIn(step, new Map([[id, copy]]));

/** The same step with what it refers to rewritten. */
export function rewrittenStep(step: StepData, change: Rewriting): StepData {
  const fresh = structuredClone(step);
  for (const { name, slot, stored } of slotsOf(fresh)) slot.of.write(fresh, name, slot.of.rewritten(stored, change));
  return fresh;
}

/** The same step, where it speaks of steps speaking of others. @param to by the id of each that is meant */
export function withStepsIn(step: StepData, to: ReadonlyMap<string, string>): StepData {
  const other = (id: string) => to.get(id) ?? id;
  return rewrittenStep(step, {
    step: other,
    name: (text) => withSteps(text, other),
    place: (at) => at,
    direction: (along) => along,
    expression: (text) => [...to].reduce((now, [from, into]) => now.replaceAll(`$${from}.`, `$${into}.`), text),
  });
}
