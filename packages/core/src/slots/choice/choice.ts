/** One of a few words. */
import { z } from 'zod';
import { slotKind, type SlotKind, type StepData } from '../slot.ts';

/** Does a step's slot hold one of these? */
export const holds =
  <K extends string>(slot: string, ...values: readonly K[]) =>
  (step: StepData): boolean =>
    values.includes(step[slot] as K);

/** @param labels each choice as it reads in the sentence */
export function choice<K extends string>(labels: Readonly<Record<K, string>>): SlotKind<K, K> {
  const keys = Object.keys(labels) as K[];
  return slotKind<K, K>({
    kind: 'choice',
    schema: z.enum(keys as [K, ...K[]]) as unknown as z.ZodType<K>,
    resolve: (stored) => ({ value: stored, digest: stored }),
    label: (stored) => ({ label: labels[stored], choices: keys.map((value) => ({ value, label: labels[value] })) }),
  });
}
