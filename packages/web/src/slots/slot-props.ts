import type { SentencePart, Step } from '@helb/core';

/** What every slot's editor is given. */
export interface SlotProps {
  readonly part: string;
  readonly stepId: string;
  readonly step: Step;
  readonly piece: Exclude<SentencePart, { text: string }>;
}
