<script setup lang="ts">
/** What a menu offers, one action a line. Stands inside a Menu, beside its button. */
import { MenuItem, MenuItems } from '@headlessui/vue';

defineProps<{
  items: readonly { readonly label: string; readonly key?: string; run(): unknown }[];
  /** The edge of the button it hangs from. */
  side: 'left' | 'right';
}>();
</script>

<template>
  <MenuItems
    class="absolute z-40 mt-1 max-h-72 min-w-40 overflow-y-auto rounded-md border border-hairline bg-panel p-1 shadow-md focus:outline-none"
    :class="side === 'left' ? 'left-0' : 'right-0'"
  >
    <MenuItem v-for="item in items" :key="item.label" v-slot="{ active }">
      <button
        class="flex w-full justify-between gap-4 rounded px-2 py-1 text-left text-[13px] whitespace-nowrap"
        :class="active ? 'bg-signal-soft text-signal' : ''"
        @click="item.run()"
      >
        {{ item.label }}<kbd v-if="item.key" class="number text-quiet">{{ item.key }}</kbd>
      </button>
    </MenuItem>
  </MenuItems>
</template>
