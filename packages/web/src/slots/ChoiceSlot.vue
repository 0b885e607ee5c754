<script setup lang="ts">
/** One of a few words, or one of two. */
import { computed } from 'vue';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';
import SlotMenu from './SlotMenu.vue';

const props = defineProps<SlotProps>();
const { fill } = useFilling();
const items = computed(() =>
  (props.piece.choices ?? []).map(({ value, label }) => ({
    label,
    run: () => fill(props.part, props.stepId, props.piece.slot, props.piece.kind === 'flag' ? value === 'true' : value),
  })),
);
</script>

<template>
  <SlotMenu :label="piece.label" :items="items" />
</template>
