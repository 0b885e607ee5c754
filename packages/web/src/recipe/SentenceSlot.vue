<script setup lang="ts">
/** A live slot in a sentence, edited in place by its kind. */
import { Menu, MenuButton } from '@headlessui/vue';
import { changeStep, type SentencePart, type Step } from '@helb/core';
import { computed, ref, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import ActionItems from '../fields/ActionItems.vue';
import ExpressionField from '../fields/ExpressionField.vue';
import { useOpenField } from '../fields/open-field.ts';
import { useDimensionEdit } from '../ledger/dimension-edit.ts';

type Slot = Exclude<SentencePart, { text: string }>;
const props = defineProps<{ part: string; stepId: string; step: Step; piece: Slot }>();
const emit = defineEmits<{ open: [] }>();

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const { commit, make } = useDimensionEdit();
const openField = useOpenField();

const open = ref(false);
const key = computed(() => `${props.stepId}.${props.piece.slot}`);
const picking = computed(
  () => session.pickingFor?.step === props.stepId && session.pickingFor.slot === props.piece.slot,
);

// A step just begun opens its first number.
watch(
  () => session.draftSince !== null && session.editing === props.stepId,
  (fresh) => {
    if (fresh && props.piece.slot === 'distance') open.value = true;
  },
  { immediate: true },
);

function click(): void {
  const { kind } = props.piece;
  if (kind === 'number') open.value = true;
  else if (kind === 'dimensions') emit('open');
  else if (kind === 'regions') {
    session.leaveSketch();
    session.editing = props.stepId;
    session.pickingFor = picking.value ? null : { step: props.stepId, slot: 'regions' };
  } else if (kind === 'plane') {
    session.leaveSketch();
    session.picks = [];
    session.pickingFor = picking.value ? null : { step: props.stepId, slot: 'plane' };
  }
}

function choose(value: string): void {
  session.notice = design.edit(
    changeStep(props.part, props.stepId, 'Change a step', (step) => {
      if (step.kind !== 'extrude') return;
      if (props.piece.slot === 'way') {
        step.way = value === 'reversed' ? 'one_way' : (value as typeof step.way);
        if (value === 'reversed') step.reversed = true;
        else delete step.reversed;
        if (step.way === 'both_ways') step.back_distance ??= step.distance;
      } else if (props.piece.slot === 'result') step.result = value as typeof step.result;
    }),
  );
}

/** Bodies there are before this step. */
const bodies = computed(() => {
  const part = design.design!.parts[props.part]!;
  const before = part.stepOrder.slice(0, part.stepOrder.indexOf(props.stepId));
  const makers = before.filter((id) => {
    const step = part.steps[id]!;
    return step.kind === 'extrude' && step.result === 'new_body';
  });
  const shown = evaluation.parts.get(props.part)?.bodies ?? [];
  const extra = shown.map((b) => b.id).filter((id) => id.includes('/') && before.includes(id.replace(/\/.*$/, '')));
  return [...makers, ...extra].map((id) => ({
    id,
    name: part.steps[id.replace(/\/.*$/, '')]!.name + id.replace(/^[^/]*\/?/, ' ').trimEnd(),
  }));
});

function chooseBodies(id: 'all' | string): void {
  session.notice = design.edit(
    changeStep(props.part, props.stepId, 'Choose bodies', (step) => {
      if (step.kind !== 'extrude') return;
      if (id === 'all') {
        step.bodies = 'all';
        return;
      }
      const chosen = step.bodies === undefined || step.bodies === 'all' ? [] : [...step.bodies];
      const next = chosen.includes(id) ? chosen.filter((b) => b !== id) : [...chosen, id];
      step.bodies = next.length > 0 ? next : 'all';
    }),
  );
}

const options = computed(() => {
  if (props.piece.kind === 'choice') return props.piece.choices!.map((c) => ({ ...c, run: () => choose(c.value) }));
  return [
    { value: 'all', label: 'all bodies', run: () => chooseBodies('all') },
    ...bodies.value.map((b) => ({ value: b.id, label: b.name, run: () => chooseBodies(b.id) })),
  ];
});
</script>

<template>
  <ExpressionField
    v-if="piece.kind === 'number' && open"
    compact
    :reference="key"
    :label="`${step.name}: ${piece.slot}`"
    :commit="(typed) => commit(key, typed)"
    :make="(name) => make(key, name)"
    @done="open = false"
    @cancel="open = false"
  />
  <Menu v-else-if="piece.kind === 'choice' || piece.kind === 'bodies'" as="span" class="relative inline-block">
    <MenuButton class="slot leading-5">{{ piece.label }}</MenuButton>
    <ActionItems :items="options" side="left" />
  </Menu>
  <button
    v-else
    class="slot leading-5"
    :class="[piece.kind === 'number' ? 'number' : '', picking ? 'bg-signal-soft !border-signal !text-signal' : '']"
    :aria-label="piece.kind === 'number' ? `${step.name}, ${piece.slot}: ${piece.label}` : undefined"
    @mousedown="piece.kind === 'number' && openField.takePointed($event, key)"
    @click="openField.field || click()"
    @pointerenter="piece.kind === 'number' && (session.hoveredDimension = key)"
    @pointerleave="session.hoveredDimension = null"
  >
    {{ piece.label }}<span v-if="piece.value" class="font-normal text-quiet"> = {{ piece.value }}</span>
  </button>
</template>
