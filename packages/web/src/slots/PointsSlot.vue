<script setup lang="ts">
/** Several places: picked on the stage, or all points of a sketch. */
import type { PointsChoice } from '@helb/core';
import { computed } from 'vue';
import { useDatumSteps } from './datum-steps.ts';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';
import SlotMenu from './SlotMenu.vue';

const props = defineProps<SlotProps>();
const { fill, awaitPicks, isWaiting } = useFilling();
const datumSteps = useDatumSteps(props);

const chosen = computed(() => (props.step[props.piece.slot] ?? []) as readonly PointsChoice[]);
const put = (next: readonly PointsChoice[]) => fill(props.part, props.stepId, props.piece.slot, next);
const items = computed(() => [
  { label: 'pick on the stage', run: () => awaitPicks(props.stepId, props.piece.slot) },
  ...datumSteps('sketch').map(({ id, name }) => ({ label: `all points of ${name}`, run: () => put([{ all_of: id }]) })),
  ...(chosen.value.length > 1 ? [{ label: 'without the last', run: () => put(chosen.value.slice(0, -1)) }] : []),
]);
</script>

<template>
  <SlotMenu :label="piece.label" :items="items" :waiting="isWaiting(stepId, piece.slot)" />
</template>
