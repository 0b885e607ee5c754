<script setup lang="ts">
/** Which layers of a DXF drawing are taken in, at which unit, and how near its ends must be to be one. */
import { DxfRefused, readDxf, takeIn, type DxfDrawing } from '@helb/core';
import { useFileDialog } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { toast } from 'vue-sonner';
import { useSession } from '../design/session.ts';
import type { SketchEditing } from './sketch-editing.ts';

const props = defineProps<{ editing: SketchEditing }>();
const session = useSession();
const drawing = shallowRef<DxfDrawing | null>(null);
const taken = ref<string[]>([]);
const unit = ref(1);
const join = ref(0.01);
const MOST_BYTES = 20_000_000;
const UNITS = [['mm', 1], ['cm', 10], ['m', 1000], ['in', 25.4], ['ft', 304.8]] as const; // prettier-ignore

const { open, onChange, onCancel } = useFileDialog({ accept: '.dxf', multiple: false, reset: true });
watch(() => session.readingDxf, (now) => now && open(), { immediate: true }); // prettier-ignore
onCancel(close);
onChange(async (files) => {
  const file = files?.[0];
  if (!file) return;
  try {
    if (file.size > MOST_BYTES) throw new DxfRefused('This file is larger than 20 MB; save only the profile as DXF.');
    const read = readDxf(await file.text());
    drawing.value = read;
    taken.value = read.layers.map((l) => l.name);
    unit.value = read.unit ?? 1;
  } catch (error) {
    if (!(error instanceof DxfRefused)) throw error;
    session.notice = error.message;
    close();
  }
});

const count = computed(
  () =>
    drawing.value?.layers.filter((l) => taken.value.includes(l.name)).reduce((sum, l) => sum + l.pieces.length, 0) ?? 0,
);

function close(): void {
  session.readingDxf = false;
  drawing.value = null;
}

function keep(): void {
  const pieces = drawing.value!.layers.filter((l) => taken.value.includes(l.name)).flatMap((l) => l.pieces);
  let joined = 0;
  const { skipped } = drawing.value!;
  if (
    !props.editing.change(
      'Read a DXF drawing',
      (s) => (joined = takeIn(s, pieces, { scale: unit.value, join: join.value })),
    )
  )
    return;
  const left = skipped > 0 ? `; ${skipped} of other kinds (text, dimensions, blocks) were left out` : '';
  toast(`Read ${pieces.length} curves, ${joined} ends joined${left}.`);
  close();
}
</script>

<template>
  <form
    v-if="drawing"
    class="flex flex-wrap items-center gap-3 border-b border-hairline bg-panel/95 px-3 py-1.5"
    aria-label="Read a DXF drawing"
    @submit.prevent="keep"
  >
    <span class="text-quiet">Layers</span>
    <label v-for="layer in drawing.layers" :key="layer.name" class="flex items-center gap-1">
      <input v-model="taken" type="checkbox" class="accent-petrol" :value="layer.name" />
      {{ layer.name }} <span class="number text-quiet">{{ layer.pieces.length }}</span>
    </label>
    <label class="flex items-center gap-1.5 text-quiet"
      >Unit
      <select v-model.number="unit" class="rounded border border-hairline bg-field px-1 text-ink">
        <option v-for="[name, mm] in UNITS" :key="name" :value="mm">{{ name }}</option>
      </select>
    </label>
    <label class="flex items-center gap-1.5 text-quiet"
      >Join ends within
      <input
        v-model.number="join"
        type="number"
        min="0"
        max="10"
        step="0.001"
        class="number w-20 rounded border border-hairline bg-field px-1 text-ink"
      />
      mm
    </label>
    <span class="flex-1" />
    <button class="button-primary py-0.5" type="submit" :disabled="count === 0">Take in {{ count }}</button>
    <button class="button py-0.5" type="button" @click="close">Drop</button>
  </form>
</template>
