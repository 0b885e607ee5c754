/** Words that are used as they are: lettering, a mark. */
import { z } from 'zod';
import { slotKind, type SlotKind } from '../slot.ts';

const MOST_LETTERS = 200;
const SHOWN = 60;

/** @param most letters */
export function text(most = MOST_LETTERS): SlotKind<string, string> {
  return slotKind<string, string>({
    kind: 'text',
    schema: z.string().min(1).max(most),
    resolve: (stored) => ({ value: stored, digest: stored }),
    label: (stored) => ({ label: stored.length > SHOWN ? `“${stored.slice(0, SHOWN)}…”` : `“${stored}”` }),
  });
}
