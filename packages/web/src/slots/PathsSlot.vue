<script setup lang="ts">
/** Several paths: sketches and helices of the recipe, added and taken away again, or edges picked on the stage. */
import type { PathRef } from '@helb/core';
import { computed } from 'vue';
import { useDatumSteps } from './datum-steps.ts';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';
import SlotMenu from './SlotMenu.vue';

const props = defineProps<SlotProps>();
const { fill, awaitPicks, isWaiting } = useFilling();
const datumSteps = useDatumSteps(props);

const chosen = computed(() => (props.step[props.piece.slot] ?? []) as readonly PathRef[]);
const stepOf = (ref: PathRef) => ('sketch' in ref ? ref.sketch : 'step' in ref ? ref.step : null);

/** Taken away when it is chosen already. */
function turning(id: string, name: string, ref: PathRef) {
  const rest = chosen.value.filter((own) => stepOf(own) !== id);
  const has = rest.length < chosen.value.length;
  return {
    label: has ? `without ${name}` : name,
    run: () => fill(props.part, props.stepId, props.piece.slot, has ? rest : [...chosen.value, ref]),
  };
}
const items = computed(() => [
  { label: 'pick on the stage', run: () => awaitPicks(props.stepId, props.piece.slot) },
  ...datumSteps('sketch').map(({ id, name }) => turning(id, name, { sketch: id })),
  ...datumSteps('curve').map(({ id, name }) => turning(id, name, { step: id })),
]);
</script>

<template>
  <SlotMenu :label="piece.label" :items="items" :waiting="isWaiting(stepId, piece.slot)" />
</template>
