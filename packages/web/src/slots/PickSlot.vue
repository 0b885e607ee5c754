<script setup lang="ts">
/** A slot that is filled by picks on the stage. */
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';

const props = defineProps<SlotProps>();
const session = useSession();
const { awaitPicks, isWaiting } = useFilling();
const waiting = computed(() => isWaiting(props.stepId, props.piece.slot));

function click(): void {
  awaitPicks(props.stepId, props.piece.slot);
  session.editing = props.stepId;
}
</script>

<template>
  <button
    class="slot leading-5"
    :class="waiting ? 'bg-signal-soft !border-signal !text-signal' : ''"
    :aria-pressed="waiting"
    @click="click"
  >
    {{ piece.label }}
  </button>
</template>
