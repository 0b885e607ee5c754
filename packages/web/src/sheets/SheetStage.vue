<script setup lang="ts">
/** Paper on the stage: views that can be moved, places at which sizes are taken, sizes that are dragged where they read well. */
import {
  CAPITALS,
  piecesOn,
  placeOn,
  paperSize,
  PENS,
  sheetPath,
  standsAt,
  standsFree,
  isMain,
  wordOfView,
  type PlacedView,
  type OfferedSpot,
} from '@helb/core';
import { useEventListener } from '@vueuse/core';
import { computed, ref, shallowRef, useTemplateRef } from 'vue';
import { useFlatView } from '../stage/flat-view.ts';
import StageTrouble from '../stage/StageTrouble.vue';
import { grouped } from './grouped.ts';
import { nearestSpot } from './nearest-spot.ts';
import { useSheets } from './sheet-store.ts';

const sheets = useSheets();
const frame = useTemplateRef<HTMLElement>('frame');

const paper = computed(() => (sheets.sheet ? paperSize(sheets.sheet) : ([420, 297] as const)));
const ROOM = 24;
const MOST_ZOOM = 40;
const { zoom, corner, fit, placeOf, wheel, moveFrom, isDrag } = useFlatView(frame, () => paper.value, ROOM, MOST_ZOOM);
defineExpose({ fit });

/** On paper y runs up. */
function toPaper(event: MouseEvent): [number, number] {
  const [x, y] = placeOf(event);
  return [x, paper.value[1] - y];
}

const drawnFrame = computed(() => grouped(sheets.composed?.frame ?? [], paper.value[1]));
const drawnViews = computed(() =>
  (sheets.composed?.views ?? []).map((view) => ({ view, drawn: grouped(view.items, paper.value[1]) })),
);
const drawnSizes = computed(() =>
  (sheets.composed?.sizes ?? []).map((size) => ({ size, drawn: grouped(size.items, paper.value[1]) })),
);

const pointed = shallowRef<{ readonly view: PlacedView; readonly spot: OfferedSpot } | null>(null);
const REACH_PX = 9;
/** So near an edge it is meant, though a line of a size begins or crosses there. */
const ON_EDGE_PX = 4;

const MOST_PICKED = 40;

/** What is being dragged, and how far, mm on the paper. */
const drag = ref<
  | { kind: 'view' | 'size'; id: string; from: [number, number]; by: [number, number]; begun: boolean }
  | { kind: 'paper'; from: [number, number]; at: { x: number; y: number }; begun: boolean }
  | null
>(null);
const sizeAt = (event: PointerEvent): string | null =>
  (event.target as Element).closest<SVGElement>('[data-size]')?.dataset.size ?? null;

/** Round a view too: in a thin one every place is near an edge. mm on the paper. */
const ROUND_VIEW = 12;

function viewAt([x, y]: readonly [number, number]): PlacedView | null {
  const room = ROUND_VIEW;
  return (
    sheets.composed?.views.find(
      ({ box: [x0, y0, x1, y1] }) => x >= x0 - room && x <= x1 + room && y >= y0 - room && y <= y1 + room,
    ) ?? null
  );
}

function down(event: PointerEvent): void {
  if (event.button !== 0) return;
  const at = toPaper(event);
  const size = pointed.value ? null : sizeAt(event);
  frame.value!.setPointerCapture(event.pointerId);
  const view = viewAt(at);
  if (size) drag.value = { kind: 'size', id: size, from: at, by: [0, 0], begun: false };
  else if (view && !pointed.value) drag.value = { kind: 'view', id: view.id, from: at, by: [0, 0], begun: false };
  else if (!view) drag.value = { kind: 'paper', from: [event.clientX, event.clientY], at: { ...corner.value }, begun: false }; // prettier-ignore
}

