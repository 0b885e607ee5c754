<script setup lang="ts">
/** One step: its name, how it stands, and its sentence with live slots. */
import {
  asSketch,
  expressionOf,
  readingOf,
  renameStep,
  sentenceOf,
  setDimension,
  setSlot,
  type Step,
} from '@helb/core';
import { computed, nextTick, onMounted, useTemplateRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useLive } from '../people/live.ts';
import PersonMark from '../people/PersonMark.vue';
import type { StepView } from '@helb/core';
import NameField from '../fields/NameField.vue';
import FreedomPanel from '../sketch/FreedomPanel.vue';
import { editorOf } from '../slots/editors.ts';
import DoubtList from './DoubtList.vue';
import StepMenu from './StepMenu.vue';

const props = defineProps<{
  part: string;
  stepId: string;
  step: Step;
  index: number;
  last: boolean;
  view: StepView | undefined;
  later: boolean;
}>();
const design = useDesign();
const session = useSession();

const active = computed(() => session.editing === props.stepId || session.sketching === props.stepId);
const sentence = computed(() =>
  sentenceOf(props.step, readingOf(design.design!, props.part, props.stepId, design.ledger!)),
);

const state = computed<{ text: string; tone: string } | null>(() => {
  if (props.step.suppressed) return { text: 'suppressed', tone: 'text-quiet' };
  if (session.editing === props.stepId)
    return {
      text: design.attempt === null ? 'editing · Esc closes' : 'new · Enter keeps, Esc drops',
      tone: 'text-quiet',
    };
  const sketch = props.view?.sketch;
  if (!asSketch(props.step) || !sketch)
    return props.view?.status === 'failed' ? { text: 'failed', tone: 'text-bad' } : null;
  if (!sketch.solved) return { text: 'clashing', tone: 'text-bad' };
  const { points, curves } = sketch.geometry;
  if (Object.keys(points).length + Object.keys(curves).length === 0) return { text: 'empty', tone: 'text-quiet' };
  if (sketch.freedoms === 0) return { text: 'settled', tone: 'text-good' };
  return { text: `${sketch.freedoms} freedom${sketch.freedoms === 1 ? '' : 's'} left`, tone: 'text-warn' };
});
/** Found by trying: what the step could be made with. */
const cure = computed(() => {
  const found = props.view?.cure;
  if (!found || !design.design) return null;
  if ('slot' in found)
    return {
      says: found.says,
      take: () => void (session.notice = design.edit(setSlot(props.part, props.stepId, found.slot, found.stored))),
    };
  const expression = expressionOf(found.value, found.kind, design.design.units);
  return {
    says: `Make it ${expression}`,
    take: () => void (session.notice = design.edit(setDimension(`${props.stepId}.${found.number}`, expression))),
  };
});
const live = useLive();
const atWork = computed(() => live.people.filter((p) => p.step === props.stepId));
const failed = computed(() => props.view?.status === 'failed' && !props.step.suppressed);

const card = useTemplateRef<HTMLElement>('card');
const show = () => active.value && card.value?.scrollIntoView({ block: 'nearest' });
watch(active, show, { flush: 'post' });
onMounted(() => void nextTick(show));
// Its sentence grows with another choice in it; at other times a menu that is open must not be moved.
watch(() => sentence.value.length, show, { flush: 'post' }); // prettier-ignore

function open(): void {
  if (asSketch(props.step)) session.openSketch(props.stepId);
  else if (!active.value) {
    session.leaveSketch();
    session.editing = props.stepId;
  }
}
</script>

<template>
  <li
    ref="card"
    class="group rounded-lg border px-3 py-2"
    :class="[
      active
        ? 'border-signal shadow-[0_0_0_2px_var(--color-region-hover)]'
        : failed
          ? 'border-bad/50'
          : 'border-hairline',
      later || step.suppressed ? 'border-dashed bg-paper text-quiet' : 'bg-card',
    ]"
    :aria-current="active ? 'step' : undefined"
    :data-step="step.name"
  >
    <div class="flex items-baseline justify-between gap-2 text-xs">
      <NameField
        :name="step.name"
        label="Name of the step"
        :rename="(name) => design.edit(renameStep(part, stepId, name))"
      />
      <span class="flex shrink-0 items-center gap-1">
        <PersonMark v-for="person in atWork" :key="person.tab" :person="person" where="at work here" />
        <span v-if="state" :class="state.tone">{{ state.text }}</span>
        <StepMenu :part="part" :step-id="stepId" :step="step" :index="index" :last="last" @open="open" />
      </span>
    </div>
    <p class="mt-0.5 leading-6">
      <template v-for="(piece, i) in sentence" :key="i">
        <span v-if="'text' in piece" :class="i === 0 ? 'font-semibold' : ''">{{ piece.text }}</span>
        <component :is="editorOf(piece.kind)" v-else :part="part" :step-id="stepId" :step="step" :piece="piece" />
        {{ ' ' }}
      </template>
    </p>
    <DoubtList
      v-if="view && view.doubts.length > 0 && !step.suppressed"
      :part="part"
      :step-id="stepId"
      :doubts="view.doubts"
    />
    <FreedomPanel v-if="session.sketching === stepId" />
    <p v-if="view?.tells && !step.suppressed" class="text-quiet">{{ view.tells }}</p>
    <p
      v-if="view?.message && !step.suppressed"
      class="mt-1 border-t border-dashed border-hairline pt-1"
      :class="failed ? 'text-bad' : 'text-warn'"
      :role="failed ? 'alert' : undefined"
    >
      {{ view.message }}
      <button v-if="cure" class="ml-1 font-medium text-link underline" @click="cure.take">
        {{ cure.says }}
      </button>
    </p>
  </li>
</template>
