<script setup lang="ts">
/** The smallest set that disagrees, and the ways out, one click each. Numbers first: they are what gives way most often. */
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import { useClashOffer } from './clash-offer.ts';

const clash = useClashOffer();
const session = useSession();
const rows = computed(() => [...clash.rows].sort((a, b) => Number(b.dimension) - Number(a.dimension)));
</script>

<template>
  <div class="border-b border-bad/30 bg-panel/95 px-3 py-1.5" role="group" aria-label="What disagrees">
    <p class="text-quiet">These cannot all hold. The edit was not made; it can be had if one of them gives way:</p>
    <ul class="max-h-28 overflow-y-auto">
      <li
        v-for="row in rows"
        :key="row.constraint"
        class="flex items-baseline gap-2 py-0.5"
        @mouseenter="session.entities = [...row.of]"
      >
        <span class="font-medium text-bad" :class="row.dimension ? 'number' : 'first-letter:uppercase'">{{
          row.text
        }}</span>
        <span v-if="row.without" class="text-quiet"
          >would read <span class="number">{{ row.without }}</span> if the others hold</span
        >
        <span class="flex-1" />
        <button v-if="row.dimension" class="shrink-0 text-link underline" @click="clash.take(row, 'measure')">
          Only measure it
        </button>
        <button class="shrink-0 text-link underline" @click="clash.take(row, 'remove')">Remove it</button>
      </li>
    </ul>
  </div>
</template>
