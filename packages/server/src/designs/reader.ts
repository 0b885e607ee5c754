/** Reads design files in a thread of their own, so that a large one keeps nobody waiting. */
import { Piscina } from 'piscina';

/** A design as it is stored, or the sentence that refuses it. */
export type ReadFile =
  | { readonly ok: true; readonly name: string; readonly document: string }
  | { readonly ok: false; readonly message: string };

export type Reader = (text: string) => Promise<ReadFile>;

const IDLE_MS = 10_000;
/** Longer than any file of the largest size needs. */
const LONGEST_MS = 30_000;

export function startReader(): { readonly read: Reader; stop(): Promise<void> } {
  const pool = new Piscina<string, ReadFile>({
    filename: new URL('./reading.mjs', import.meta.url).href,
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
  });
  return {
    async read(text) {
      try {
        return await pool.run(text, { signal: AbortSignal.timeout(LONGEST_MS) });
      } catch {
        return { ok: false, message: 'This design file takes more time or memory to read than the server gives.' };
      }
    },
    stop: () => pool.destroy(),
  };
}
