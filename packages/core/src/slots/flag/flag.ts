/** Yes or no, read as one of two words. */
import { z } from 'zod';
import { slotKind, type SlotKind } from '../slot.ts';

export function flag(no: string, yes: string): SlotKind<boolean, boolean> {
  const choices = [
    { value: 'false', label: no },
    { value: 'true', label: yes },
  ];
  return slotKind<boolean, boolean>({
    kind: 'flag',
    schema: z.boolean(),
    resolve: (stored) => ({ value: stored, digest: String(stored) }),
    label: (stored) => ({ label: stored ? yes : no, choices }),
  });
}
