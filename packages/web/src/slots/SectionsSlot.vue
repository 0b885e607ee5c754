<script setup lang="ts">
/** Sections in order: picked on the stage, the last taken away again, or moved one forward. */
import type { SectionRef } from '@helb/core';
import { computed } from 'vue';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';
import SlotMenu from './SlotMenu.vue';

const props = defineProps<SlotProps>();
const { fill, awaitPicks, isWaiting } = useFilling();

const chosen = computed(() => (props.step[props.piece.slot] ?? []) as readonly SectionRef[]);
const put = (next: readonly SectionRef[]) => fill(props.part, props.stepId, props.piece.slot, next);
const items = computed(() => [
  { label: 'pick more on the stage', run: () => awaitPicks(props.stepId, props.piece.slot) },
  ...(chosen.value.length > 2
    ? [
        { label: 'without the last', run: () => put(chosen.value.slice(0, -1)) },
        { label: 'the last before the one before it', run: () => put([...chosen.value.slice(0, -2), chosen.value.at(-1)!, chosen.value.at(-2)!]) },
      ]
    : []),
]); // prettier-ignore
</script>

<template>
  <SlotMenu :label="piece.label" :items="items" :waiting="isWaiting(stepId, piece.slot)" />
</template>
