<script setup lang="ts">
/** Under the stage: the drawing one was given, and its numbers ticked off as the model uses them. */
import GivenNumbers from './GivenNumbers.vue';
import DrawingView from './DrawingView.vue';
import { useBrief } from './brief-store.ts';

const brief = useBrief();
</script>

<template>
  <section
    v-if="brief.shown"
    aria-label="Brief"
    role="region"
    class="grid h-72 min-h-0 grid-cols-[minmax(0,1fr)_minmax(0,1.35fr)] border-t border-hairline bg-panel"
  >
    <DrawingView />
    <GivenNumbers class="border-l border-hairline" />
  </section>
</template>
