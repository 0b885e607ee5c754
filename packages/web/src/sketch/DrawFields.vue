<script setup lang="ts">
/** Numbers typed while drawing, beside the pointer. Tab goes to the next, Enter places. */
import { displayFactor, formatNumber } from '@helb/core';
import { computed, nextTick, onBeforeUnmount, onMounted, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { DRAW_FIELDS } from './draw-tool.ts';
import type { PlaneMap } from './plane-map.ts';
import type { SketchEditing } from './sketch-editing.ts';

const props = defineProps<{ editing: SketchEditing; map: PlaneMap; width: number }>();

const FIELD_WIDTH = 112;
const design = useDesign();
const session = useSession();

const fields = computed(() => DRAW_FIELDS[session.tool!]);
const texts = ref<Record<string, string>>({});
const faults = ref<Record<string, string | null>>({});
const inputs = ref<HTMLInputElement[]>([]);

const place = computed(() => {
  const [x, y] = props.map.toPixel(props.editing.end.value!.at);
  // Near the right edge it stands on the pointer's other side.
  const fits = x + 18 + fields.value.length * FIELD_WIDTH < props.width;
  return fits
    ? { left: `${x + 18}px`, top: `${y + 18}px` }
    : { right: `${props.width - x + 18}px`, top: `${y + 18}px` };
});

/** What the stroke measures now, in the design's unit. */
const measured = computed<Record<string, string>>(() => {
  const a = props.editing.start.value!.at;
  const b = props.editing.end.value!.at;
  // From a centre, the pointer shows half of each size.
  const times = session.tool === 'centred rectangle' ? 2 : 1;
  const [dx, dy] = [Math.abs(b[0] - a[0]) * times, Math.abs(b[1] - a[1]) * times];
  const { units } = design.design!;
  const show = (mm: number) => formatNumber(mm / displayFactor('length', units), 2);
  return {
    length: show(Math.hypot(dx, dy)),
    width: show(dx),
    height: show(dy),
    diameter: show(2 * Math.hypot(dx, dy)),
  };
});

function read(field: string): void {
  const text = (texts.value[field] ?? '').trim();
  faults.value[field] = null;
  if (!text) {
    props.editing.setTyped(field, undefined);
    return;
  }
  const scope = { part: session.activePart!, step: session.sketching! };
  const value = design.ledger!.read(text, scope, 'length');
  if (!value.ok) faults.value[field] = value.message;
  else if (!(value.quantity.value > 0)) faults.value[field] = 'A size must be more than zero.';
  else
    props.editing.setTyped(field, {
      expression: design.ledger!.bind(text, scope, 'length'),
      value: value.quantity.value,
    });
}

function placeStroke(): void {
  for (const field of fields.value) read(field);
  if (Object.values(faults.value).some(Boolean)) return;
  props.editing.click();
  texts.value = {};
}

/** A digit typed anywhere over the stage starts the first field. */
async function onKey(event: KeyboardEvent): Promise<void> {
  const inField = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
  if (inField || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === 'Tab') {
    event.preventDefault();
    inputs.value[0]?.focus();
  } else if (/^[0-9.(]$/.test(event.key)) {
    event.preventDefault();
    const first = fields.value[0]!;
    texts.value = { ...texts.value, [first]: (texts.value[first] ?? '') + event.key };
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
    class="pointer-events-auto absolute z-20 flex gap-1 rounded-md border border-hairline bg-panel/95 p-1 shadow-sm"
    :style="place"
  >
    <label v-for="field in fields" :key="field" class="relative text-[10px] text-quiet">
      {{ field }}
      <input
        ref="inputs"
        v-model="texts[field]"
        :placeholder="measured[field]"
        :aria-label="field"
        :aria-invalid="!!faults[field]"
        class="number block w-24 rounded border border-hairline bg-white px-1 text-[13px] text-ink"
        autocomplete="off"
        @input="read(field)"
        @keydown.enter.stop.prevent="placeStroke"
        @keydown.escape.stop.prevent="editing.dropStroke()"
        @keydown.stop
      />
      <span
        v-if="faults[field]"
        role="alert"
        class="absolute top-full left-0 z-30 mt-1 block w-52 rounded border border-bad/40 bg-panel p-1 text-xs text-bad"
        >{{ faults[field] }}</span
      >
    </label>
  </div>
</template>
