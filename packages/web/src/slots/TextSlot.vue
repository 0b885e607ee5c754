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
  // The label may be shortened.
  typed.value = (props.step[props.piece.slot] as string | undefined) ?? props.piece.label.replace(/^“|”$/g, '');
  open.value = true;
  await nextTick();
  field.value?.select();
}
function done(): void {
  if (!open.value) return;
  open.value = false;
  if (typed.value) fill(props.part, props.stepId, props.piece.slot, typed.value);
}

/** Rows of a pasted table stay rows, though the field has one line; a cell’s comma is a decimal one. */
function paste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text') ?? '';
  if (!/[\t\n]/.test(text)) return;
  event.preventDefault();
  const rows = text
    .trim()
    .split(/\r?\n/)
    .map((row) => row.split('\t'));
  const written = rows
    .map((cells) => cells.map((c) => c.trim().replace(/^(-?\d*),(\d+)$/, '$1.$2')).join(', '))
    .join('; ');
  const at = event.target as HTMLInputElement;
  at.setRangeText(written, at.selectionStart!, at.selectionEnd!, 'end');
  typed.value = at.value;
}
</script>

<template>
  <input
    v-if="open"
    ref="field"
    v-model="typed"
    class="slot w-32 leading-5"
    maxlength="8000"
    :aria-label="`${step.name}: ${piece.slot}`"
    @keydown.enter.stop="done"
    @keydown.escape.stop="open = false"
    @paste="paste"
    @blur="done"
  />
  <button v-else class="slot leading-5" @click="begin">{{ piece.label }}</button>
</template>