function move(event: PointerEvent): void {
  const own = drag.value;
  if (own?.kind === 'paper') {
    const [dx, dy] = [event.clientX - own.from[0], event.clientY - own.from[1]];
    own.begun ||= isDrag(dx, dy);
    if (own.begun) moveFrom(own.at, dx, dy);
    return;
  }
  const at = toPaper(event);
  if (own) {
    own.by = [at[0] - own.from[0], at[1] - own.from[1]];
    own.begun ||= isDrag(own.by[0] * zoom.value, own.by[1] * zoom.value);
    return;
  }
  const views = (sheets.composed?.views ?? []).map((view) => {
    const drawn = sheets.geometry?.views.get(view.id);
    return { view, spots: drawn ? [...drawn.spots, ...drawn.cutSpots] : [] };
  });
  const near = nearestSpot(at, views, REACH_PX / zoom.value);
  const inWay = sizeAt(event) !== null && !(near && near.away * zoom.value < ON_EDGE_PX && (event.target as Element).tagName !== 'text'); // prettier-ignore
  pointed.value = inWay ? null : near;
}

function up(event: PointerEvent): void {
  const own = drag.value;
  drag.value = null;
  if (own?.begun && own.kind === 'view') return sheets.shiftView(own.id, own.by);
  if (own?.begun && own.kind === 'size') {
    const size = sheets.composed?.sizes.find((s) => s.id === own.id);
    const view = sheets.composed?.views.find((v) => v.id === size?.view);
    if (size && view) sheets.place(own.id, [size.place[0] + own.by[0] - view.at[0], size.place[1] + own.by[1] - view.at[1]]); // prettier-ignore
    return;
  }
  if (own?.begun || event.button !== 0) return;
  click(event, own?.kind === 'size' ? own.id : null, own?.kind === 'view' ? own.id : null);
}

function click(event: PointerEvent, size: string | null, view: string | null): void {
  const at = pointed.value;
  if (size) {
    sheets.letGo();
    sheets.pickedSize = size;
  } else if (at) {
    const pick = { view: at.view.id, spot: at.spot };
    const before = event.shiftKey && sheets.picked[0]?.view === at.view.id ? sheets.picked : [];
    const others = before.filter((p) => JSON.stringify(p.spot.spot) !== JSON.stringify(at.spot.spot));
    sheets.letGo();
    // Picked again it is let go of.
    sheets.picked = others.length < before.length ? others : [...others, pick].slice(-MOST_PICKED);
  } else {
    sheets.letGo();
    sheets.pickedView = view;
  }
}

useEventListener(window, 'keydown', (event) => {
  const typing = (event.target as HTMLElement).closest('input, textarea, select, [role="menu"], [role="dialog"]');
  if (!typing && (event.key === 'Delete' || event.key === 'Backspace')) sheets.remove();
});

/** What goes along with a dragged view: with the front all in line with it; others in their row or column only. */
function shiftOf(view: string): string | undefined {
  const own = drag.value;
  const views = sheets.sheet?.views;
  if (own?.kind !== 'view' || !own.begun || !views) return undefined;
  const [moved, other] = [views[own.id], views[view]];
  if (!moved || !other) return undefined;
  const isFront = moved.look === 'front' && isMain(moved);
  if (own.id !== view && (!isFront || standsFree(other))) return undefined;
  const [column, row] = standsAt(sheets.sheet!.angle, moved.look);
  const held = !isFront && !standsFree(moved);
  return `translate(${held && column === 0 ? 0 : own.by[0]} ${held && row === 0 ? 0 : -own.by[1]})`;
}
const shiftOfSize = (id: string, view: string): string | undefined =>
  drag.value?.kind === 'size' && drag.value.begun && drag.value.id === id
    ? `translate(${drag.value.by[0]} ${-drag.value.by[1]})`
    : shiftOf(view);

/** A spot drawn on the paper. */
function spotPath(view: PlacedView, spot: OfferedSpot): string {
  const { piece } = spot;
  if (piece.kind === 'point') {
    const [x, up] = placeOn(view, piece.points[0]);
    return `M ${x - 1.2} ${paper.value[1] - up} a 1.2 1.2 0 1 0 2.4 0 a 1.2 1.2 0 1 0 -2.4 0`;
  }
  return piecesOn(view, piece).map((p) => sheetPath(p, paper.value[1])).join(' '); // prettier-ignore
}
const lit = computed(() => {
  const views = new Map((sheets.composed?.views ?? []).map((v) => [v.id, v]));
  const picks = [...sheets.picked, ...sheets.offeredSpots].flatMap(({ view, spot }) =>
    views.has(view) ? [{ d: spotPath(views.get(view)!, spot), picked: true }] : [],
  );
  return [...picks, ...(pointed.value ? [{ d: spotPath(pointed.value.view, pointed.value.spot), picked: false }] : [])];
});
const nameOfView = (id: string) => (sheets.sheet?.views[id] ? wordOfView(sheets.sheet.views[id]) : '');
const FAMILY = { words: 'Archivo Variable', strong: 'Archivo Variable', numbers: 'Spline Sans Mono' } as const;
</script>

