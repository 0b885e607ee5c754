<script setup lang="ts">
/** What a menu offers, one action a line. Stands inside a Menu, beside its button. */
import { MenuItem, MenuItems } from '@headlessui/vue';
import { IconCheck } from '@tabler/icons-vue';
import { ref, type ComponentPublicInstance } from 'vue';

interface Action {
  readonly label: string;
  readonly key?: string;
  /** Given where one of several holds: whether this is the one. */
  readonly checked?: boolean;
  run(): unknown;
}
defineProps<{
  items: readonly Action[];
  /** The edge of the button it hangs from. */
  side: 'left' | 'right';
  /** Over its button rather than under it; else only where there is no room below. */
  above?: boolean;
}>();

const noRoomBelow = ref(false);
let measured: unknown = null;

/** The menu has opened, or is gone; told again whenever it is drawn anew. */
function opened(mark: Element | ComponentPublicInstance | null): void {
  if (mark === measured) return;
  measured = mark;
  noRoomBelow.value = false;
  const menu = (mark as Element | null)?.parentElement;
  const button = menu?.parentElement?.getBoundingClientRect();
  if (!menu || !button) return;
  const { height, bottom } = menu.getBoundingClientRect();
  const frame = scrollerOf(menu)?.getBoundingClientRect() ?? { top: 0, bottom: window.innerHeight };
  noRoomBelow.value = bottom > frame.bottom && button.top - frame.top > height;
}

function scrollerOf(element: Element): Element | null {
  for (let e = element.parentElement; e; e = e.parentElement)
    if (/auto|scroll/.test(getComputedStyle(e).overflowY)) return e;
  return null;
}
</script>

<template>
  <MenuItems
    class="absolute z-40 max-h-72 min-w-40 overflow-y-auto rounded-md border border-hairline bg-panel p-1 shadow-md focus:outline-none"
    :class="[side === 'left' ? 'left-0' : 'right-0', above || noRoomBelow ? 'bottom-full mb-1' : 'mt-1']"
  >
    <span :ref="opened" class="hidden" />
    <MenuItem v-for="item in items" :key="item.label" v-slot="{ active }">
      <button
        class="flex w-full items-center gap-2 rounded px-2 py-1 text-left text-[13px] whitespace-nowrap"
        :class="active ? 'bg-signal-soft text-signal' : ''"
        @click="item.run()"
      >
        <IconCheck v-if="item.checked !== undefined" :size="14" :class="item.checked ? '' : 'invisible'" />
        {{ item.label }}<kbd v-if="item.key" class="number ml-auto pl-2 text-quiet">{{ item.key }}</kbd>
      </button>
    </MenuItem>
  </MenuItems>
</template>
