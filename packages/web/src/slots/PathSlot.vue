<script setup lang="ts">
/** A path: a sketch or a helix of the recipe, or edges picked on the stage. */
import { computed } from 'vue';
import { useDatumSteps } from './datum-steps.ts';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';
import SlotMenu from './SlotMenu.vue';

const props = defineProps<SlotProps>();
const { fill, awaitPicks, isWaiting } = useFilling();
const datumSteps = useDatumSteps(props);

const choose = (value: unknown) => () => fill(props.part, props.stepId, props.piece.slot, value);
const items = computed(() => [
  { label: 'pick on the stage', run: () => awaitPicks(props.stepId, props.piece.slot) },
  ...datumSteps('sketch').map(({ id, name }) => ({ label: name, run: choose({ sketch: id }) })),
  ...datumSteps('curve').map(({ id, name }) => ({ label: name, run: choose({ step: id }) })),
]);
</script>

<template>
  <SlotMenu :label="piece.label" :items="items" :waiting="isWaiting(stepId, piece.slot)" />
</template>
