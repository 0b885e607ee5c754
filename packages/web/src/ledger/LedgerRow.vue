<script setup lang="ts">
/** One dimension: name, value, expression; a dial has a slider over its usual range. */
import { deleteDimension, displayFactor, expressionOf, kindOfPowers, type DimensionEntry } from '@helb/core';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import ExpressionField from '../fields/ExpressionField.vue';
import NameField from '../fields/NameField.vue';
import { useDimensionEdit } from './dimension-edit.ts';

const props = defineProps<{ entry: DimensionEntry; used: number }>();
const design = useDesign();
const session = useSession();
const { commit, make, rename } = useDimensionEdit();

const open = ref(false);
const ledger = computed(() => design.ledger!);
const value = computed(() => ledger.value.valueOfEntry(props.entry));
const shown = computed(() => ledger.value.format(value.value));
const expression = computed(() => ledger.value.shown(props.entry));
const label = computed(() =>
  props.entry.owner.level === 'sketch' || props.entry.owner.level === 'slot' ? `${props.entry.path.at(-2)}.` : '',
);
const lit = computed(() => session.hoveredDimension === props.entry.ref);

const range = computed(() => {
  const d = design.design?.dimensions[props.entry.ref]?.dial;
  if (!d?.min || !d.max || !value.value.ok) return null;
  const read = (text: string) => ledger.value.read(text, {}, null);
  const [min, max] = [read(d.min), read(d.max)];
  if (!min.ok || !max.ok) return null;
  const kind = kindOfPowers(value.value.quantity.powers) ?? 'number';
  const factor = displayFactor(kind, design.design!.units);
  return {
    kind,
    factor,
    min: min.quantity.value / factor,
    max: max.quantity.value / factor,
    now: value.value.quantity.value / factor,
  };
});

function slide(event: Event): void {
  const r = range.value!;
  const typed = expressionOf(Number((event.target as HTMLInputElement).value) * r.factor, r.kind, design.design!.units);
  session.notice = commit(props.entry.ref, typed);
}

function remove(): void {
  session.notice = design.edit(deleteDimension(props.entry.ref));
}
</script>

<template>
  <div
    class="group relative border-l-2 px-3 py-1"
    :class="lit ? 'border-signal bg-signal-soft' : 'border-transparent hover:bg-tray/40'"
    :data-ledger="entry.path.join('.')"
    @pointerenter="session.hoveredDimension = entry.ref"
    @pointerleave="session.hoveredDimension = null"
  >
    <div class="flex items-baseline gap-2">
      <span class="flex min-w-0 flex-1 items-baseline">
        <span v-if="label" class="shrink-0 text-quiet">{{ label }}</span>
        <NameField
          :name="entry.name"
          label="Name of the dimension"
          :fixed="entry.owner.level === 'slot'"
          :rename="(name) => rename(entry.ref, name)"
        />
      </span>
      <button
        v-if="entry.owner.level === 'design' || entry.owner.level === 'part'"
        class="invisible rounded px-1 text-xs text-quiet group-focus-within:visible group-hover:visible hover:text-bad"
        :aria-label="`Delete ${entry.name}`"
        @click="remove"
      >
        delete
      </button>
      <button
        v-if="!open"
        class="number shrink-0 rounded px-1 hover:bg-signal-soft hover:text-signal"
        :class="value.ok ? '' : 'text-bad'"
        :aria-label="`${entry.path.join('.')}: ${shown}`"
        :title="used ? `used by ${used} other${used === 1 ? '' : 's'}` : undefined"
        @click="open = true"
      >
        {{ shown }}
      </button>
    </div>
    <ExpressionField
      v-if="open"
      :text="expression"
      :label="`Expression of ${entry.path.join('.')}`"
      :commit="(typed) => commit(entry.ref, typed)"
      :make="(name) => make(entry.ref, name)"
      @done="open = false"
      @cancel="open = false"
    />
    <button
      v-else-if="expression !== shown"
      class="number block max-w-full truncate text-left text-xs text-link hover:underline"
      :title="expression"
      @click="open = true"
    >
      {{ expression }}
    </button>
    <p v-if="!value.ok" class="text-xs text-bad">{{ value.message }}</p>
    <input
      v-if="range"
      type="range"
      class="dial h-4 w-full"
      :min="range.min"
      :max="range.max"
      :step="(range.max - range.min) / 100"
      :value="range.now"
      :aria-label="`${entry.name}, dial`"
      @change="slide"
      @keydown.stop
    />
  </div>
</template>

<style scoped>
.dial {
  accent-color: var(--color-petrol);
  appearance: none;
  background: transparent;
}
.dial::-webkit-slider-runnable-track {
  height: 3px;
  border-radius: 2px;
  background: linear-gradient(to right, #e2dccb, #b9d3d0 20%, #b9d3d0 80%, #e2dccb);
}
.dial::-webkit-slider-thumb {
  appearance: none;
  width: 5px;
  height: 13px;
  margin-top: -5px;
  border-radius: 1px;
  background: var(--color-petrol);
}
</style>
