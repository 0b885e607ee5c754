<script setup lang="ts">
/** Stock boards on the stage, one under the other, with the pieces as they lie; pieces can be picked, dragged and turned. */
import { pathOf, type CutLayer, type LaidPlace, type PieceDrawing } from '@helb/core';
import { useEventListener } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { useFlatView } from '../stage/flat-view.ts';
import StageTrouble from '../stage/StageTrouble.vue';
import { useCutting } from './cutting-store.ts';

const cutting = useCutting();
const frame = useTemplateRef<HTMLElement>('frame');

/** Between boards, and round all of them, mm. */
const [BETWEEN, ROUND_MM] = [60, 40];
const board = computed(() => cutting.outlines?.board ?? { width: 1000, height: 500 });
const boards = computed(() => Math.max(1, cutting.totals?.boards ?? 1));
const pitch = computed(() => board.value.height + BETWEEN);
const all = computed(() => ({
  width: board.value.width + 2 * ROUND_MM,
  height: boards.value * pitch.value + ROUND_MM,
}));

const MOST_ZOOM = 20;
const { width, height, zoom, corner, fit, wheel, moveFrom, isDrag } = useFlatView(frame, () => [all.value.width, all.value.height], 0, MOST_ZOOM); // prettier-ignore
defineExpose({ fit });
/** Height of a board’s word, mm: 12 px, and no more than there is room above the first. */
const word = computed(() => Math.min(12 / zoom.value, ROUND_MM * 0.65));

/** What is drawn together: what is cut, filled between its loops, and what is written on it. */
const DRAWN = { cut: ['outline', 'holes'], engraved: ['engraving'], marked: ['mark'] } as const;
const number = (x: number) => String(Math.round(x * 1000) / 1000);
/** Path data, y still running up. */
const paths = computed(() => {
  const drawings: ReadonlyMap<string, PieceDrawing> = cutting.drawings;
  const up = ([x, y]: readonly [number, number]) => `${number(x)} ${number(-y)}`;
  const dataOf = (runs: PieceDrawing['runs'], layers: readonly CutLayer[]) =>
    runs.filter((r) => layers.includes(r.layer)).map((r) => pathOf(r.run, up, number) + (r.closed ? ' Z' : '')).join(' '); // prettier-ignore
  const all = Object.entries(DRAWN);
  return new Map([...drawings].map(([id, { runs }]) => [id, all.map(([what, layers]) => ({ what, d: dataOf(runs, layers) })).filter(({ d }) => d)])); // prettier-ignore
});

/** What is dragged, and how far, mm. */
const drag = ref<{ at: number | null; from: [number, number]; by: [number, number]; corner: { x: number; y: number }; begun: boolean } | null>(null); // prettier-ignore

/** Where it is drawn: y runs down, boards stand one under the other. */
function transformOf(place: LaidPlace, at: number): string {
  const [dx, dy] = drag.value?.at === at && drag.value.begun ? drag.value.by : [0, 0];
  const y = ROUND_MM + place.board * pitch.value + board.value.height - place.y;
  return `translate(${ROUND_MM + place.x + dx} ${y + dy}) rotate(${-place.turn})`;
}

function down(event: PointerEvent): void {
  if (event.button !== 0) return;
  const piece = (event.target as Element).closest<SVGElement>('[data-laid]')?.dataset.laid;
  frame.value!.setPointerCapture(event.pointerId);
  drag.value = { at: piece === undefined ? null : Number(piece), from: [event.clientX, event.clientY], by: [0, 0], corner: { ...corner.value }, begun: false }; // prettier-ignore
}
function move(event: PointerEvent): void {
  const own = drag.value;
  if (!own) return;
  own.by = [(event.clientX - own.from[0]) / zoom.value, (event.clientY - own.from[1]) / zoom.value];
  const [dx, dy] = [event.clientX - own.from[0], event.clientY - own.from[1]];
  own.begun ||= isDrag(dx, dy);
  if (own.begun && own.at === null) moveFrom(own.corner, dx, dy);
}
function up(): void {
  const own = drag.value;
  drag.value = null;
  if (!own) return;
  if (!own.begun) cutting.picked = own.at;
  else if (own.at !== null) {
    const place = cutting.laid[own.at]!;
    // Onto another board where it is dropped there.
    const down = own.by[1] - place.y;
    const onto = Math.min(boards.value - 1, Math.max(0, place.board + Math.round((down + board.value.height / 2) / pitch.value))); // prettier-ignore
    const y = place.y - own.by[1] + (onto - place.board) * pitch.value;
    const tenth = (mm: number) => Math.round(mm * 10) / 10;
    cutting.move(own.at, { board: onto, x: tenth(place.x + own.by[0]), y: tenth(y) });
    cutting.picked = own.at;
  }
}

