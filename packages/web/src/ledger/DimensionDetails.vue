<script setup lang="ts">
/** Heading, note and range of one dimension. Each is kept when its field is left. */
import { describeDimensions, type Dial, type DimensionEntry } from '@helb/core';
import { useDesign } from '../design/design-store.ts';
import HeldInput from '../fields/HeldInput.vue';
import { useDimensionEdit } from './dimension-edit.ts';

const props = defineProps<{ entry: DimensionEntry }>();
const emit = defineEmits<{ close: [] }>();
const design = useDesign();
const { at } = useDimensionEdit();

const describe = (change: Parameters<typeof describeDimensions>[1]) =>
  at(props.entry.ref, describeDimensions([props.entry.ref], change));

const ENDS = [
  ['min', 'least'],
  ['max', 'most'],
  ['step', 'by steps of'],
] as const;

function setEnd(end: keyof Dial, typed: string): Promise<boolean> {
  const dial = { ...props.entry.dial };
  delete dial[end];
  return describe({ dial: typed ? { ...dial, [end]: typed } : dial });
}

const shownEnd = (end: keyof Dial) => {
  const own = props.entry.dial?.[end];
  return own === undefined ? '' : design.ledger!.shownText(own, props.entry);
};
</script>

<template>
  <div class="mt-1 mb-1.5 grid grid-cols-[auto_minmax(0,1fr)] items-center gap-x-2 gap-y-1 text-xs" @keydown.stop>
    <label class="contents">
      <span class="text-quiet">heading</span>
      <HeldInput
        class="field"
        :value="entry.group ?? ''"
        maxlength="40"
        :set="(typed) => describe({ group: typed.trim() || null })"
      />
    </label>
    <label class="contents">
      <span class="text-quiet">note</span>
      <HeldInput
        class="field"
        :value="entry.note ?? ''"
        maxlength="500"
        :set="(typed) => describe({ note: typed.trim() || null })"
      />
    </label>
    <template v-if="!entry.measured">
      <label class="contents">
        <span class="text-quiet">a dial</span>
        <input
          type="checkbox"
          class="h-4 w-4 accent-petrol"
          :checked="entry.dial !== null"
          @change="describe({ dial: entry.dial ? null : {} })"
        />
      </label>
      <template v-if="entry.dial">
        <label v-for="[end, label] in ENDS" :key="end" class="contents">
          <span class="text-quiet">{{ label }}</span>
          <HeldInput class="field number" :value="shownEnd(end)" :set="(typed) => setEnd(end, typed.trim())" />
        </label>
      </template>
    </template>
    <button class="col-start-2 justify-self-start font-medium text-link underline" @click="emit('close')">Close</button>
  </div>
</template>
