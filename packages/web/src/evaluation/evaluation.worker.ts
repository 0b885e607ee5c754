/** Evaluates recipes off the page's thread: one kernel, one evaluator, one request at a time. */
import {
  withDifferences,
  Ledger,
  PartEvaluator,
  PartPainter,
  pictureKey,
  readingsOf,
  Superseded,
  type Design,
  type PartView,
} from '@helb/core';
import { loadKernel } from '@helb/kernel';
import * as Comlink from 'comlink';
import wasmUrl from 'replicad-opencascadejs/wasm?url';
import { briefWork } from './brief-work.ts';
import { cuttingWork } from './cutting-work.ts';
import { fitWork } from './fit-work.ts';
import { kernelWork } from './kernel-work.ts';
import { sheetWork } from './sheet-work.ts';
import { recallPart, rememberPart } from './picture-store.ts';
import type { Progress } from './progress.ts';

/** How often, ms, a long evaluation lets messages in. */
const BREATHE_MS = 12;

const ready = loadKernel({ wasmUrl }).then((kernel) => ({
  kernel,
  evaluator: new PartEvaluator(kernel),
  painter: new PartPainter(kernel),
}));
/** Key of the picture of each part the page got last. */
const sent = new Map<string, string>();
let latest = 0;

export interface EvaluationListener {
  part(view: PartView): void | Promise<void>;
  progress(progress: Progress | null): void;
  /** What measured dimensions read where the design holds another reading, and why others cannot be read. */
  readings(stale: ReadonlyMap<string, string>, faults: ReadonlyMap<string, string>): void | Promise<void>;
}

const channel = new MessageChannel();
const waiting: (() => void)[] = [];
channel.port1.onmessage = () => waiting.shift()?.();

/** Let waiting messages in. Quicker than a timer, which browsers hold back. */
function messagesIn(): Promise<void> {
  return new Promise((resolve) => {
    waiting.push(resolve);
    channel.port2.postMessage(null);
  });
}

let lastWork: Promise<unknown> = Promise.resolve();

/** One piece of work at a time; after each, however it ended, what is over the memory's budget is let go. */
function exclusive<T>(work: () => Promise<T>): Promise<T> {
  const own = lastWork.then(work, work).finally(async () => {
    const { evaluator, painter } = await ready;
    evaluator.sweep();
    painter.sweep();
  });
  lastWork = own;
  return own;
}

/** The design as the page last had it; edits keep what they do not touch the same, for all that is remembered by it. */
let held: Design | null = null;

function heldNow(): Design {
  if (!held) throw new Error('no design was handed over yet');
  return held;
}

async function evaluate(
  focus: { part: string; step: string } | null,
  order: readonly string[],
  listener: EvaluationListener,
): Promise<boolean> {
  const design = heldNow();
  const request = ++latest;
  const current = () => request === latest;
  const ledger = Ledger.of(design);
  // Not waited for: the browser's storage may be held up, the kernel is not.
  if (request === 1) void showRemembered(design, ledger, order, listener, current);
  await ready;
  return exclusive(() => compute(design, focus, order, listener, current));
}

async function compute(
  design: Design,
  focus: { part: string; step: string } | null,
  order: readonly string[],
  listener: EvaluationListener,
  current: () => boolean,
): Promise<boolean> {
  if (!current()) return false;
  const { kernel, evaluator, painter } = await ready;
  const ledger = Ledger.of(design);
  let breathed = performance.now();
  const stale = new Map<string, string>();
  const faults = new Map<string, string>();
  const heard: (void | Promise<void>)[] = [];
  try {
    for (const partId of order) {
      const outcome = await evaluator.evaluate(design, ledger, partId, {
        // Told before, as the page hears nothing while a step is being made.
        progress: (done, total, step) => listener.progress({ part: design.parts[partId]!.name, step, done, total }),
        breathe: async () => {
          if (performance.now() - breathed > BREATHE_MS) {
            await messagesIn();
            breathed = performance.now();
          }
          if (!current()) throw new Superseded();
        },
      });
      const view = painter.paint(outcome, focus?.part === partId ? focus.step : null);
      const readings = readingsOf(design, outcome, kernel);
      for (const [ref, text] of readings.stale) stale.set(ref, text);
      for (const [ref, fault] of readings.faults) faults.set(ref, fault);
      const key = `${pictureKey(design, ledger, partId)} ${view.around?.step ?? ''}`;
      // The page has it already; sending it again would only cost it time.
      if (sent.get(partId) !== key) {
        sent.set(partId, key);
        heard.push(listener.part(view));
        if (!view.around) void rememberPart(design, ledger, partId, view);
      }
      await messagesIn();
      if (!current()) return false;
    }
    heard.push(listener.readings(stale, faults));
    // The page hears of all parts before it hears of the end.
    await Promise.all(heard);
    return true;
  } catch (error) {
    if (error instanceof Superseded) return false;
    throw error;
  } finally {
    if (current()) listener.progress(null);
  }
}

/** Pictures from the last visit, while the kernel starts. */
async function showRemembered(
  design: Design,
  ledger: Ledger,
  order: readonly string[],
  listener: EvaluationListener,
  current: () => boolean,
): Promise<void> {
  // All asked for at once: the storage answers them in one go.
  const views = await Promise.all(order.map((partId) => recallPart(design, ledger, partId)));
  for (const view of views) if (view && current() && !sent.has(view.part)) listener.part(view);
}

const api = {
  ...kernelWork(ready, exclusive, messagesIn, heldNow),
  ...fitWork(ready, exclusive, messagesIn, heldNow),
  ...sheetWork(ready, exclusive, messagesIn, heldNow),
  ...briefWork(ready, exclusive, heldNow),
  ...cuttingWork(ready, exclusive, messagesIn, heldNow),
  /** Hand over a design whole. */
  hold(design: Design): void {
    held = design;
  },
  /** Hand over what has changed since. */
  follow(patches: Parameters<typeof withDifferences>[1]): void {
    const before = heldNow();
    // Should it fail, nothing is held: better no picture than one of another design.
    held = null;
    held = withDifferences(before, patches);
  },
  /** Resolves true when done, false when a newer request took over. */
  evaluate,
  cancel(): void {
    latest++;
  },
};
export type EvaluationWorker = typeof api;

Comlink.expose(api);
