/**
 * Commands run in a thread of their own: a call of the kernel that never ends cannot be ended from within, so it is
 * watched from without. Before each call the time is written where both threads see it.
 */
import type { SolidKernel } from '@helb/core';
import { loadKernel } from '@helb/kernel';
import { isMainThread, Worker, workerData } from 'node:worker_threads';

/** Longer than this without a new call of the kernel is taken for a call that does not end, s. */
const LIMIT_S = Number(process.env.HELB_CALL_LIMIT_S ?? 120);

const signs = isMainThread
  ? new BigInt64Array(new SharedArrayBuffer(8))
  : (workerData as { signs: BigInt64Array }).signs;
const sign = () => Atomics.store(signs, 0, BigInt(Date.now()));

/** A kernel whose calls are watched. */
export async function watchedKernel(): Promise<SolidKernel> {
  const kernel: SolidKernel = await loadKernel();
  sign();
  return new Proxy(kernel, {
    get(target, name) {
      const own: unknown = Reflect.get(target, name, target);
      if (typeof own !== 'function') return own;
      return (...given: unknown[]): unknown => {
        sign();
        return Reflect.apply(own, target, given);
      };
    },
  });
}

/** Run the program of this address once more, in a thread, and see that it goes on. Its exit code becomes ours. */
export async function runWatched(program: URL): Promise<void> {
  sign();
  const worker = new Worker(program, { argv: process.argv.slice(2), workerData: { signs } });
  const ended = new Promise<number>((resolve, reject) => {
    worker.on('exit', resolve);
    worker.on('error', reject);
  });
  let gaveUp = false;
  const watch = setInterval(() => {
    if (Date.now() - Number(Atomics.load(signs, 0)) < LIMIT_S * 1000) return;
    clearInterval(watch);
    gaveUp = true;
    console.error(`helb was at one thing for over ${LIMIT_S} s and gave up; make the design simpler, or its numbers less extreme.`); // prettier-ignore
    void worker.terminate();
  }, Math.min(500, LIMIT_S * 250)); // prettier-ignore
  const code = await ended.finally(() => clearInterval(watch));
  // A thread ended before it began says all is well.
  process.exitCode = gaveUp ? 1 : code;
}
