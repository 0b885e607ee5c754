/** What is still loose in the open sketch, and what disagrees: at once, or from the worker where that takes long. */
import { isDimension, solveSketch, type SketchGeometry, type SketchSolution } from '@helb/core';
import { computed, shallowRef, toRaw, watch, type ComputedRef } from 'vue';
import { solvedSketch, SOON_SOLVED } from '../design/solving.ts';

/**
 * @param step the sketch as it is stored, which is how it was last solved
 * @param numberOf value of a dimension, mm or rad. @throws when it has none
 * @returns null where a number has no value, and until the first answer of the worker
 */
export function useSolution(
  step: ComputedRef<SketchGeometry | null>,
  numberOf: (id: string) => number,
): ComputedRef<SketchSolution | null> {
  const isLarge = (sketch: SketchGeometry): boolean => Object.keys(sketch.constraints).length > SOON_SOLVED;
  const came = shallowRef<{ readonly of: SketchGeometry; readonly found: SketchSolution } | null>(null);

  /** The numbers of a large sketch; null where it is not, or one has no value. */
  const numbers = computed(() => {
    if (!step.value || !isLarge(step.value)) return null;
    try {
      return new Map(Object.entries(step.value.constraints).flatMap(([id, c]) => (isDimension(c) ? [[id, numberOf(id)]] : []))); // prettier-ignore
    } catch {
      return null;
    }
  });
  let last = 0;
  watch(
    [step, numbers],
    async ([sketch, of]) => {
      const mine = ++last;
      const found = sketch && of ? await solvedSketch(toRaw(sketch), of).catch(() => null) : null;
      if (mine === last) came.value = found && { of: sketch!, found };
    },
    { immediate: true },
  );

  return computed(() => {
    if (!step.value) return null;
    if (isLarge(step.value)) {
      const { of, found } = came.value ?? {};
      // Until the worker answers what is loose stays as it was last known, and all stands as it is stored.
      return !found || of === step.value ? (found ?? null) : { ...found, geometry: step.value };
    }
    try {
      return solveSketch(step.value, numberOf);
    } catch {
      // A number without value: the ledger says so; the sketch is shown as drawn.
      return null;
    }
  });
}
