/** One of a few words. */
import { z } from 'zod';
import { slotKind, type SlotKind } from '../slot.ts';

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
