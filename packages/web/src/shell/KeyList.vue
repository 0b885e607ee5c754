<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue';

defineProps<{ open: boolean }>();
const emit = defineEmits<{ close: [] }>();

const keys = [
  { title: 'Anywhere', rows: [['Space', 'all verbs that fit, to search; with nothing picked, every step, to say first'], ['Esc', 'one level back; an open sketch stays open'], ['Ctrl Z, Ctrl Shift Z', 'undo, redo'], ['f', 'fit the part in view'], ['?', 'this list']] },
  { title: 'On a part', rows: [['k', 'sketch on the picked face'], ['x', 'extrude the picked regions'], ['Shift click', 'pick several'], ['u, right click', 'list what lies under the pointer, also behind'], ['F2', 'rename what has the focus']] },
  { title: 'Numbers', rows: [['Enter, Esc', 'keep or drop what is tried'], ['Tab, ↓ ↑', 'take or choose a suggested name'], ['click a number', 'put its name into the open field'], ['Ctrl V in Variants', 'bring a table from a spreadsheet']] },
  { title: 'In a sketch', rows: [['l, a, r, c, s', 'line, arc, rectangle, circle, slot'], ['y, e, b, t, p', 'polygon, ellipse, spline, text, point'], ['a in a chain', 'go on with an arc'], ['T, E, o, w', 'trim, extend, round corners, borrow'], ['d', 'dimension what is picked'], ['g', 'make what is picked construction, or real again'], ['double click', 'pick the whole chain'], ['drag a box', 'pick all in it'], ['Ctrl C, Ctrl V', 'copy and paste, between sketches too'], ['digits', 'type sizes while drawing; Tab to the next'], ['Alt', 'hold inference off'], ['m', 'hold to see all constraint marks'], ['Delete', 'remove what is picked'], ['Enter', 'end a spline; finish the sketch']] },
  { title: 'In an assembly', rows: [['k', 'keep to the face: its own frames alone answer'], ['Shift click', 'one frame of two faces or edges of a part'], ['u, right click', 'list what lies under the pointer, with datums'], ['h', 'all parts home']] },
  { title: 'View', rows: [['drag', 'turn'], ['right drag', 'move'], ['wheel', 'zoom at the pointer']] },
]; // prettier-ignore
</script>

<template>
  <Dialog :open="open" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/10" aria-hidden="true" />
    <div class="fixed inset-0 grid place-items-center p-6">
      <DialogPanel class="w-[34rem] rounded-lg border border-hairline bg-panel p-5 shadow-lg">
        <DialogTitle class="text-base font-semibold">Keys</DialogTitle>
        <div class="mt-3 grid grid-cols-2 gap-x-6 gap-y-4">
          <section v-for="group in keys" :key="group.title">
            <h3 class="mb-1 text-xs font-medium text-quiet">{{ group.title }}</h3>
            <p v-for="[key, does] in group.rows" :key="key" class="flex justify-between gap-3 py-0.5">
              <kbd class="number shrink-0">{{ key }}</kbd><span class="text-right text-quiet">{{ does }}</span>
            </p>
          </section>
        </div>
        <button class="button mt-4" @click="emit('close')">Close</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
