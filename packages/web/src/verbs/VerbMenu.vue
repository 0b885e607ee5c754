<script setup lang="ts">
/** Verbs of one family behind a word of the verb line. */
import { Menu, MenuButton } from '@headlessui/vue';
import { IconChevronDown } from '@tabler/icons-vue';
import ActionItems from '../fields/ActionItems.vue';
import type { Verb } from './verbs.ts';

defineProps<{ label: string; verbs: readonly Verb[] }>();
</script>

<template>
  <Menu as="div" class="relative shrink-0">
    <MenuButton class="flex items-center gap-1 rounded-md px-1.5 py-1 font-medium hover:bg-tray"
      >{{ label }}<IconChevronDown :size="13" class="text-quiet"
    /></MenuButton>
    <ActionItems :items="verbs" side="right" />
  </Menu>
</template>
