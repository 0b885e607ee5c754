<script setup lang="ts">
/** Who else has this design open, and where they are at work. */
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useLive, type Person } from './live.ts';
import PersonMark from './PersonMark.vue';

const live = useLive();
const design = useDesign();
const session = useSession();

function placeOf({ part, step }: Person): string {
  const home = part ? design.design?.parts[part] : undefined;
  if (!home) return 'looking on';
  const at = step ? home.steps[step] : undefined;
  return at ? `at ${at.name} of ${home.name}` : `at ${home.name}`;
}

function goTo({ part }: Person): void {
  if (part && design.design?.parts[part]) session.openPart(part);
}
</script>

<template>
  <ul v-if="live.people.length > 0" aria-label="Also here" class="flex items-center gap-1">
    <li v-for="person in live.people.slice(0, 6)" :key="person.tab">
      <button class="grid h-6 w-6 place-items-center" @click="goTo(person)">
        <PersonMark :person="person" :where="placeOf(person)" />
      </button>
    </li>
    <li v-if="live.people.length > 6" class="text-xs text-quiet">+{{ live.people.length - 6 }}</li>
  </ul>
</template>
