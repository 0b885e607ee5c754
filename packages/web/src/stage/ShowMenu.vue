<script setup lang="ts">
/** How bodies are drawn, and what is hidden; only for looking. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import { IconCheck, IconEye } from '@tabler/icons-vue';
import { useSession } from '../design/session.ts';
import { DRAWINGS, type Drawing } from './body-objects.ts';

const session = useSession();
const names = Object.keys(DRAWINGS) as Drawing[];
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
    <MenuItems
      class="absolute right-0 bottom-full z-40 mb-1 min-w-52 rounded-md border border-hairline bg-panel p-1 shadow-md focus:outline-none"
    >
      <MenuItem v-for="name in names" :key="name" v-slot="{ active }">
        <button
          class="flex w-full items-center gap-2 rounded px-2 py-1 text-left text-[13px] whitespace-nowrap"
          :class="active ? 'bg-signal-soft text-signal' : ''"
          @click="session.drawing = name"
        >
          <IconCheck :size="14" :class="session.drawing === name ? '' : 'invisible'" />{{ DRAWINGS[name] }}
        </button>
      </MenuItem>
      <MenuItem v-if="session.hidden.size > 0" v-slot="{ active }">
        <button
          class="flex w-full items-center gap-2 rounded border-t border-hairline px-2 py-1 text-left text-[13px] whitespace-nowrap"
          :class="active ? 'bg-signal-soft text-signal' : ''"
          @click="session.hidden = new Set()"
        >
          <IconCheck :size="14" class="invisible" />Show all bodies
        </button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