useEventListener(window, 'keydown', (event) => {
  if ((event.target as HTMLElement).closest('input, textarea, select, [role="menu"], [role="dialog"]')) return;
  if (cutting.picked === null) return;
  if (event.key === 'Escape') cutting.picked = null;
});
</script>

<template>
  <div
    ref="frame"
    data-testid="boards"
    class="relative min-h-0 touch-none overflow-hidden bg-tray select-none"
    :class="{ 'cursor-grabbing': drag?.begun }"
    @wheel.prevent="wheel"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="drag = null"
  >
    <svg
      v-if="cutting.outlines"
      class="absolute inset-0 h-full w-full"
      role="img"
      :aria-label="`Boards of ${cutting.outlines.name}`"
      :viewBox="`${-corner.x / zoom} ${-corner.y / zoom} ${width / zoom} ${height / zoom}`"
      fill="none"
      :stroke-width="1.2 / zoom"
    >
      <g v-for="b in boards" :key="b">
        <rect class="board" :x="ROUND_MM" :y="ROUND_MM + (b - 1) * pitch" :width="board.width" :height="board.height" />
        <text
          class="board-word"
          :x="ROUND_MM"
          :y="ROUND_MM + (b - 1) * pitch - word / 3"
          :font-size="word"
          stroke="none"
        >
          Board {{ b }} of {{ boards }}
        </text>
      </g>
      <g
        v-for="(place, at) in cutting.laid"
        :key="at"
        class="piece"
        :class="{ 'piece-picked': cutting.picked === at, 'piece-bad': cutting.faults?.bad.has(at) }"
        :data-laid="at"
        :data-piece="cutting.geometry?.pieces.get(place.piece)?.name"
        :transform="transformOf(place, at)"
      >
        <title>{{ cutting.geometry?.pieces.get(place.piece)?.name }}</title>
        <path
          v-for="{ what, d } in paths.get(place.piece) ?? []"
          :key="what"
          :d="d"
          :class="`piece-${what}`"
          fill-rule="evenodd"
        />
      </g>
    </svg>
    <p
      v-if="cutting.outlines?.pieceOrder.length === 0"
      class="pointer-events-none absolute inset-0 grid place-items-center text-quiet"
    >
      Add flat parts on the right: each lies here by its largest flat face, as often as it is needed.
    </p>
    <StageTrouble
      :trouble="cutting.trouble"
      :progress="cutting.progress ?? (cutting.searching && cutting.laid.length === 0 ? 'Laying the pieces' : null)"
      @stop="cutting.progress ? cutting.stopDrawing() : cutting.stop()"
    />
  </div>
</template>

<style scoped>
.board {
  fill: var(--color-field);
  stroke: var(--color-quiet);
}
.board-word {
  fill: var(--color-quiet);
}
.piece {
  cursor: move;
  stroke: var(--color-petrol);
}
.piece-cut {
  fill: color-mix(in srgb, var(--color-petrol) 12%, transparent);
}
.piece-engraved,
.piece-marked {
  stroke: var(--color-pencil);
}
.piece-bad .piece-cut {
  stroke: var(--color-bad);
  fill: color-mix(in srgb, var(--color-bad) 18%, transparent);
}
.piece-picked .piece-cut {
  stroke: var(--color-signal);
}
</style>
