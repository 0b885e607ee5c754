<script setup lang="ts">
/** A slot whose label opens a menu. */
import { Menu, MenuButton } from '@headlessui/vue';
import { useDesign } from '../design/design-store.ts';
import { useModes } from '../modes/mode-stack.ts';
import ActionItems from '../fields/ActionItems.vue';

defineProps<{
  label: string;
  items: readonly { readonly label: string; run(): void }[];
  /** It waits for picks. */
  waiting?: boolean;
}>();
const design = useDesign();
const modes = useModes();

/** In a step not kept yet Enter keeps it, on its slots too; Space opens them. */
function keepOnEnter(event: KeyboardEvent): void {
  const closed = (event.target as HTMLElement).getAttribute('aria-expanded') === 'false';
  if (design.attempt === null || !closed) return;
  event.preventDefault();
  event.stopPropagation();
  modes.confirm();
}
</script>

<template>
  <Menu as="span" class="relative inline-block" @keydown.enter.capture="keepOnEnter">
    <MenuButton class="slot leading-5" :class="waiting ? 'bg-signal-soft !border-signal !text-signal' : ''">{{
      label
    }}</MenuButton>
    <ActionItems :items="items" side="left" />
  </Menu>
</template>
