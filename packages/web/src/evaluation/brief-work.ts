/** What the finished part measures, for its brief. */
import { finished, Ledger, type Design, type Finished, type PartEvaluator } from '@helb/core';

export function briefWork(
  ready: Promise<{ readonly evaluator: PartEvaluator }>,
  exclusive: <T>(work: () => Promise<T>) => Promise<T>,
  held: () => Design,
) {
  return {
    /** Null without a body. */
    async finishedPart(part: string): Promise<Finished | null> {
      const design = held();
      const { evaluator } = await ready;
      return exclusive(async () => {
        const own = design.parts[part];
        if (!own) return null;
        const { bodies } = await evaluator.evaluate(design, Ledger.of(design), part);
        return finished(bodies, own.material ?? null);
      });
    },
  };
}
