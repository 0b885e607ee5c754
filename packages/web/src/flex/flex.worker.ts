/** Tries numbers beside the work of the page: a kernel of its own, so that the picture goes on. */
import { attempt, PartEvaluator, type Attempt, type Design, type Tried } from '@helb/core';
import { loadKernel } from '@helb/kernel';
import * as Comlink from 'comlink';
import wasmUrl from 'replicad-opencascadejs/wasm?url';

const ready = loadKernel({ wasmUrl }).then((kernel) => ({ kernel, evaluator: new PartEvaluator(kernel) }));
let held: Design | null = null;

const api = {
  async hold(design: Design): Promise<void> {
    held = design;
    await ready;
  },
  /** @param sign told when a step begins: the kernel is alive */
  async attempt(tried: Tried, sign: () => void): Promise<Attempt> {
    const { kernel, evaluator } = await ready;
    const outcome = await attempt(held!, tried, evaluator, kernel, { progress: sign });
    evaluator.sweep();
    return outcome;
  },
};
export type FlexWorker = typeof api;

Comlink.expose(api);
