/** What the kernel is asked for a sheet. */
import { bringSizes, Known, sheetGeometry, type Design, type DrawnView } from '@helb/core';
import { lastQuestion, type AnswerListener } from './last-question.ts';

export function sheetWork(...[ready, exclusive, breathe, held]: [...Parameters<typeof lastQuestion>, () => Design]) {
  const known = new Known<DrawnView>();
  const question = lastQuestion(ready, exclusive, breathe);
  const bringing = lastQuestion(ready, exclusive, breathe);
  return {
    drawSheet(sheet: string, listener: AnswerListener) {
      const design = held();
      return question.answer(listener, ({ kernel, evaluator }, hooks) => sheetGeometry(design, sheet, evaluator, kernel, known, hooks)); // prettier-ignore
    },
    stopSheet: question.stop,
    /** A sentence where there are none to be had. */
    bringSizes(sheet: string, listener: AnswerListener) {
      const design = held();
      return bringing.answer(listener, ({ kernel, evaluator }, hooks) => bringSizes(design, sheet, evaluator, kernel, known, hooks)); // prettier-ignore
    },
    stopBringing: bringing.stop,
  };
}
