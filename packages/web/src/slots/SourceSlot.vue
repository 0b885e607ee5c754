<script setup lang="ts">
/** What is borrowed: a part or one of its sketches; where it stands to this one is kept, or let go. */
import { asSketch, cutBorrowLoose, instanceName, type Source } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';
import SlotMenu from './SlotMenu.vue';

const props = defineProps<SlotProps>();
const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const { fill } = useFilling();

const stored = computed(() => props.step[props.piece.slot] as Source);
const put = (source: Source) => fill(props.part, props.stepId, props.piece.slot, source);

/** Places in assemblies where both parts stand. */
const places = computed(() =>
  Object.entries(design.design?.assemblies ?? {}).flatMap(([assembly, own]) => {
    const standing = (part: string) =>
      own.instanceOrder.filter((id) => {
        const of = own.instances[id]?.of;
        return of && 'part' in of && of.part === part;
      });
    const [mine] = standing(props.part);
    if (mine === undefined) return [];
    return standing(stored.value.part).map((other) => ({
      label: `as ${instanceName(design.design!, own, other)} stands in ${own.name}`,
      run: () => put({ ...stored.value, at: { assembly, own: [mine], other: [other] } }),
    }));
  }),
);

/** What it is now stays, whatever becomes of the other part. */
async function cutLoose(): Promise<void> {
  const of = design.id;
  const kept = await evaluation.on(design.design!).keep(props.part, props.stepId);
  if (typeof kept === 'string') session.notice = kept;
  else if (design.id === of) session.notice = design.edit(cutBorrowLoose(props.part, props.stepId, kept));
}

const items = computed(() => {
  const { parts = {}, partOrder = [] } = design.design ?? {};
  return [
    ...partOrder
      .filter((id) => id !== props.part)
      .flatMap((id) => [
        { label: parts[id]!.name, run: () => put({ part: id }) },
        ...parts[id]!.stepOrder.flatMap((step) =>
          asSketch(parts[id]!.steps[step])
            ? [{ label: `${parts[id]!.name}: ${parts[id]!.steps[step]!.name}`, run: () => put({ part: id, sketch: step }) }]
            : [],
        ),
      ]),
    ...places.value,
    ...(stored.value.at
      ? [{ label: 'as drawn in the same space', run: () => put({ part: stored.value.part, ...(stored.value.sketch ? { sketch: stored.value.sketch } : {}) }) }]
      : []),
    ...(design.attempt === null ? [{ label: 'Cut loose: keep it as it is now', run: () => void cutLoose() }] : []),
  ];
}); // prettier-ignore
</script>

<template>
  <SlotMenu :label="piece.label" :items="items" />
</template>
