<script setup lang="ts">
/** Somebody else at work here. */
import type { Person } from './live.ts';
import { calledBy, letterOf } from './who.ts';

defineProps<{ person: Person; where?: string }>();
</script>

<template>
  <span
    role="img"
    class="grid h-5 w-5 shrink-0 place-items-center rounded-full border text-[11px] font-semibold"
    :class="person.mine ? 'border-dashed border-link text-link' : 'border-link bg-link text-paper'"
    :aria-label="`${calledBy(person)}${where ? `, ${where}` : ''}`"
    :title="`${calledBy(person)}${where ? `, ${where}` : ''}`"
    >{{ letterOf(person) }}</span
  >
</template>
