<script setup lang="ts">
/** One dimension: name, value, expression; a dial has a slider over its allowed range. */
import { expressionOf, kindOfPowers, moveDimensions, type DimensionEntry } from '@helb/core';
import { IconGripVertical, IconRuler2, IconStarFilled } from '@tabler/icons-vue';
import { computed, nextTick, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useHanging } from './hanging.ts';
import ExpressionField from '../fields/ExpressionField.vue';
import NameField from '../fields/NameField.vue';
import { useOpenField } from '../fields/open-field.ts';
import { useStars } from '../trial/watched.ts';
import { useTrial } from '../trial/trial-store.ts';
import DialSlider from './DialSlider.vue';
import DimensionDetails from './DimensionDetails.vue';
import { useDimensionEdit } from './dimension-edit.ts';
import { measuredWords } from './measured-words.ts';
import RowMenu from './RowMenu.vue';

const props = defineProps<{ entry: DimensionEntry; picked: boolean; picking: boolean; hangs: number | null }>();
const emit = defineEmits<{ pick: [extend: boolean] }>();
const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const openField = useOpenField();
const trial = useTrial();
const { stars } = useStars();
const { rename } = useDimensionEdit();

const open = ref(false);
const detailed = ref(false);
const ledger = computed(() => design.ledger!);
const value = computed(() => ledger.value.valueOfEntry(props.entry));
const shown = computed(() => ledger.value.format(value.value));
const expression = computed(() => ledger.value.shown(props.entry));
/** What the expression tells beyond the value: nothing, where it is only the number itself. */
const linked = computed(() => {
  if (expression.value === shown.value) return false;
  const kind = value.value.ok ? kindOfPowers(value.value.quantity.powers) : null;
  return !(
    kind &&
    value.value.ok &&
    expression.value === expressionOf(value.value.quantity.value, kind, design.design!.units)
  );
});
const label = computed(() => ('step' in props.entry.owner ? `${props.entry.path.at(-2)}.` : ''));
const lit = computed(() => session.hoveredDimension === props.entry.ref);
const tried = computed(() => trial.values.has(props.entry.ref));
/** It has a place of its own, rather than one in a sketch or step. */
const isNamed = computed(() => !('step' in props.entry.owner));
const measured = computed(() => measuredWords(design.design!, props.entry));
const unreadable = computed(() => evaluation.unreadable.get(props.entry.ref));
const hangingOf = useHanging();
const notSure = computed(() => hangingOf(props.entry.ref));

async function pick(event: MouseEvent): Promise<void> {
  const box = event.target as HTMLInputElement;
  emit('pick', event.shiftKey);
  await nextTick();
  // The browser ticks the box by itself, also where the row was picked already and stays so.
  box.checked = props.picked;
}

function blur(event: FocusEvent): void {
  const row = event.currentTarget as HTMLElement;
  if (!row.contains(event.relatedTarget as Node | null) && !row.matches(':hover')) near.value = false;
}

const dragging = ref(false);
/** Something dragged would land before this row. */
const under = ref(false);
function startDrag(event: DragEvent): void {
  dragging.value = true;
  event.dataTransfer?.setData('text/x-dimension', props.entry.ref);
}
function dragOver(event: DragEvent): void {
  under.value = !dragging.value && (event.dataTransfer?.types.includes('text/x-dimension') ?? false);
}
function endDrag(): void {
  dragging.value = false;
  near.value = false;
}
function drop(event: DragEvent): void {
  under.value = false;
  const dragged = event.dataTransfer?.getData('text/x-dimension');
  if (dragged && dragged !== props.entry.ref) session.notice = design.edit(moveDimensions([dragged], props.entry.ref));
}

/** What only a pointer or the focus needs is made when it comes. */
const near = ref(false);
function leave(event: PointerEvent): void {
  session.hoveredDimension = null;
  const row = event.currentTarget as HTMLElement;
  // The grip stays while it is dragged: taken away, it would end the drag.
  near.value = dragging.value || row.contains(document.activeElement);
}
</script>

<template>
  <div
    class="group relative border-l-2 py-0.5 pr-1 pl-1"
    :class="[
      lit
        ? 'border-signal bg-signal-soft'
        : tried || session.traced === entry.ref
          ? 'border-signal bg-card'
          : 'border-transparent hover:bg-tray/40',
      under ? 'shadow-[inset_0_2px_0_var(--color-signal)]' : '',
    ]"
    :data-ledger="entry.path.join('.')"
    @pointerenter="
      near = true;
      session.hoveredDimension = entry.ref;
    "
    @pointerleave="leave"
    @focusin="near = true"
    @focusout="blur"
    @dragover.prevent="dragOver"
    @dragleave="under = false"
    @drop.prevent="drop"
  >
    <div class="flex h-6 items-center gap-1">
      <input
        v-if="near || picking"
        type="checkbox"
        class="h-3.5 w-3.5 shrink-0 accent-petrol"
        :checked="picked"
        :aria-label="`Pick ${entry.path.join('.')}`"
        @click="pick"
      />
      <span v-else class="w-3.5 shrink-0" />
      <span class="flex min-w-0 flex-1 items-baseline" @mousedown="openField.takePointed($event, entry.ref)">
        <span v-if="label" class="max-w-[55%] shrink-0 truncate text-quiet">{{ label }}</span>
        <NameField
          :name="entry.name"
          label="Name of the dimension"
          :asked="session.dimensionToName === entry.ref"
          :rename="(name) => rename(entry.ref, name)"
          @begun="session.dimensionToName = null"
        />
        <IconStarFilled v-if="stars.has(entry.ref)" :size="10" class="ml-1 shrink-0 self-center text-quiet" />
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
        v-if="isNamed && near"
        class="grid h-6 w-3 shrink-0 cursor-grab place-items-center text-quiet"
        draggable="true"
        title="Drag to another place"
        @dragstart="startDrag"
        @dragend="endDrag"
        ><IconGripVertical :size="12"
      /></span>
      <RowMenu v-if="near" :entry="entry" @details="detailed = true" />
      <span v-else class="w-5 shrink-0" />
    </div>
    <div class="pr-2 pl-[18px]">
      <ExpressionField
        v-if="open"
        :reference="entry.ref"
        :label="`Expression of ${entry.path.join('.')}`"
        @close="open = false"
      />
      <p
        v-else-if="entry.measured"
        class="flex items-center gap-1 truncate text-xs leading-4 text-quiet"
        :title="measured"
      >
        <IconRuler2 :size="12" class="shrink-0" /><span class="truncate">{{ measured }}</span>
      </p>
      <button
        v-else-if="linked"
        class="number block max-w-full truncate text-left text-xs leading-4 text-link hover:underline"
        :title="expression"
        @click="open = openField.field === null"
      >
        {{ expression }}
      </button>
      <p v-if="!value.ok" class="text-xs text-bad">{{ value.message }}</p>
      <p v-if="unreadable" class="text-xs text-warn">{{ unreadable }} Last reading kept.</p>
      <p v-else-if="notSure" class="text-xs text-warn">{{ notSure }}</p>
      <DialSlider v-if="entry.dial" :entry="entry" />
      <p v-if="entry.note && !detailed" class="truncate text-xs leading-4 text-quiet" :title="entry.note">
        {{ entry.note }}
      </p>
      <p v-if="hangs !== null" class="text-xs leading-4 text-quiet">
        {{ hangs === 0 ? 'nothing hangs on it' : `${hangs} hang${hangs === 1 ? 's' : ''} on it` }}
      </p>
      <DimensionDetails v-if="detailed" :entry="entry" @close="detailed = false" />
    </div>
  </div>
</template>
