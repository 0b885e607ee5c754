<script setup lang="ts">
/** Words, typed where they stand. */
import { nextTick, ref, useTemplateRef } from 'vue';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';

const props = defineProps<SlotProps>();
const { fill } = useFilling();
const open = ref(false);
const typed = ref('');
const field = useTemplateRef<HTMLInputElement>('field');

async function begin(): Promise<void> {
  typed.value = props.piece.label.replace(/^“|”$/g, '');
  open.value = true;
  await nextTick();
  field.value?.select();
}
function done(): void {
  if (!open.value) return;
  open.value = false;
  if (typed.value) fill(props.part, props.stepId, props.piece.slot, typed.value);
}
</script>

<template>
  <input
    v-if="open"
    ref="field"
    v-model="typed"
    class="slot w-32 leading-5"
    maxlength="200"
    :aria-label="`${step.name}: ${piece.slot}`"
    @keydown.enter.stop="done"
    @keydown.escape.stop="open = false"
    @blur="done"
  />
  <button v-else class="slot leading-5" @click="begin">{{ piece.label }}</button>
</template>
