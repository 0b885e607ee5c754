/** Edits that are only tried, such as a step whose sentence is being filled: not saved, and not in the history. */
import { applyEdit, severalEdits, type Design, type Edit } from '@helb/core';
import { computed, shallowRef, type Ref } from 'vue';
import { toast } from 'vue-sonner';

/** Edits tried together, and the design with them made. */
interface Attempt {
  readonly edits: readonly Edit[];
  readonly design: Design;
}

/**
 * @param front the design they are tried upon
 * @param make makes an edit for good. Returns null, or why it cannot be made
 */
export function useTrying(front: Readonly<Ref<Design | null>>, make: (edit: Edit) => string | null) {
  const attempt = shallowRef<Attempt | null>(null);
  /** What edits are made on. */
  const base = computed(() => attempt.value?.design ?? front.value);

  function tryAlso(edit: Edit): string | null {
    if (!base.value) return 'No design is open.';
    const outcome = applyEdit(base.value, edit);
    if (!outcome.ok) return outcome.message;
    attempt.value = { edits: [...(attempt.value?.edits ?? []), outcome.edit], design: outcome.design };
    return null;
  }

  /** Make what is tried the design's own, as one edit that bears the first one's name. */
  function keepAttempt(): string | null {
    const tried = attempt.value;
    const [first] = tried?.edits ?? [];
    if (!tried || !first) return null;
    attempt.value = null;
    const refusal = make(tried.edits.length === 1 ? first : severalEdits(first.label, tried.edits));
    if (refusal !== null) attempt.value = tried;
    return refusal;
  }

  function dropAttempt(): void {
    attempt.value = null;
  }

  /** The same edits on what the design has become; the last one left out, if so wanted. */
  function redoAttempt(withoutLast = false): void {
    const edits = attempt.value?.edits ?? [];
    attempt.value = null;
    for (const edit of withoutLast ? edits.slice(0, -1) : edits) {
      const refusal = tryAlso(edit);
      if (refusal === null) continue;
      attempt.value = null;
      toast.error(`What you were filling cannot go on: ${refusal}`);
      return;
    }
  }

  return { attempt, base, tryAlso, keepAttempt, dropAttempt, redoAttempt };
}
