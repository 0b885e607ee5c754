<script setup lang="ts">
/** A dimension's number on the stage: click to edit it where it stands, drag to move it. */
import { displayFactor, formatNumber, formatQuantity, isDimension, measureDimension, quantityOf } from '@helb/core';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import ExpressionField from '../fields/ExpressionField.vue';
import { useOpenField } from '../fields/open-field.ts';
import type { DimensionDrawing } from './dimension-layout.ts';
import type { PlaneMap } from './plane-map.ts';
import type { SketchEditing } from './sketch-editing.ts';

const props = defineProps<{ id: string; drawing: DimensionDrawing; map: PlaneMap; editing: SketchEditing }>();
const emit = defineEmits<{ text: [text: string] }>();
const design = useDesign();
const session = useSession();
const openField = useOpenField();

const open = ref(false);
const key = computed(() => `${session.sketching}.${props.id}`);
const entry = computed(() => design.ledger?.index.byReference(key.value));
const constraint = computed(() => {
  const c = props.editing.geometry.value?.constraints[props.id];
  return c && isDimension(c) ? c : null;
});

/** What it reads: as given, or for a driven one as the geometry has it, in brackets. */
const text = computed(() => {
  const c = constraint.value;
  if (!c || !design.ledger || !design.design) return '';
  const kind = entry.value?.kind ?? quantityOf(c);
  const value = c.driven ? null : entry.value && design.ledger.valueOfEntry(entry.value);
  if (value && !value.ok) return '?';
  const mm = value ? value.quantity.value : measureDimension(props.editing.geometry.value!, c);
  const { units } = design.design;
  const fraction = kind === 'length' && units.fractions ? formatQuantity(mm, kind, units).replace(/ in$/, '') : null;
  const number = fraction ?? formatNumber(mm / displayFactor(kind, units), units.decimals);
  const { prefix, suffix = '' } = props.drawing;
  const plain = `${prefix}${number}${kind === 'angle' ? '°' : ''}${suffix}`;
  return `${c.driven ? `(${plain})` : plain}${c.tolerance ? ` ${c.tolerance}` : ''}`;
});

watch(text, (now) => emit('text', now), { immediate: true });

watch(
  () => session.dimensionToEdit,
  (wanted) => {
    if (wanted !== key.value) return;
    open.value = true;
    session.dimensionToEdit = null;
  },
  { immediate: true },
);

const toleranceField = useTemplateRef<HTMLInputElement>('toleranceField');
watch(toleranceField, (field) => field?.focus());

function writeTolerance(event: Event): void {
  if (session.toleranceOf !== props.id) return;
  session.toleranceOf = null;
  props.editing.setTolerance(props.id, (event.target as HTMLInputElement).value);
}

const MOVED_PX = 4;
let from: { x: number; y: number; moved: boolean } | null = null;
const shift = ref<[number, number]>([0, 0]);

function down(event: PointerEvent): void {
  if (openField.take(key.value)) return;
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  from = { x: event.clientX, y: event.clientY, moved: false };
}

function move(event: PointerEvent): void {
  if (!from) return;
  const d: [number, number] = [event.clientX - from.x, event.clientY - from.y];
  if (Math.hypot(...d) > MOVED_PX) from.moved = true;
  if (from.moved) shift.value = d;
}

function up(event: PointerEvent): void {
  const was = from;
  from = null;
  if (!was) return;
  if (!was.moved) {
    session.entities = [props.id];
    open.value = !constraint.value?.driven;
    return;
  }
  const box = (event.currentTarget as HTMLElement).offsetParent!.getBoundingClientRect();
  const at = props.map.toPlane(event.clientX - box.left, event.clientY - box.top);
  shift.value = [0, 0];
  props.editing.change('Move a dimension', (sketch) => {
    const c = sketch.constraints[props.id];
    if (c && 'value' in c) c.label = [Number(at[0].toFixed(3)), Number(at[1].toFixed(3))];
  });
}
</script>

<template>
  <span
    class="pointer-events-auto absolute"
    :class="open ? 'z-20' : ''"
    :style="{ left: `${drawing.text.at[0] + shift[0]}px`, top: `${drawing.text.at[1] + shift[1]}px` }"
    @pointerenter="session.hoveredDimension = key"
    @pointerleave="session.hoveredDimension = null"
  >
    <ExpressionField
      v-if="open && entry"
      class="-translate-x-1/2 -translate-y-1/2"
      compact
      :reference="key"
      :label="`Dimension ${entry.name}`"
      @close="open = false"
    />
    <input
      v-else-if="session.toleranceOf === id"
      ref="toleranceField"
      class="number w-24 -translate-x-1/2 -translate-y-1/2 rounded border border-signal bg-field px-1 text-[13px]"
      :value="constraint?.tolerance ?? ''"
      placeholder="±0.1, H7 …"
      maxlength="40"
      :aria-label="`Tolerance of ${entry?.name ?? 'this dimension'}`"
      @pointerdown.stop
      @keydown.stop
      @keydown.enter="($event.target as HTMLInputElement).blur()"
      @keydown.escape="session.toleranceOf = null"
      @blur="writeTolerance"
    />
    <button
      v-else
      class="number block -translate-x-1/2 -translate-y-1/2 rounded px-1 text-[13px] leading-5 text-petrol hover:bg-signal-soft hover:text-signal"
      :class="{ 'text-signal': session.hoveredDimension === key }"
      :style="{ rotate: `${drawing.text.angle}rad` }"
      :aria-label="`${constraint?.driven ? 'Reference' : 'Dimension'} ${entry?.name ?? ''}, ${text}`"
      :data-dimension="entry?.name"
      @mousedown="openField.field && $event.preventDefault()"
      @pointerdown.stop="down"
      @pointermove.stop="move"
      @pointerup.stop="up"
      @keydown.enter.stop.prevent="open = true"
    >
      {{ text }}
    </button>
  </span>
</template>
