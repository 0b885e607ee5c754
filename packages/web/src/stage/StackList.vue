<script setup lang="ts">
/** What lies under the pointer, one behind the other, to pick what is behind something else. */
import { onClickOutside, useEventListener } from '@vueuse/core';
import { nextTick, shallowRef, useTemplateRef } from 'vue';
import { useModes } from '../modes/mode-stack.ts';
import type { StackRow } from './pointing.ts';

const props = defineProps<{
  /** What could be picked under a pixel. */
  rowsAt: (x: number, y: number) => readonly StackRow[];
  surface: HTMLElement;
}>();
const modes = useModes();
const list = useTemplateRef<HTMLElement>('list');
const open = shallowRef<{ x: number; y: number; rows: readonly StackRow[] } | null>(null);
/** Where the pointer is on the stage. */
let pointer: [number, number] | null = null;

const surface = () => props.surface;
const at = (event: MouseEvent): [number, number] => {
  const box = surface().getBoundingClientRect();
  return [event.clientX - box.left, event.clientY - box.top];
};

function show([x, y]: [number, number]): void {
  const rows = props.rowsAt(x, y);
  open.value = rows.length > 0 ? { x, y, rows } : null;
  if (!open.value) return;
  modes.enter('stack', true);
  void nextTick(() => list.value?.querySelector('button')?.focus());
}

function close(): void {
  open.value?.rows[0]?.point(false);
  open.value = null;
  modes.leave('stack');
}
modes.handle('stack', { escape: close });

function take(row: StackRow, add: boolean): void {
  close();
  row.take(add);
}

function step(by: number): void {
  const all = [...(list.value?.querySelectorAll('button') ?? [])];
  const now = all.indexOf(document.activeElement as HTMLButtonElement);
  all[(now + by + all.length) % all.length]?.focus();
}

let pressed: [number, number] | null = null;
const STILL_PX = 4;
useEventListener(surface, 'pointermove', (event) => (pointer = at(event)));
useEventListener(surface, 'pointerleave', () => (pointer = null));
useEventListener(surface, 'pointerdown', (event) => (pressed = event.button === 2 ? at(event) : null));
useEventListener(surface, 'pointerup', (event) => {
  const now = at(event);
  if (event.button === 2 && pressed && Math.hypot(now[0] - pressed[0], now[1] - pressed[1]) <= STILL_PX) show(now);
  pressed = null;
});
onClickOutside(list, () => open.value && close());
defineExpose({ openHere: () => pointer && show(pointer) });
</script>

<template>
  <div
    v-if="open"
    ref="list"
    role="listbox"
    aria-label="Under the pointer"
    class="absolute z-30 max-h-60 overflow-y-auto rounded-md border border-hairline bg-panel p-1 shadow-md"
    :style="{ left: `${open.x + 8}px`, top: `${open.y + 8}px` }"
    @pointerdown.stop
    @pointerup.stop
    @pointermove.stop
    @keydown.down.prevent="step(1)"
    @keydown.up.prevent="step(-1)"
    @keydown.escape.stop="close"
  >
    <button
      v-for="(row, i) in open.rows"
      :key="i"
      role="option"
      :aria-selected="false"
      class="block w-full rounded px-2 py-1 text-left text-[13px] whitespace-nowrap hover:bg-signal-soft hover:text-signal focus:bg-signal-soft focus:text-signal focus:outline-none"
      @pointerenter="row.point(true)"
      @focus="row.point(true)"
      @click="take(row, $event.shiftKey)"
    >
      {{ row.label }}
    </button>
  </div>
</template>
