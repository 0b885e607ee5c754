/** What the kernel says of the thing that is open: asked anew as the design changes, with progress, and stopped at will. */
import type { Design } from '@helb/core';
import { watchDebounced } from '@vueuse/core';
import * as Comlink from 'comlink';
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useEvaluation } from './evaluation-store.ts';
import type { AnswerListener } from './last-question.ts';

type Kernel = ReturnType<ReturnType<typeof useEvaluation>['on']>;

/** It is asked anew when the design has stood still for so long, ms. */
const AFTER_MS = 120;
const SHOW_PROGRESS_AFTER_MS = 300;

export interface KernelQuestion<T> {
  /** What is open; null where nothing of this kind is. */
  open(): string | null;
  isThere(design: Design, id: string): boolean;
  /** A sentence where there is no answer; null when another was asked for meanwhile. */
  ask(kernel: Kernel, id: string, listener: AnswerListener): Promise<T | string | null>;
  stop(kernel: Kernel): Promise<void>;
  /** What is being done with a part of it. */
  says(what: string): string;
  /** Plural or singular, as it stands in sentences: “this sheet”. */
  readonly word: string;
}

export function useKernelAnswer<T>({ open, isThere, ask, stop, says, word }: KernelQuestion<T>) {
  const design = useDesign();
  const evaluation = useEvaluation();
  const last = shallowRef<{ readonly of: string; readonly value: T } | null>(null);
  /** Of what is open now. */
  const answer = computed(() => (last.value?.of === open() ? last.value!.value : null));
  /** Why there is none. */
  const trouble = ref<string | null>(null);
  const progress = ref<string | null>(null);
  watch(open, () => (trouble.value = null));

  async function find(): Promise<void> {
    const [id, now] = [open(), design.design];
    if (!id || !now || !isThere(now, id)) return;
    const begun = performance.now();
    // What is told on the way comes by a way of its own, and may come after the answer.
    let answered = false;
    const listener = Comlink.proxy({
      progress(done: number, total: number, what: string) {
        evaluation.sign();
        if (!answered && performance.now() - begun > SHOW_PROGRESS_AFTER_MS)
          progress.value = `${says(what)}, ${done + 1} of ${total}`;
      },
    });
    try {
      const found = await ask(evaluation.on(now), id, listener);
      if (found === null || open() !== id) return;
      trouble.value = typeof found === 'string' ? found : null;
      if (typeof found !== 'string') last.value = { of: id, value: found };
    } catch {
      trouble.value = `The geometry kernel failed at ${word} and was started again; change something to try once more.`;
    } finally {
      answered = true;
      progress.value = null;
    }
  }
  watchDebounced([open, () => design.design, () => evaluation.complete], find, { debounce: AFTER_MS, immediate: true });

  function stopAsking(): void {
    void stop(evaluation.on(design.design!));
    progress.value = null;
    trouble.value = `Stopped; change something, or open ${word} again, to go on.`;
  }
  return { answer, trouble, progress, stop: stopAsking };
}
