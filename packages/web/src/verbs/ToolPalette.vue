<script setup lang="ts">
/** The drawing tools by family: the last one used of each stands in front, the others behind it. */
import { Menu, MenuButton } from '@headlessui/vue';
import { TOOL_FAMILIES, type DrawTool } from '@helb/core';
import { IconChevronDown } from '@tabler/icons-vue';
import { ref, watch } from 'vue';
import { useSession } from '../design/session.ts';
import ActionItems from '../fields/ActionItems.vue';
import { iconOf } from '../sketch/tool-icons.ts';

const session = useSession();
const front = ref(TOOL_FAMILIES.map((family) => family[0]!));

// A tool taken from the list or by its key comes to the front, too.
watch(
  () => session.tool,
  (name) => {
    TOOL_FAMILIES.forEach((family, i) => {
      const found = family.find((t) => t.name === name);
      if (found) front.value[i] = found;
    });
  },
  { immediate: true },
);

function take(tool: DrawTool): void {
  session.entities = [];
  session.tool = session.tool === tool.name ? null : tool.name;
}

const label = (tool: DrawTool) => tool.name.charAt(0).toUpperCase() + tool.name.slice(1);
const items = (i: number) =>
  TOOL_FAMILIES[i]!.map((tool) => ({
    label: label(tool),
    ...(tool.key ? { key: tool.key } : {}),
    run: () => take(tool),
  }));
</script>

<template>
  <div class="flex shrink-0 items-center">
    <div v-for="(tool, i) in front" :key="i" class="flex items-center">
      <button
        class="grid h-7 w-7 place-items-center rounded-md hover:bg-tray"
        :class="{ 'bg-signal-soft text-signal': session.tool === tool.name }"
        :aria-pressed="session.tool === tool.name"
        :aria-label="label(tool)"
        :title="tool.key ? `${label(tool)}  ${tool.key}` : label(tool)"
        @click="take(tool)"
      >
        <svg
          viewBox="0 0 20 20"
          width="20"
          height="20"
          fill="none"
          stroke="currentColor"
          stroke-width="1.4"
          aria-hidden="true"
        >
          <path v-for="d in iconOf(tool.name).paths" :key="d" :d="d" />
          <circle
            v-for="[x, y] in iconOf(tool.name).dots"
            :key="`${x} ${y}`"
            :cx="x"
            :cy="y"
            r="1.7"
            fill="currentColor"
            stroke="none"
          />
        </svg>
      </button>
      <Menu v-if="TOOL_FAMILIES[i]!.length > 1" v-slot="{ open }" as="div" class="relative">
        <MenuButton
          class="grid h-7 w-3.5 place-items-center rounded text-quiet hover:bg-tray hover:text-ink"
          :class="{ 'bg-tray': open }"
          :aria-label="`More like ${tool.name}`"
          ><IconChevronDown :size="11"
        /></MenuButton>
        <ActionItems :items="items(i)" side="left" />
      </Menu>
    </div>
  </div>
</template>