<template>
  <div
    ref="frame"
    data-testid="sheet"
    class="relative min-h-0 touch-none overflow-hidden bg-tray select-none"
    :class="{ 'cursor-grabbing': drag?.begun, 'cursor-pointer': pointed }"
    @wheel.prevent="wheel"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="drag = null"
    @pointerleave="pointed = null"
  >
    <svg
      v-if="sheets.composed"
      class="absolute bg-white shadow-md"
      role="img"
      :aria-label="`Sheet ${sheets.sheet?.name}`"
      :style="{
        left: `${corner.x}px`,
        top: `${corner.y}px`,
        width: `${paper[0] * zoom}px`,
        height: `${paper[1] * zoom}px`,
      }"
      :viewBox="`0 0 ${paper[0]} ${paper[1]}`"
      fill="none"
      stroke="#1F2A30"
      stroke-linecap="round"
    >
      <g
        v-for="(group, i) in [{ drawn: drawnFrame }, ...drawnViews, ...drawnSizes]"
        :key="i"
        :data-view="'view' in group ? nameOfView(group.view.id) : undefined"
        :data-size="'size' in group ? group.size.id : undefined"
        :transform="
          'view' in group
            ? shiftOf(group.view.id)
            : 'size' in group
              ? shiftOfSize(group.size.id, group.size.view)
              : undefined
        "
        :class="{
          'sheet-size': 'size' in group,
          'sheet-picked':
            ('size' in group && group.size.id === sheets.pickedSize) ||
            ('view' in group && group.view.id === sheets.pickedView),
        }"
      >
        <path
          v-if="'size' in group"
          class="sheet-grip"
          :d="group.drawn.paths.map((p) => p.d).join(' ')"
          stroke="transparent"
          :stroke-width="8 / zoom"
        />
        <path
          v-for="{ pen, d } in group.drawn.paths"
          :key="pen"
          :d="d"
          :stroke-width="PENS[pen].width"
          :stroke-dasharray="PENS[pen].dashes.join(' ') || undefined"
        />
        <path v-if="group.drawn.filled" :d="group.drawn.filled" class="sheet-ink" stroke="none" />
        <text
          v-for="(text, t) in group.drawn.texts"
          :key="t"
          class="sheet-ink"
          stroke="none"
          :transform="`translate(${text.at[0]} ${paper[1] - text.at[1]}) rotate(${(-text.turn * 180) / Math.PI})`"
          :font-family="FAMILY[text.face]"
          :font-weight="text.face === 'strong' ? 700 : 400"
          :font-size="text.height / CAPITALS"
          :text-anchor="text.anchor"
        >
          {{ text.text }}
        </text>
      </g>
      <path
        v-for="({ d, picked }, i) in lit"
        :key="`lit ${i}`"
        :d="d"
        class="pointer-events-none"
        :stroke="picked ? '#C8401A' : '#0E6E78'"
        :stroke-width="2.4 / zoom"
      />
    </svg>
    <p v-else-if="!sheets.trouble" class="absolute inset-0 grid place-items-center text-quiet" role="status">
      The sheet is being drawn.
    </p>
    <StageTrouble :trouble="sheets.trouble" :progress="sheets.progress" @stop="sheets.stop()" />
  </div>
</template>

<style scoped>
.sheet-ink {
  fill: #1f2a30;
}
.sheet-size {
  cursor: move;
  stroke: #114b52;
}
.sheet-size .sheet-ink {
  fill: #114b52;
}
.sheet-picked {
  stroke: #c8401a;
}
.sheet-picked .sheet-ink {
  fill: #c8401a;
}
.sheet-grip {
  stroke: transparent;
}
</style>
