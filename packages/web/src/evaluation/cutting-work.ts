/** What the kernel is asked for outlines to cut. */
import { cutGeometry, Known, MAX_CUT_PIECES, type Design, type FaceDrawing } from '@helb/core';
import { lastQuestion, type AnswerListener } from './last-question.ts';

/** As many as two sets of outlines hold. */
const MOST_KNOWN = 2 * MAX_CUT_PIECES;

export function cuttingWork(...[ready, exclusive, breathe, held]: [...Parameters<typeof lastQuestion>, () => Design]) {
  const known = new Known<FaceDrawing>(MOST_KNOWN);
  const question = lastQuestion(ready, exclusive, breathe);
  return {
    cutOutlines(outlines: string, listener: AnswerListener) {
      const design = held();
      return question.answer(listener, ({ kernel, evaluator }, hooks) => cutGeometry(design, outlines, evaluator, kernel, known, hooks)); // prettier-ignore
    },
    stopCutting: question.stop,
  };
}
