<script setup lang="ts">
/** Whether parts push each other while they are moved, and what of that is left out. */
import { computed } from 'vue';
import { useTogether } from './together-store.ts';

const together = useTogether();
const choice = computed({
  get: () => (typeof together.contacts === 'string' ? together.contacts : 'picked'),
  set(now) {
    together.contacts = now === 'picked' ? { among: together.chosen } : now;
  },
});
const among = computed(() => (typeof together.contacts === 'string' ? together.chosen.size : together.contacts.among.size)); // prettier-ignore
/** What is not watched is said. */
const leftOut = computed(() => {
  const own = together.touching;
  if (!own) return null;
  const [first] = own.met;
  const met = first ? `${first[0]} and ${first[1]}${own.met.length > 1 ? ` and ${own.met.length - 1} pairs more` : ''} meet at home already: give them a clearance to have them push.` : ''; // prettier-ignore
  return together.contacts === 'all' ? `What a joint holds together passes through each other. ${met}` : met;
});
</script>

<template>
  <div class="flex flex-wrap items-center gap-x-2 gap-y-1 text-xs">
    <select
      v-model="choice"
      class="max-w-full rounded border border-hairline bg-field px-1 py-0.5"
      aria-label="What parts do where they touch"
    >
      <option value="none">parts pass through each other</option>
      <option value="all">parts push each other</option>
      <option v-if="among > 1" value="picked">the {{ among }} picked parts push each other</option>
    </select>
    <label class="flex items-center gap-1">
      <input v-model="together.sprung" type="checkbox" class="accent-[var(--color-petrol)]" /> the rest springs home
    </label>
    <p v-if="leftOut" class="w-full text-quiet">{{ leftOut }}</p>
  </div>
</template>
