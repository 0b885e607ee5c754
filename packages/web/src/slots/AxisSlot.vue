<script setup lang="ts">
/** A line to turn about: one of the part's or the sketch's axes, or picked on the stage. */
import { stepsUsedBy, asSketch } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';
import { useDatumSteps } from './datum-steps.ts';
import SlotMenu from './SlotMenu.vue';

const props = defineProps<SlotProps>();
const design = useDesign();
const { fill, awaitPicks, isWaiting } = useFilling();

const datumSteps = useDatumSteps(props);

const items = computed(() => {
  const steps = design.design?.parts[props.part]?.steps ?? {};
  const choose = (value: unknown) => () => fill(props.part, props.stepId, props.piece.slot, value);
  const sketches = stepsUsedBy(props.step).filter((id) => asSketch(steps[id]));
  return [
    { label: 'pick on the stage', run: () => awaitPicks(props.stepId, props.piece.slot) },
    ...sketches.flatMap((sketch) =>
      (['x_axis', 'y_axis'] as const).map((line) => ({
        label: `${line === 'x_axis' ? 'x' : 'y'} axis of ${steps[sketch]!.name}`,
        run: choose({ sketch, line }),
      })),
    ),
    ...datumSteps('axis').map(({ id, name }) => ({ label: name, run: choose({ step: id }) })),
    ...(['x', 'y', 'z'] as const).map((datum) => ({ label: `${datum} axis of the part`, run: choose({ datum }) })),
  ];
});
</script>

<template>
  <SlotMenu :label="piece.label" :items="items" :waiting="isWaiting(stepId, piece.slot)" />
</template>
