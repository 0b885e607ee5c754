<script setup lang="ts">
/** Bodies a step acts on, named; what is visible makes no difference. */
import { namedBody, refOfBody, type BodyRef } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';
import SlotMenu from './SlotMenu.vue';

const props = defineProps<SlotProps>();
const design = useDesign();
const evaluation = useEvaluation();
const { fill, awaitPicks, isWaiting } = useFilling();

const steps = computed(() => design.design?.parts[props.part]?.steps ?? {});
const shown = computed(() => {
  const view = evaluation.parts.get(props.part);
  return view ? [...view.bodies, ...view.borrowed] : [];
});
/** Bodies of the part, as references; those that come only after this step are left out. */
const bodies = computed(() => {
  const part = design.design!.parts[props.part]!;
  const before = new Set(part.stepOrder.slice(0, part.stepOrder.indexOf(props.stepId)));
  const all = shown.value.map(namedBody).filter((b) => before.has(b.name.step));
  return all.map((body) => ({ ref: refOfBody(body, all), step: body.name.step }));
});
const chosen = computed<readonly BodyRef[]>(() => {
  const stored = props.step[props.piece.slot];
  return Array.isArray(stored) ? (stored as BodyRef[]) : [];
}); // prettier-ignore

const same = (a: BodyRef, b: BodyRef) => a.name === b.name && (a.has ?? []).join() === (b.has ?? []).join();

function toggle(ref: BodyRef): void {
  const rest = chosen.value.filter((r) => !same(r, ref));
  const next = rest.length < chosen.value.length ? rest : [...rest, ref];
  fill(props.part, props.stepId, props.piece.slot, next.length > 0 ? next : 'all');
}

const items = computed(() => [
  { label: 'pick on the stage', run: () => awaitPicks(props.stepId, props.piece.slot) },
  { label: 'all bodies', run: () => fill(props.part, props.stepId, props.piece.slot, 'all') },
  ...bodies.value.map(({ ref, step }, i) => {
    const twins = bodies.value.filter((b) => b.step === step);
    const number = twins.length > 1 ? ` ${twins.indexOf(bodies.value[i]!) + 1}` : '';
    return { label: `${steps.value[step]?.name ?? step}${number}`, run: () => toggle(ref) };
  }),
]);
</script>

<template>
  <SlotMenu :label="piece.label" :items="items" :waiting="isWaiting(stepId, piece.slot)" />
</template>
