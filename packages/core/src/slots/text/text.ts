/** Words that are used as they are: lettering, a mark. */
import { z } from 'zod';
import { slotKind, type SlotKind } from '../slot.ts';

const MOST_LETTERS = 200;

export function text(): SlotKind<string, string> {
  return slotKind<string, string>({
    kind: 'text',
    schema: z.string().min(1).max(MOST_LETTERS),
    resolve: (stored) => ({ value: stored, digest: stored }),
    label: (stored) => ({ label: `“${stored}”` }),
  });
}
