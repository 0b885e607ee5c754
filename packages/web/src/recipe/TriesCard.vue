<script setup lang="ts">
/** Things to try in a design one has not seen before, until they are put away. */
import { useStorage } from '@vueuse/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';

const design = useDesign();
/** Designs whose list was put away; kept in this browser. */
const away = useStorage<string[]>('helb.tries-away', []);
const tries = computed(() => (away.value.includes(design.id ?? '') ? [] : (design.kept?.tries ?? [])));
</script>

<template>
  <section
    v-if="tries.length > 0"
    aria-label="To try"
    class="mx-3 mb-2 rounded-lg border border-hairline bg-paper px-3 py-2 text-[13px]"
  >
    <header class="flex items-baseline justify-between">
      <h3 class="font-semibold">To try</h3>
      <button class="text-xs font-medium text-link underline" @click="away = [...away, design.id!]">Put away</button>
    </header>
    <ol class="mt-1 flex list-decimal flex-col gap-1 pl-4 text-quiet">
      <li v-for="text in tries" :key="text">{{ text }}</li>
    </ol>
  </section>
</template>
