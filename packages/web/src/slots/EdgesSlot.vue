<script setup lang="ts">
/** Edges: picked on the stage, or chosen by a rule that finds them anew. */
import { findEdge, namedBody, refOfFace, type EdgeChoice, type EdgeRef } from '@helb/core';
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

const part = computed(() => design.design!.parts[props.part]!);
const chosen = computed(() => (props.step[props.piece.slot] ?? []) as readonly EdgeChoice[]);
const put = (next: readonly EdgeChoice[]) => fill(props.part, props.stepId, props.piece.slot, next);

/** The bodies as they are before this step, where they are shown; else the last ones. */
const bodies = computed(() => {
  const view = evaluation.parts.get(props.part);
  const before = view?.around?.step === props.stepId ? view.around.before : (view?.bodies ?? []);
  return before.map(namedBody);
});

const byStep = computed(() => {
  const order = part.value.stepOrder;
  const makers = new Set(bodies.value.flatMap((b) => b.faceNames.flat().map((n) => n.step)));
  return order
    .slice(0, order.indexOf(props.stepId))
    .filter((id) => makers.has(id))
    .map((id) => {
      const rest = chosen.value.filter((c) => !('made_by' in c && c.made_by === id));
      const has = rest.length < chosen.value.length;
      return {
        label: `${has ? 'without' : 'also'} all edges made by ${part.value.steps[id]!.name}`,
        run: () => put(has ? (rest.length > 0 ? rest : chosen.value) : [...chosen.value, { made_by: id }]),
      };
    });
});

/** An edge picked alone can stand for the whole loop of either face beside it. */
const loops = computed(() => {
  const index = chosen.value.findLastIndex((c) => 'faces' in c);
  const edge = chosen.value[index] as EdgeRef | undefined;
  const finding = edge && findEdge(edge, bodies.value);
  if (!edge || !finding || finding.how === 'lost') return [];
  const { body, edge: at } = finding.found;
  return [...new Set(body.facts.edges[at]!.faces)].map((face) => ({
    label: `the last edge’s whole loop, on the ${body.facts.faces[face]!.kind === 'plane' ? 'flat' : 'round'} face ${faceWord(body.faceNames[face]![0]!.step)}`,
    run: () => put(chosen.value.with(index, { loop: edge, of: refOfFace(body, face, bodies.value) })),
  }));
});
const faceWord = (step: string) => `of ${part.value.steps[step]?.name ?? 'a step'}`;

const singles = computed(() =>
  chosen.value.length < 2
    ? []
    : chosen.value.flatMap((c, i) =>
        'around' in c || 'loop' in c ? [{ label: `without ${'around' in c ? 'the edges of a face' : 'a loop'}`, run: () => put(chosen.value.toSpliced(i, 1)) }] : [],
      ),
); // prettier-ignore

const items = computed(() => [
  { label: 'pick on the stage', run: () => awaitPicks(props.stepId, props.piece.slot) },
  ...byStep.value,
  ...loops.value,
  ...singles.value,
]);
</script>

<template>
  <SlotMenu :label="piece.label" :items="items" :waiting="isWaiting(stepId, piece.slot)" />
</template>
