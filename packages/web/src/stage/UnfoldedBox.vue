<script setup lang="ts">
/** A flat net of the six straight-on views; the dots at its corners are the oblique ones. */
import { computed } from 'vue';
import type { ViewDirection } from './scene.ts';

const props = defineProps<{ direction: ViewDirection }>();
const emit = defineEmits<{ look: [ViewDirection] }>();

const CELL = 24;
const faces: { name: string; col: number; row: number; from: ViewDirection }[] = [
  { name: 'top', col: 1, row: 0, from: [0, 0, 1] },
  { name: 'left', col: 0, row: 1, from: [-1, 0, 0] },
  { name: 'front', col: 1, row: 1, from: [0, -1, 0] },
  { name: 'right', col: 2, row: 1, from: [1, 0, 0] },
  { name: 'back', col: 3, row: 1, from: [0, 1, 0] },
  { name: 'under', col: 1, row: 2, from: [0, 0, -1] },
];
/** Corners of the front and of the back square: all eight of the box. */
const corners = faces
  .filter((f) => f.name === 'front' || f.name === 'back')
  .flatMap((f) =>
    [-1, 1].flatMap((sx) =>
      [-1, 1].map((sz) => {
        const front = f.name === 'front';
        const from: ViewDirection = [front ? sx : -sx, front ? -1 : 1, sz * 0.8];
        return {
          name: `${sz > 0 ? 'upper' : 'lower'} ${from[0] > 0 ? 'right' : 'left'} ${front ? 'front' : 'back'}`,
          x: (f.col + (sx + 1) / 2) * CELL,
          y: (f.row + (1 - sz) / 2) * CELL,
          from,
        };
      }),
    ),
  );

const near = (a: ViewDirection, b: ViewDirection, most: number) => {
  const size = Math.hypot(...b);
  return Math.hypot(a[0] - b[0] / size, a[1] - b[1] / size, a[2] - b[2] / size) < most;
};
const current = computed(() => faces.find((f) => near(props.direction, f.from, 0.01))?.name);
</script>

<template>
  <div
    role="group"
    aria-label="Views"
    class="relative select-none"
    :style="{ width: `${CELL * 4}px`, height: `${CELL * 3}px` }"
  >
    <button
      v-for="f in faces"
      :key="f.name"
      class="absolute border border-hairline text-[9px] leading-none"
      :class="current === f.name ? 'bg-ink text-panel' : 'bg-panel text-quiet hover:bg-signal-soft hover:text-ink'"
      :style="{ left: `${f.col * CELL}px`, top: `${f.row * CELL}px`, width: `${CELL + 1}px`, height: `${CELL + 1}px` }"
      :aria-label="`Look from ${f.name}`"
      :aria-pressed="current === f.name"
      @click="emit('look', f.from)"
    >
      {{ f.name }}
    </button>
    <button
      v-for="c in corners"
      :key="c.name"
      class="group absolute grid h-4 w-4 -translate-x-1/2 -translate-y-1/2 place-items-center"
      :style="{ left: `${c.x}px`, top: `${c.y}px` }"
      :aria-label="`Look from ${c.name}`"
      @click="emit('look', c.from)"
    >
      <span
        class="h-1.5 w-1.5 rounded-full group-hover:bg-signal"
        :class="near(direction, c.from, 0.05) ? 'bg-signal' : 'bg-quiet/50'"
      />
    </button>
  </div>
</template>
