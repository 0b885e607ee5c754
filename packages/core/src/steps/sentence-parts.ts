/** The pieces a step's sentence is made of. */
import type { Part } from '../document/schema.ts';
import type { Ledger } from '../ledger/ledger.ts';

export type SlotKind = 'number' | 'regions' | 'plane' | 'choice' | 'bodies' | 'sketch' | 'dimensions';

export type SentencePart =
  | { readonly text: string }
  | {
      /** The slot's key in the step. */
      readonly slot: string;
      readonly kind: SlotKind;
      readonly label: string;
      /** A number's value, when its expression is more than the number. */
      readonly value?: string;
      readonly choices?: readonly { readonly value: string; readonly label: string }[];
    };

export interface SentenceContext {
  readonly part: Part;
  readonly stepId: string;
  readonly ledger: Ledger;
}

/** A number slot: its expression as people read it, and its value where that differs. */
export function numberPart(slot: string, { ledger, stepId }: SentenceContext): SentencePart {
  const entry = ledger.index.byReference(`${stepId}.${slot}`);
  if (!entry) return { slot, kind: 'number', label: 'a number' };
  const label = ledger.shown(entry);
  const value = ledger.format(ledger.valueOfEntry(entry));
  return { slot, kind: 'number', label, ...(value !== label ? { value } : {}) };
}

export function count(n: number, one: string): string {
  return `${n} ${one}${n === 1 ? '' : 's'}`;
}
