<script setup lang="ts">
/** One cell: what the variant sets, or, faint, what the design has. */
import { computed, nextTick, ref, useTemplateRef } from 'vue';

const props = defineProps<{
  label: string;
  /** Empty where the design's own holds. */
  text: string;
  own: string;
  /** Where only these can be chosen. */
  choices: readonly string[] | null;
  set: (typed: string) => string | null;
}>();

const field = useTemplateRef<HTMLInputElement | HTMLSelectElement>('field');
const editing = ref(false);
const typed = ref('');
const fault = ref<string | null>(null);
const OWN = '';
const options = computed(() => (props.choices ? [OWN, ...props.choices] : null));

async function begin(first?: string): Promise<void> {
  typed.value = first ?? props.text;
  fault.value = null;
  editing.value = true;
  await nextTick();
  field.value?.focus();
  if (first === undefined && field.value instanceof HTMLInputElement) field.value.select();
}

function keep(): boolean {
  if (!editing.value) return true;
  fault.value = typed.value.trim() === props.text ? null : props.set(typed.value);
  if (fault.value === null) editing.value = false;
  return fault.value === null;
}

function drop(): void {
  editing.value = false;
  fault.value = null;
}

/** A key that writes begins the cell anew. */
function key(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === 'Enter' || event.key === 'F2') void begin();
  else if (event.key === 'Delete' || event.key === 'Backspace') fault.value = props.set('');
  else if (event.key.length === 1 && event.key !== ' ' && !props.choices) void begin(event.key);
  else return;
  event.preventDefault();
  event.stopPropagation();
}

/** To the cell below, as in any table of numbers. */
function enter(event: KeyboardEvent): void {
  const cell = (event.target as HTMLElement).closest('td');
  const below = cell?.parentElement?.nextElementSibling?.children[cell.cellIndex];
  if (keep()) void nextTick(() => (below?.querySelector('button') ?? cell?.querySelector('button'))?.focus());
}
</script>

<template>
  <div class="relative min-w-20">
    <select
      v-if="editing && options"
      ref="field"
      v-model="typed"
      class="w-full rounded border border-signal bg-field px-1"
      :aria-label="label"
      @change="keep"
      @keydown.stop
      @keydown.escape="drop"
      @blur="keep"
    >
      <option v-for="o in options" :key="o" :value="o">{{ o || 'as in the design' }}</option>
    </select>
    <input
      v-else-if="editing"
      ref="field"
      v-model="typed"
      class="number w-full rounded border border-signal bg-field px-1"
      :aria-label="label"
      :aria-invalid="fault !== null"
      spellcheck="false"
      @keydown.stop
      @keydown.enter.prevent="enter"
      @keydown.escape="drop"
      @blur="keep"
    />
    <button
      v-else
      class="number block min-h-6 w-full rounded px-1 text-left whitespace-nowrap hover:bg-signal-soft"
      :class="text ? '' : 'text-quiet italic'"
      :aria-label="`${label}: ${text || `${own}, as in the design`}`"
      @click="begin()"
      @keydown="key"
    >
      {{ text || own }}
    </button>
    <span
      v-if="fault"
      role="alert"
      class="absolute bottom-full left-0 z-30 mb-1 block w-64 rounded-md border border-bad/40 bg-panel p-2 text-xs whitespace-normal text-bad shadow-sm"
      >{{ fault }}</span
    >
  </div>
</template>
