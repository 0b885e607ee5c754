/** Numbers that hang on a measure which cannot be read for sure: these are not sure either. */
import { hangingOn, hangingSentence } from '@helb/core';
import { createSharedComposable } from '@vueuse/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';

export const useHanging = createSharedComposable(() => {
  const design = useDesign();
  const evaluation = useEvaluation();
  const hanging = computed(() =>
    design.ledger && evaluation.unreadable.size > 0 ? hangingOn(design.ledger, evaluation.unreadable.keys()) : null,
  );
  /** What is said of a number for that; null of one that hangs on none. */
  return (ref: string): string | null => {
    const on = hanging.value?.get(ref);
    return on === undefined ? null : hangingSentence(design.ledger!, on);
  };
});
