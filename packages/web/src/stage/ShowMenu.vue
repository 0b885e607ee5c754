<script setup lang="ts">
/** How bodies are drawn, and what is hidden; only for looking. */
import { Menu, MenuButton } from '@headlessui/vue';
import { IconEye } from '@tabler/icons-vue';
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import ActionItems from '../fields/ActionItems.vue';
import { DRAWINGS, type Drawing } from './body-objects.ts';

const session = useSession();
const items = computed(() => [
  ...(Object.keys(DRAWINGS) as Drawing[]).map((name) => ({
    label: DRAWINGS[name],
    checked: session.drawing === name,
    run: () => (session.drawing = name),
  })),
  ...(session.hidden.size > 0
    ? [{ label: 'Show all bodies', checked: false, run: () => (session.hidden = new Set()) }]
    : []),
]);
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton
      class="flex h-6 items-center gap-1 rounded border border-hairline bg-panel px-1.5 text-xs text-quiet hover:text-ink"
      aria-label="How bodies are shown"
      ><IconEye :size="14" /><span v-if="session.hidden.size > 0" class="text-warn"
        >{{ session.hidden.size }} hidden</span
      ></MenuButton
    >
    <ActionItems :items="items" side="right" above />
  </Menu>
</template>
