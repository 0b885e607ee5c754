/** What the kernel is asked for a sheet. */
import { KernelError, KnownViews, SheetFailure, sheetGeometry, Superseded, type Design, type PartEvaluator, type SheetGeometry, type SolidKernel } from '@helb/core'; // prettier-ignore

export interface SheetListener {
  progress(done: number, total: number, what: string): void;
}

export function sheetWork(
  ready: Promise<{ readonly kernel: SolidKernel; readonly evaluator: PartEvaluator }>,
  exclusive: <T>(work: () => Promise<T>) => Promise<T>,
  breathe: () => Promise<void>,
  held: () => Design,
) {
  const known = new KnownViews();
  /** Counts drawings, so that a newer one ends the one before. */
  let asked = 0;
  return {
    /** A sentence where it cannot be drawn; null when another was asked for meanwhile. */
    async drawSheet(sheet: string, listener: SheetListener): Promise<SheetGeometry | string | null> {
      const design = held();
      const own = ++asked;
      const { kernel, evaluator } = await ready;
      try {
        return await exclusive(() =>
          sheetGeometry(design, sheet, evaluator, kernel, known, {
            progress: (done, total, what) => listener.progress(done, total, what),
            async breathe() {
              await breathe();
              if (own !== asked) throw new Superseded();
            },
          }),
        );
      } catch (error) {
        if (error instanceof Superseded) return null;
        if (error instanceof SheetFailure || error instanceof KernelError) return error.message;
        throw error;
      }
    },
    stopSheet(): void {
      asked++;
    },
  };
}
