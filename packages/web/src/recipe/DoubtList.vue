<script setup lang="ts">
/** References that were not found for sure: each can be kept as it was found, or picked again. */
import { acceptLoan, kindOf, setSlot, type Doubt } from '@helb/core';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { pickerOf } from '../slots/pickers.ts';
import { useFilling } from '../slots/filling.ts';

const props = defineProps<{ part: string; stepId: string; doubts: readonly Doubt[] }>();
const design = useDesign();
const session = useSession();
const { awaitPicks } = useFilling();

const slotKind = (slot: string) => kindOf(design.design!.parts[props.part]!.steps[props.stepId]!).slots[slot]!.of.kind;

function keep({ slot, proposed }: Doubt): void {
  const loan = proposed as { loan: string; source: unknown };
  session.notice = design.edit(
    slotKind(slot) === 'drawing'
      ? acceptLoan(props.part, props.stepId, loan.loan, loan.source)
      : setSlot(props.part, props.stepId, slot, proposed),
  );
}
</script>

<template>
  <ul class="mt-1 border-t border-dashed border-hairline pt-1 text-warn" aria-label="What was not found for sure">
    <li v-for="(doubt, i) in doubts" :key="i">
      <template v-if="doubt.how === 'probably'">{{ doubt.says }}</template>
      <button v-if="doubt.proposed !== undefined" class="ml-1 font-medium text-link underline" @click="keep(doubt)">
        {{ doubt.how === 'probably' ? 'Keep it' : 'Take the nearest' }}
      </button>
      <button
        v-if="pickerOf(slotKind(doubt.slot))"
        class="ml-2 font-medium text-link underline"
        @click="awaitPicks(stepId, doubt.slot)"
      >
        Pick again
      </button>
    </li>
  </ul>
</template>
