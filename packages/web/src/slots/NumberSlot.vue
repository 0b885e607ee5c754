<script setup lang="ts">
/** A number: its expression is typed where it stands. */
import { kindOf } from '@helb/core';
import { computed, ref, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import ExpressionField from '../fields/ExpressionField.vue';
import { useOpenField } from '../fields/open-field.ts';
import type { SlotProps } from './slot-props.ts';

const props = defineProps<SlotProps>();
const design = useDesign();
const session = useSession();
const openField = useOpenField();
const open = ref(false);
const key = computed(() => `${props.stepId}.${props.piece.slot}`);

// A step just begun opens its first number.
watch(
  () => design.attempt !== null && session.editing === props.stepId,
  (fresh) => {
    if (fresh && kindOf(props.step).first === props.piece.slot) open.value = true;
  },
  { immediate: true },
);
</script>

<template>
  <ExpressionField v-if="open" compact :reference="key" :label="`${step.name}: ${piece.slot}`" @close="open = false" />
  <button
    v-else
    class="slot number leading-5"
    :aria-label="`${step.name}, ${piece.slot}: ${piece.label}`"
    @mousedown="openField.takePointed($event, key)"
    @click="openField.field || (open = true)"
    @pointerenter="session.hoveredDimension = key"
    @pointerleave="session.hoveredDimension = null"
  >
    {{ piece.label }}<span v-if="piece.value" class="font-normal text-quiet"> = {{ piece.value }}</span>
  </button>
</template>
