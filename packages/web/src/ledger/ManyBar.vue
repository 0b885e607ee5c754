<script setup lang="ts">
/** What can be done with several dimensions at once. */
import { deleteDimension, describeDimensions, linkNumbers, setDimensions, severalEdits, type Edit } from '@helb/core';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';

const props = defineProps<{ picked: readonly string[] }>();
const emit = defineEmits<{ clear: [] }>();
const design = useDesign();
const session = useSession();
const value = ref('');
const heading = ref('');

const named = computed(() =>
  props.picked.every((r) => {
    const owner = design.ledger?.index.byReference(r)?.owner;
    return owner !== undefined && !('step' in owner);
  }),
);
/** Equal numbers can be one. */
const alike = computed(() => {
  const values = props.picked.map((r) => design.ledger!.valueOf(r));
  const numbers = values.map((v) => (v.ok ? v.quantity.value : NaN));
  return numbers.length > 1 && numbers.every((n) => Math.abs(n - numbers[0]!) <= 1e-9 * Math.abs(numbers[0]!));
});

function make(edit: Edit): void {
  session.notice = design.edit(edit);
}
function setAll(): void {
  if (!value.value.trim()) return;
  make(setDimensions(props.picked.map((r) => [r, value.value] as const)));
  if (session.notice === null) value.value = '';
}
/** As one edit, so that one undo brings all back. */
function removeAll(): void {
  make(severalEdits(`Delete ${props.picked.length} dimensions`, props.picked.map(deleteDimension)));
  if (session.notice === null) emit('clear');
}
</script>

<template>
  <div
    role="group"
    aria-label="Picked dimensions"
    class="mx-3 mb-1 rounded-md border border-signal bg-card p-2 text-xs"
  >
    <p class="flex items-baseline gap-2">
      <span class="font-semibold">{{ picked.length }} picked</span>
      <span class="flex-1" />
      <button v-if="alike" class="font-medium text-link underline" @click="make(linkNumbers(picked, picked[0]!))">
        Link them
      </button>
      <button v-if="named" class="font-medium text-bad underline" @click="removeAll">Delete</button>
      <button class="font-medium underline" @click="emit('clear')">Let go</button>
    </p>
    <form class="mt-1.5 flex gap-1" @submit.prevent="setAll" @keydown.stop>
      <input v-model="value" class="field number" placeholder="set all to" aria-label="Set all picked to" />
      <button class="button shrink-0 px-2 py-0.5">Set</button>
    </form>
    <form
      v-if="named"
      class="mt-1 flex gap-1"
      @submit.prevent="make(describeDimensions(picked, { group: heading.trim() || null }))"
      @keydown.stop
    >
      <input v-model="heading" class="field" maxlength="40" placeholder="heading" aria-label="Heading for all picked" />
      <button class="button shrink-0 px-2 py-0.5">Put under</button>
    </form>
  </div>
</template>
