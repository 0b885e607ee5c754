/** How a step reads: words with live slots between them. */
import type { Reading, SlotLabel, StepData } from '../slots/slot.ts';
import { kindOf } from './register.ts';
import { slotsOf } from './slots-of.ts';

export type SentencePart =
  | { readonly text: string }
  | (SlotLabel & {
      /** The slot's name in the step. */
      readonly slot: string;
      /** Its slot kind, by which the page knows how to fill it. */
      readonly kind: string;
    });

export function sentenceOf(step: StepData, reading: Reading): SentencePart[] {
  const slots = new Map(slotsOf(step).map((s) => [s.name, s]));
  return kindOf(step)
    .sentence(step)
    .flatMap((piece): SentencePart[] => {
      if (typeof piece === 'string') return [{ text: piece }];
      const own = slots.get(piece.slot);
      if (!own) return [];
      return [{ slot: piece.slot, kind: own.slot.of.kind, ...own.slot.of.label(own.stored, piece.slot, reading) }];
    });
}
