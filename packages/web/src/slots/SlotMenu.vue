<script setup lang="ts">
/** A slot whose label opens a menu. */
import { Menu, MenuButton } from '@headlessui/vue';
import ActionItems from '../fields/ActionItems.vue';

defineProps<{
  label: string;
  items: readonly { readonly label: string; run(): void }[];
  /** It waits for picks. */
  waiting?: boolean;
}>();
</script>

<template>
  <Menu as="span" class="relative inline-block">
    <MenuButton class="slot leading-5" :class="waiting ? 'bg-signal-soft !border-signal !text-signal' : ''">{{
      label
    }}</MenuButton>
    <ActionItems :items="items" side="left" />
  </Menu>
</template>
