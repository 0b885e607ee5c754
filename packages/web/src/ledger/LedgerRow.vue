<script setup lang="ts">
/** One dimension: name, value, expression; a dial has a slider over its allowed range. */
import { Menu, MenuButton } from '@headlessui/vue';
import { deleteDimension, makeDial, moveDimensions, newId, type DimensionEntry } from '@helb/core';
import { IconDots, IconGripVertical, IconRuler2, IconStarFilled } from '@tabler/icons-vue';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import ActionItems from '../fields/ActionItems.vue';
import ExpressionField from '../fields/ExpressionField.vue';
import NameField from '../fields/NameField.vue';
import { useOpenField } from '../fields/open-field.ts';
import { useStars } from '../trial/watched.ts';
import { useTrial } from '../trial/trial-store.ts';
import DialSlider from './DialSlider.vue';
import DimensionDetails from './DimensionDetails.vue';
import { useDimensionEdit } from './dimension-edit.ts';
import { measuredWords } from './measured-words.ts';
import { useProjectDimensions } from './project-dimensions.ts';

const props = defineProps<{ entry: DimensionEntry; picked: boolean; picking: boolean; hangs: number | null }>();
const emit = defineEmits<{ pick: [extend: boolean] }>();
const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const openField = useOpenField();
const trial = useTrial();
const project = useProjectDimensions();
const { stars, toggle } = useStars();
const { commit, make, rename, at } = useDimensionEdit();

const open = ref(false);
const detailed = ref(false);
const ledger = computed(() => design.ledger!);
const value = computed(() => ledger.value.valueOfEntry(props.entry));
const shown = computed(() => ledger.value.format(value.value));
const expression = computed(() => ledger.value.shown(props.entry));
const label = computed(() => ('step' in props.entry.owner ? `${props.entry.path.at(-2)}.` : ''));
const lit = computed(() => session.hoveredDimension === props.entry.ref);
const tried = computed(() => trial.values.has(props.entry.ref));
/** It has a place of its own, rather than one in a sketch or step. */
const isNamed = computed(() => !('step' in props.entry.owner));
const measured = computed(() => measuredWords(design.design!, props.entry));
const unreadable = computed(() => evaluation.unreadable.get(props.entry.ref));

/** Those it stands among in the document. */
const siblings = computed(() => {
  const { owner } = props.entry;
  if (owner.level === 'design') return design.design!.dimensionOrder;
  return owner.level === 'part' ? design.design!.parts[owner.part]!.dimensionOrder : [];
});
function move(by: -1 | 1): void {
  const i = siblings.value.indexOf(props.entry.ref);
  const before = siblings.value[by < 0 ? i - 1 : i + 2] ?? null;
  session.notice = design.edit(moveDimensions([props.entry.ref], before));
}
function drop(event: DragEvent): void {
  const dragged = event.dataTransfer?.getData('text/x-dimension');
  if (dragged && dragged !== props.entry.ref) session.notice = design.edit(moveDimensions([dragged], props.entry.ref));
}

/** A name for the dial that is free in the design. */
function promote(): void {
  const taken = new Set(Object.values(design.design!.dimensions).map((d) => d.name));
  const base = props.entry.owner.level === 'slot' ? `${props.entry.path.at(-2)}_${props.entry.name}` : props.entry.name;
  let name = base.slice(0, 36);
  for (let n = 2; taken.has(name); n++) name = `${base.slice(0, 36)}_${n}`;
  session.notice = design.edit(makeDial(props.entry.ref, newId('d'), name));
}

const items = computed(() => {
  const { ref: reference, owner } = props.entry;
  const place = siblings.value.indexOf(reference);
  return [
    { label: 'Trace it', run: () => (session.traced = reference) },
    { label: stars.value.includes(reference) ? 'Watch it no more' : 'Watch it', run: () => toggle(reference) },
    ...(isNamed.value ? [{ label: 'Range, heading, note', run: () => (detailed.value = true) }] : []),
    ...(!isNamed.value && !props.entry.measured ? [{ label: 'Make it a dial', run: promote }] : []),
    ...(place > 0 ? [{ label: 'Move up', run: () => move(-1) }] : []),
    ...(place >= 0 && place < siblings.value.length - 1 ? [{ label: 'Move down', run: () => move(1) }] : []),
    ...(owner.level === 'design' && !props.entry.measured
      ? [{ label: 'Share with the project', run: async () => (session.notice = await project.give(reference)) }]
      : []),
    ...(isNamed.value ? [{ label: 'Delete', run: () => at(reference, deleteDimension(reference)) }] : []),
  ];
});
</script>

