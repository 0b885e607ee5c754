/** Edits that solve large sketches: shown at once as drawn, solved beside the page in their order, and kept then. */
import { applyEdit, leavingUnsolved, withTouches, type Design, type Edit, type Touch } from '@helb/core';
import { computed, shallowRef, type ShallowRef } from 'vue';
import { SOON_SOLVED, solvedEdit } from './solving.ts';
import type { Solved } from './solving.worker.ts';
import { faultOfStored } from './waiting.ts';

export type EditKind = 'edit' | 'follow';
/** Told, when it is solved, why an edit cannot be kept after all. */
export type Refused = (sentence: string, label: string) => void;

interface Asked {
  readonly edit: Edit;
  readonly kind: EditKind;
  readonly refused: Refused;
}

interface Around {
  readonly kept: ShallowRef<Design | null>;
  /** Makes an edit the design's own; calls `renew`. */
  keep(edit: Edit, kind: EditKind, next: Design, touches: readonly Touch[]): void;
  /** Nothing waits to be solved any more, and the last came to nothing. */
  done(): void;
}

export function useUnsolved({ kept, keep, done }: Around) {
  const asked = shallowRef<readonly Asked[]>([]);
  /** The kept design with what was asked made, its large sketches as drawn. */
  const drawn = shallowRef<Design | null>(null);
  const front = computed(() => drawn.value ?? kept.value);
  const waits = computed(() => asked.value.length > 0);
  let underWay: Promise<void> | null = null;

  const atOnce = (on: Design, edit: Edit) => leavingUnsolved(SOON_SOLVED, () => applyEdit(on, edit));

  /** Returns null, or why it is refused; what that takes long to find is told to `refused`. */
  function make(edit: Edit, kind: EditKind, refused: Refused): string | null {
    if (!front.value) return 'No design is open.';
    const { result, left } = atOnce(front.value, edit);
    if (!result.ok) return result.message;
    if (result.touches.length === 0) return null;
    const unfit = faultOfStored(result.edit.command, result.edit.args);
    if (unfit) return unfit;
    if (!left && !waits.value) {
      keep(result.edit, kind, result.design, result.touches);
      return null;
    }
    asked.value = [...asked.value, { edit: result.edit, kind, refused }];
    drawn.value = result.design;
    underWay ??= solveAll().finally(() => (underWay = null));
    return null;
  }

  async function solveAll(): Promise<void> {
    for (let first = asked.value[0]; first; first = asked.value[0]) {
      const on = kept.value!;
      // Where the worker cannot be had, late is better than lost.
      const solved = await solvedEdit(on, first.edit.command, first.edit.args).catch(() => null);
      // What lies under it has become another meanwhile, or it was finished here.
      if (asked.value[0] !== first || kept.value !== on) continue;
      finish(first, on, solved ?? here(on, first.edit));
    }
  }

  function here(on: Design, edit: Edit): Solved {
    const outcome = applyEdit(on, edit);
    return outcome.ok ? { ...outcome, command: outcome.edit.command, args: outcome.edit.args } : outcome;
  }

  function finish({ edit, kind, refused }: Asked, on: Design, solved: Solved): void {
    asked.value = asked.value.slice(1);
    if (solved.ok && solved.touches.length > 0) {
      const { command, args, touches } = solved;
      keep({ ...edit, command, args }, kind, withTouches(on, touches, false), touches);
      return;
    }
    renew();
    if (!solved.ok) refused(solved.message, edit.label);
    if (!waits.value) done();
  }

  /** The kept design is another: what waits is drawn upon it. */
  function renew(): void {
    let on = kept.value!;
    const still: Asked[] = [];
    for (const one of asked.value) {
      const { result } = atOnce(on, one.edit);
      if (result.ok) {
        on = result.design;
        still.push(one);
      } else one.refused(result.message, one.edit.label);
    }
    asked.value = still;
    drawn.value = still.length > 0 ? on : null;
  }

  /** Solve what waits on the page’s own thread: the design is being left. */
  function finishHere(): void {
    for (let first = asked.value[0]; first && kept.value; first = asked.value[0])
      finish(first, kept.value, here(kept.value, first.edit));
  }

  /** Resolves when nothing waits. */
  const settled = (): Promise<void> => underWay ?? Promise.resolve();

  return { make, front, waits, renew, finishHere, settled };
}
