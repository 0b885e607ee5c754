<script setup lang="ts">
/** What is drawn: opened on the stage. */
import { useSession } from '../design/session.ts';
import type { SlotProps } from './slot-props.ts';

defineProps<SlotProps>();
const session = useSession();
</script>

<template>
  <button class="slot leading-5" @click="session.openSketch(stepId)">{{ piece.label }}</button>
</template>
