<script setup lang="ts">
/** A part, an assembly, a sheet or outlines in the tray: opened by a click, placed by its button or by dragging it. */
import type { Instance } from '@helb/core';
import { useSession } from '../design/session.ts';
import NameField from '../fields/NameField.vue';
import { DRAGGED, usePlacing } from '../together/placing.ts';

const props = defineProps<{
  name: string;
  /** What the name is of. */
  what: 'part' | 'assembly' | 'sheet' | 'outlines';
  open: boolean;
  /** What can be placed of it; sheets and outlines cannot. */
  of: Instance['of'] | null;
  rename: (name: string) => string | null;
  /** Deletes it; left out, its menu does. */
  remove?: () => string | null;
}>();
const emit = defineEmits<{ open: [] }>();
const session = useSession();
const { place } = usePlacing();
const drag = (event: DragEvent) => event.dataTransfer?.setData(DRAGGED, JSON.stringify(props.of));
</script>

<template>
  <div
    class="relative flex w-32 shrink-0 cursor-pointer flex-col rounded-lg border bg-panel px-2 pt-1.5 pb-1"
    :class="open ? 'border-signal' : 'border-hairline hover:border-quiet'"
    :draggable="session.activeAssembly !== null && of !== null && !open"
    @dragstart="drag"
    @click="open || emit('open')"
  >
    <button :aria-pressed="open" :aria-label="`Work on ${name}`"><slot /></button>
    <NameField class="mt-0.5 text-xs" :name="name" :label="`Name of the ${what}`" :rename="rename" />
    <span class="number flex text-[11px] text-quiet"><slot name="caption" /></span>
    <button
      v-if="session.activeAssembly && of && !open"
      class="absolute top-1 left-1 min-h-6 rounded border border-hairline bg-panel px-1.5 text-[11px] text-link hover:border-link"
      :aria-label="`Place ${name}`"
      @click.stop="place(of)"
    >
      Place
    </button>
    <slot name="menu" />
    <button
      v-if="open && remove"
      class="absolute top-1 right-1 min-h-6 rounded px-1 text-[11px] text-quiet hover:text-bad"
      :aria-label="`Delete ${name}`"
      @click.stop="session.notice = remove()"
    >
      Delete
    </button>
  </div>
</template>
