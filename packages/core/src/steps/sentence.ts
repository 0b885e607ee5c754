/** How a step reads: words with live slots between them. */
import { extrudeSentence } from './extrude/sentence.ts';
import type { Step } from './schema.ts';
import type { SentenceContext, SentencePart } from './sentence-parts.ts';
import { sketchSentence } from './sketch/sentence.ts';

export function sentenceOf(step: Step, context: SentenceContext): SentencePart[] {
  switch (step.kind) {
    case 'sketch':
      return sketchSentence(step);
    case 'extrude':
      return extrudeSentence(step, context);
  }
}