<template>
  <div
    class="group relative border-l-2 py-0.5 pr-1 pl-1"
    :class="
      lit
        ? 'border-signal bg-signal-soft'
        : tried || session.traced === entry.ref
          ? 'border-signal bg-white'
          : 'border-transparent hover:bg-tray/40'
    "
    :data-ledger="entry.path.join('.')"
    @pointerenter="session.hoveredDimension = entry.ref"
    @pointerleave="session.hoveredDimension = null"
    @dragover.prevent
    @drop.prevent="drop"
  >
    <div class="flex items-center gap-1">
      <input
        type="checkbox"
        class="h-3.5 w-3.5 shrink-0 accent-petrol group-focus-within:opacity-100 group-hover:opacity-100"
        :class="picking ? '' : 'opacity-0'"
        :checked="picked"
        :aria-label="`Pick ${entry.path.join('.')}`"
        @click.prevent="emit('pick', $event.shiftKey)"
      />
      <span class="flex min-w-0 flex-1 items-baseline" @mousedown="openField.takePointed($event, entry.ref)">
        <span v-if="label" class="max-w-[55%] shrink-0 truncate text-quiet">{{ label }}</span>
        <NameField
          :name="entry.name"
          label="Name of the dimension"
          :fixed="entry.owner.level === 'slot'"
          :asked="session.dimensionToName === entry.ref"
          :rename="(name) => rename(entry.ref, name)"
          @begun="session.dimensionToName = null"
        />
        <IconStarFilled v-if="stars.includes(entry.ref)" :size="10" class="ml-1 shrink-0 self-center text-quiet" />
      </span>
      <button
        v-if="!open"
        class="number shrink-0 rounded px-1 leading-6 hover:bg-signal-soft hover:text-signal disabled:cursor-default disabled:text-quiet"
        :class="[value.ok ? '' : 'text-bad', tried ? 'text-signal' : '']"
        :disabled="entry.measured !== null"
        :aria-label="`${entry.path.join('.')}: ${shown}`"
        @mousedown="openField.takePointed($event, entry.ref)"
        @click="open = openField.field === null"
      >
        {{ entry.measured?.of === 'sketch' ? `(${shown})` : shown }}
      </button>
      <span
        v-if="isNamed"
        class="hidden h-6 w-3 shrink-0 cursor-grab place-items-center text-quiet group-hover:grid"
        draggable="true"
        title="Drag to another place"
        @dragstart="$event.dataTransfer?.setData('text/x-dimension', entry.ref)"
        ><IconGripVertical :size="12"
      /></span>
      <Menu as="div" class="relative shrink-0">
        <MenuButton
          class="grid h-6 w-5 place-items-center rounded text-quiet opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:bg-tray hover:text-ink"
          :aria-label="`More for ${entry.path.join('.')}`"
          ><IconDots :size="14"
        /></MenuButton>
        <ActionItems :items="items" side="right" />
      </Menu>
    </div>
    <div class="pr-2 pl-[18px]">
      <ExpressionField
        v-if="open"
        :reference="entry.ref"
        :label="`Expression of ${entry.path.join('.')}`"
        :commit="(typed) => commit(entry.ref, typed)"
        :make="(name) => make(entry.ref, name)"
        @done="open = false"
        @cancel="open = false"
      />
      <p v-else-if="entry.measured" class="flex items-center gap-1 truncate text-xs text-quiet" :title="measured">
        <IconRuler2 :size="12" class="shrink-0" /><span class="truncate">{{ measured }}</span>
      </p>
      <button
        v-else-if="expression !== shown"
        class="number block max-w-full truncate text-left text-xs text-link hover:underline"
        :title="expression"
        @click="open = openField.field === null"
      >
        {{ expression }}
      </button>
      <p v-if="!value.ok" class="text-xs text-bad">{{ value.message }}</p>
      <p v-if="unreadable" class="text-xs text-warn">{{ unreadable }} Last reading kept.</p>
      <DialSlider v-if="entry.dial" :entry="entry" />
      <p v-if="entry.note && !detailed" class="truncate text-xs text-quiet" :title="entry.note">{{ entry.note }}</p>
      <p v-if="hangs !== null" class="text-xs text-quiet">
        {{ hangs === 0 ? 'nothing hangs on it' : `${hangs} hang${hangs === 1 ? 's' : ''} on it` }}
      </p>
      <DimensionDetails v-if="detailed" :entry="entry" @close="detailed = false" />
    </div>
  </div>
</template>
