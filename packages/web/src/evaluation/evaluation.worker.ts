/** Evaluates recipes off the page's thread: one kernel, one evaluator, one request at a time. */
import {
  borrowedPieces,
  KernelError,
  Ledger,
  PartEvaluator,
  PartPainter,
  pictureKey,
  Superseded,
  writeStl,
  type Body,
  type BorrowSource,
  type FlatPiece,
  type Design,
  type MeshQuality,
  type PartOutcome,
  type PartView,
} from '@helb/core';
import { loadKernel } from '@helb/kernel';
import * as Comlink from 'comlink';
import wasmUrl from 'replicad-opencascadejs/wasm?url';
import { recallPart, rememberPart } from './picture-store.ts';
import type { Progress } from './progress.ts';

const FILE_QUALITY: MeshQuality = { linear: 0.05, angular: 10 * (Math.PI / 180) };
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
  part(view: PartView): void;
  progress(progress: Progress | null): void;
}

const channel = new MessageChannel();
let wake: (() => void) | null = null;
channel.port1.onmessage = () => wake?.();

/** Let waiting messages in. Quicker than a timer, which browsers hold back. */
function messagesIn(): Promise<void> {
  return new Promise((resolve) => {
    wake = resolve;
    channel.port2.postMessage(null);
  });
}

async function evaluate(
  design: Design,
  focus: { part: string; step: string } | null,
  order: readonly string[],
  listener: EvaluationListener,
): Promise<boolean> {
  const request = ++latest;
  const current = () => request === latest;
  const ledger = Ledger.of(design);
  // Not waited for: the browser's storage may be held up, the kernel is not.
  if (request === 1) void showRemembered(design, ledger, order, listener, current);
  const { evaluator, painter } = await ready;
  let breathed = performance.now();
  const shown: Body[] = [];
  try {
    for (const partId of order) {
      const outcome = await evaluator.evaluate(design, ledger, partId, {
        progress: (done, total, step) => {
          if (performance.now() - breathed > BREATHE_MS)
            listener.progress({ part: design.parts[partId]!.name, step, done, total });
        },
        breathe: async () => {
          if (performance.now() - breathed > BREATHE_MS) {
            await messagesIn();
            breathed = performance.now();
          }
          if (!current()) throw new Superseded();
        },
      });
      const view = painter.paint(outcome, focus?.part === partId ? focus.step : null);
      shown.push(...outcome.bodies, ...outcome.steps.flatMap((s) => s.bodies));
      const key = `${pictureKey(design, ledger, partId)} ${view.before?.step ?? ''}`;
      // The page has it already; sending it again would only cost it time.
      if (sent.get(partId) !== key) {
        sent.set(partId, key);
        listener.part(view);
        if (!view.before) void rememberPart(design, ledger, partId, view);
      }
      await messagesIn();
      if (!current()) return false;
    }
    evaluator.sweep(shown);
    painter.sweep(shown);
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
  for (const partId of order) {
    const view = await recallPart(design, ledger, partId);
    if (view && current() && !sent.has(partId)) listener.part(view);
  }
}

async function exportDesign(design: Design, format: 'step' | 'stl', parts: readonly string[]): Promise<Uint8Array> {
  const { kernel, evaluator } = await ready;
  const ledger = Ledger.of(design);
  const outcomes: PartOutcome[] = [];
  for (const id of parts) {
    const outcome = await evaluator.evaluate(design, ledger, id);
    const failed = outcome.steps.find((s) => s.status === 'failed');
    if (failed)
      throw new Error(
        `${design.parts[id]!.name} has a step that fails (${design.parts[id]!.steps[failed.id]!.name}); mend it before exporting.`,
      );
    if (outcome.bodies.length > 0) outcomes.push(outcome);
  }
  if (outcomes.length === 0) throw new Error('There is no solid to export yet; extrude something first.');
  const bytes =
    format === 'step'
      ? kernel.exportStep(
          outcomes.map((o) => ({ name: design.parts[o.part]!.name, solids: o.bodies.map((b) => b.solid) })),
        )
      : writeStl(
          outcomes.flatMap((o) => o.bodies.map((b) => kernel.mesh(b.solid, FILE_QUALITY))),
          design.name,
        );
  return Comlink.transfer(bytes, [bytes.buffer]);
}

/** What a sketch would borrow from the bodies before it; a sentence when that is not to be had. */
async function borrow(design: Design, part: string, step: string, source: BorrowSource): Promise<FlatPiece[] | string> {
  const { kernel, evaluator } = await ready;
  try {
    const outcome = await evaluator.evaluate(design, Ledger.of(design), part);
    const at = outcome.steps.findIndex((s) => s.id === step);
    const frame = outcome.steps[at]?.sketch?.frame;
    if (!frame) return 'This sketch has no plane yet; pick one for it first.';
    const pieces = borrowedPieces(source, frame, outcome.steps[at - 1]?.bodies ?? [], kernel);
    return pieces ?? 'This edge is no longer there.';
  } catch (error) {
    if (error instanceof KernelError) return error.message;
    throw error;
  }
}

const api = {
  borrow,
  /** Resolves true when done, false when a newer request took over. */
  evaluate,
  exportDesign,
  cancel(): void {
    latest++;
  },
};
export type EvaluationWorker = typeof api;

Comlink.expose(api);
