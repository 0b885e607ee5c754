/** Questions to the kernel of which only the last is answered: a newer one ends the one before, as stopping does. */
import { ExportFailure, KernelError, SheetFailure, Superseded, type EvaluationHooks, type PartEvaluator, type SolidKernel } from '@helb/core'; // prettier-ignore

export interface AnswerListener {
  progress(done: number, total: number, what: string): void;
}

interface Kit {
  readonly kernel: SolidKernel;
  readonly evaluator: PartEvaluator;
}

export function lastQuestion(
  ready: Promise<Kit>,
  exclusive: <T>(work: () => Promise<T>) => Promise<T>,
  breathe: () => Promise<void>,
) {
  let asked = 0;
  return {
    /** A sentence where there is no answer; null when another was asked for meanwhile. */
    async answer<T>(
      listener: AnswerListener,
      work: (kit: Kit, hooks: EvaluationHooks) => Promise<T>,
    ): Promise<T | string | null> {
      const own = ++asked;
      const kit = await ready;
      const hooks: EvaluationHooks = {
        progress: (done, total, what) => listener.progress(done, total, what),
        async breathe() {
          await breathe();
          if (own !== asked) throw new Superseded();
        },
      };
      try {
        return await exclusive(() => work(kit, hooks));
      } catch (error) {
        if (error instanceof Superseded) return null;
        if (error instanceof SheetFailure || error instanceof ExportFailure || error instanceof KernelError) return error.message; // prettier-ignore
        throw error;
      }
    },
    stop(): void {
      asked++;
    },
  };
}
