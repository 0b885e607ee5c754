<script setup lang="ts">
/** Numbers typed while drawing, beside the pointer. Tab goes to the next, Enter places. */
import { displayFactor, formatNumber, type DrawField } from '@helb/core';
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import type { PlaneMap } from './plane-map.ts';
import type { SketchEditing } from './sketch-editing.ts';

const props = defineProps<{ editing: SketchEditing; map: PlaneMap; width: number }>();

const FIELD_WIDTH = 112;
const design = useDesign();
const session = useSession();

const fields = computed(() => props.editing.drawing.fields.value);
const texts = ref<Record<string, string>>({});
const faults = ref<Record<string, string | null>>({});
const inputs = ref<HTMLInputElement[]>([]);

watch(
  () => props.editing.drawing.clicks.value.length,
  () => {
    texts.value = {};
    faults.value = {};
    if (document.activeElement instanceof HTMLInputElement && inputs.value.includes(document.activeElement))
      void nextTick(() => inputs.value[0]?.focus());
  },
);

const place = computed(() => {
  const [x, y] = props.map.toPixel(props.editing.drawing.end.value!.at);
  // Near the right edge it stands on the pointer's other side.
  const fits = x + 18 + fields.value.length * FIELD_WIDTH < props.width;
  return fits
    ? { left: `${x + 18}px`, top: `${y + 18}px` }
    : { right: `${props.width - x + 18}px`, top: `${y + 18}px` };
});

/** What the stroke measures now, in the design's unit. */
function measured(field: DrawField): string {
  const { clicks, target } = props.editing.drawing;
  if (!field.measure || !target.value) return field.initial ?? '';
  const value = field.measure(clicks.value, target.value.at);
  return formatNumber(value / displayFactor(field.kind === 'angle' ? 'angle' : 'length', design.design!.units), 2);
}

function read(field: DrawField): void {
  const text = (texts.value[field.name] ?? '').trim();
  const { setTyped } = props.editing.drawing;
  faults.value[field.name] = null;
  if (!text) setTyped(field.name, undefined);
  else if (field.kind === 'text') setTyped(field.name, { expression: text, value: 0 });
  else {
    const scope = { part: session.activePart!, step: session.sketching! };
    const kind = field.kind === 'count' ? 'number' : field.kind;
    const value = design.ledger!.read(text, scope, kind);
    if (!value.ok) faults.value[field.name] = value.message;
    else if (!(value.quantity.value > 0)) faults.value[field.name] = 'A size must be more than zero.';
    else setTyped(field.name, { expression: design.ledger!.bind(text, scope, kind), value: value.quantity.value });
  }
}

function placeStroke(): void {
  for (const field of fields.value) read(field);
  if (Object.values(faults.value).some(Boolean)) return;
  props.editing.drawing.click();
}

/** A digit typed anywhere over the stage starts the first field; for lettering, any character would. */
async function onKey(event: KeyboardEvent): Promise<void> {
  const inField = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
  if (inField || event.ctrlKey || event.metaKey || event.altKey || fields.value.length === 0) return;
  if (event.key === 'Tab') {
    event.preventDefault();
    inputs.value[0]?.focus();
  } else if (/^[0-9.(]$/.test(event.key)) {
    event.preventDefault();
    const first = fields.value[0]!;
    texts.value = { ...texts.value, [first.name]: (texts.value[first.name] ?? '') + event.key };
    read(first);
    await nextTick();
    inputs.value[0]?.focus();
  }
}
onMounted(() => window.addEventListener('keydown', onKey));
onBeforeUnmount(() => window.removeEventListener('keydown', onKey));
</script>

<template>
  <div
    v-if="fields.length > 0"
    class="pointer-events-auto absolute z-20 flex gap-1 rounded-md border border-hairline bg-panel/95 p-1 shadow-sm"
    :style="place"
  >
    <label v-for="field in fields" :key="field.name" class="relative text-[10px] text-quiet">
      {{ field.name }}
      <input
        ref="inputs"
        v-model="texts[field.name]"
        :placeholder="measured(field)"
        :aria-label="field.name"
        :aria-invalid="!!faults[field.name]"
        class="number block w-24 rounded border border-hairline bg-field px-1 text-[13px] text-ink"
        autocomplete="off"
        @input="read(field)"
        @keydown.enter.stop.prevent="placeStroke"
        @keydown.escape.stop.prevent="editing.drawing.drop()"
        @keydown.stop
      />
      <span
        v-if="faults[field.name]"
        role="alert"
        class="absolute top-full left-0 z-30 mt-1 block w-52 rounded border border-bad/40 bg-panel p-1 text-xs text-bad"
        >{{ faults[field.name] }}</span
      >
    </label>
  </div>
</template>
