<script setup lang="ts">
/** Other steps: chosen by name, or by picking faces they made. */
import { kindOf } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';
import SlotMenu from './SlotMenu.vue';

const props = defineProps<SlotProps>();
const design = useDesign();
const { fill, awaitPicks, isWaiting } = useFilling();

const chosen = computed(() => (props.step[props.piece.slot] ?? []) as readonly string[]);
const put = (next: readonly string[]) => fill(props.part, props.stepId, props.piece.slot, next);
const items = computed(() => {
  const { stepOrder, steps } = design.design!.parts[props.part]!;
  const before = stepOrder.slice(0, stepOrder.indexOf(props.stepId));
  const able = before.filter((id) => {
    const { tools, worksOn, places } = kindOf(steps[id]!);
    return tools ?? worksOn ?? places;
  });
  return [
    { label: 'pick on the stage', run: () => awaitPicks(props.stepId, props.piece.slot) },
    ...able.flatMap((id) => {
      const has = chosen.value.includes(id);
      const rest = chosen.value.filter((c) => c !== id);
      if (has && rest.length === 0) return [];
      return [
        { label: `${has ? 'without' : 'also'} ${steps[id]!.name}`, run: () => put(has ? rest : [...chosen.value, id]) },
      ];
    }),
  ];
});
</script>

<template>
  <SlotMenu :label="piece.label" :items="items" :waiting="isWaiting(stepId, piece.slot)" />
</template>
