<script setup lang="ts">
/** The drawing beside the stage: looked at, and laid under the open sketch, to scale, square and in its place. */
import { putAt, scaledBy, squaredBy, type Underlay } from '@helb/core';
import { useFileDialog } from '@vueuse/core';
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useFlatView } from '../stage/flat-view.ts';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useBrief } from './brief-store.ts';
import { DrawingRefused, openDrawing, type DrawingFile } from './read-drawing.ts';

const brief = useBrief();
const session = useSession();
const design = useDesign();
const frame = useTemplateRef<HTMLElement>('frame');

const fault = ref<string | null>(null);
const reading = ref(false);
/** A file of several pages, of which one is to be said. */
const asked = shallowRef<DrawingFile | null>(null);
const { open, onChange } = useFileDialog({ accept: 'image/png,image/jpeg,image/webp,application/pdf,.pdf', multiple: false, reset: true }); // prettier-ignore
onChange((files) => files?.[0] && void read(async () => openDrawing(files[0]!)));

async function read(opening: () => Promise<DrawingFile>): Promise<void> {
  fault.value = null;
  reading.value = true;
  try {
    const file = await opening();
    if (file.pages > 1) asked.value = file;
    else brief.addDrawing(file.name, await file.picture(1));
  } catch (error) {
    fault.value = error instanceof DrawingRefused ? error.message : 'The drawing could not be read; try another file.';
  } finally {
    reading.value = false;
  }
}
function takePage(event: Event): void {
  const file = asked.value;
  const page = Number((event.target as HTMLSelectElement).value);
  asked.value = null;
  if (file && page > 0) void read(async () => ({ name: `${file.name}, page ${page}`, pages: 1, picture: () => file.picture(page) })); // prettier-ignore
}

const own = computed(() => brief.drawing?.own ?? null);
const MOST_ZOOM = 20;
const { zoom, corner, fit, placeOf, wheel, moveFrom, isDrag } = useFlatView(frame, () => [own.value?.width ?? 1, own.value?.height ?? 1], 0, MOST_ZOOM); // prettier-ignore
watch(() => brief.drawing?.id, fit);

type Setting = 'scale' | 'square' | 'origin';
const HINTS: Readonly<Record<Setting, string>> = {
  scale: 'Click two points whose distance you know, then type it.',
  square: 'Click two points of a line that is level or upright.',
  origin: 'Click the point that lies on the sketch’s origin.',
};
const setting = ref<Setting | null>(null);
const points = ref<[number, number][]>([]);
const apart = ref('');
/** Of the drawing that is looked at, under the open sketch. */
const under = computed<Underlay | null>(() => (brief.underlay && brief.underlay.own.drawing === brief.drawing?.id ? brief.underlay.own : null)); // prettier-ignore
watch([() => session.sketching, () => brief.drawing?.id], () => begin(null));
function begin(what: Setting | null): void {
  setting.value = setting.value === what ? null : what;
  points.value = [];
  apart.value = '';
  fault.value = null;
}

function lay(to: Underlay | null, otherwise: string): void {
  if (to === null) fault.value = otherwise;
  else if (brief.layUnder(to)) begin(null);
}
function click(event: PointerEvent): void {
  const at = placeOf(event);
  if (!setting.value || !under.value) return;
  points.value = setting.value === 'origin' ? [at] : [...points.value.slice(-1), at];
  if (setting.value === 'origin') lay(putAt(under.value, at, [0, 0]), '');
  else if (setting.value === 'square' && points.value.length === 2)
    lay(squaredBy(under.value, points.value[0]!, at), 'These two are one point; click two that lie apart.');
}
function setScale(): void {
  const mm = design.ledger!.read(apart.value, {}, 'length');
  if (!mm.ok) fault.value = mm.message;
  else lay(scaledBy(under.value!, points.value[0]!, points.value[1]!, mm.quantity.value), 'Give two points that lie apart, and a distance above 0.'); // prettier-ignore
}

const drag = ref<{ from: [number, number]; at: { x: number; y: number }; begun: boolean } | null>(null);
function down(event: PointerEvent): void {
  frame.value!.setPointerCapture(event.pointerId);
  drag.value = { from: [event.clientX, event.clientY], at: { ...corner.value }, begun: false };
}
function move(event: PointerEvent): void {
  const now = drag.value;
  if (!now) return;
  const [dx, dy] = [event.clientX - now.from[0], event.clientY - now.from[1]];
  now.begun ||= isDrag(dx, dy);
  if (now.begun) moveFrom(now.at, dx, dy);
}
function up(event: PointerEvent): void {
  const now = drag.value;
  drag.value = null;
  if (now && !now.begun) click(event);
}
</script>

<template>
  <div class="flex min-h-0 min-w-0 flex-col text-xs" @keydown.escape.stop="begin(null)">
    <header class="flex flex-wrap items-center gap-3 px-3 pt-2 pb-1">
      <h3 class="font-semibold">Drawing</h3>
      <select
        v-if="brief.brief && brief.brief.drawingOrder.length > 1"
        class="field"
        aria-label="Which drawing"
        :value="brief.drawing?.id"
        @change="brief.chosen = ($event.target as HTMLSelectElement).value"
      >
        <option v-for="id in brief.brief.drawingOrder" :key="id" :value="id">
          {{ brief.brief.drawings[id]!.name }}
        </option>
      </select>
      <select v-if="asked" class="field" aria-label="Which page" @change="takePage">
        <option value="0">which page?</option>
        <option v-for="n in asked.pages" :key="n" :value="n">page {{ n }}</option>
      </select>
      <template v-if="session.inSketch && own">
        <button v-if="!under" class="text-link underline" @click="brief.layFirst()">Lay it under this sketch</button>
        <template v-else>
          <button
            v-for="[what, word] in [
              ['scale', 'Scale'],
              ['square', 'Square'],
              ['origin', 'Origin'],
            ] as const"
            :key="what"
            class="underline"
            :class="setting === what ? 'text-signal' : 'text-link'"
            :aria-pressed="setting === what"
            @click="begin(what)"
          >
            {{ word }}
          </button>
          <label class="flex items-center gap-1 text-quiet"
            >seen
            <input
              type="range"
              min="0"
              max="1"
              step="0.05"
              class="w-20"
              :value="under.seen"
              @change="brief.layUnder({ ...under, seen: Number(($event.target as HTMLInputElement).value) })"
            />
          </label>
          <button class="text-link underline" @click="brief.layUnder(null)">Take it from under</button>
        </template>
      </template>
      <span class="flex-1" />
      <button class="text-link underline" :disabled="reading" @click="open()">
        {{ reading ? 'Reading' : own ? 'Another' : 'Choose a picture or PDF' }}
      </button>
      <button v-if="brief.drawing" class="text-link underline" @click="brief.removeDrawing(brief.drawing.id)">
        Take it off
      </button>
    </header>
    <p v-if="fault" class="px-3 text-bad" role="alert">{{ fault }}</p>
    <!-- It stands there all the while, so that the drawing does not move under the pointer. -->
    <form v-if="under" class="flex h-7 shrink-0 items-center gap-2 px-3" @submit.prevent="setScale">
      <span class="text-quiet">{{
        setting ? HINTS[setting] : 'Set it to scale, square it, and put it in its place.'
      }}</span>
      <template v-if="setting === 'scale' && points.length === 2">
        <input v-model="apart" class="field number w-24" aria-label="Their distance" placeholder="120 mm" />
        <button class="button py-0">Set</button>
      </template>
    </form>
    <div
      ref="frame"
      data-testid="drawing"
      class="relative min-h-0 flex-1 touch-none overflow-hidden bg-tray"
      :style="{ cursor: setting ? 'crosshair' : 'grab' }"
      @wheel.prevent="wheel"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="drag = null"
    >
      <img
        v-if="own"
        :src="own.picture"
        :alt="`The drawing ${own.name}`"
        draggable="false"
        class="absolute top-0 left-0 max-w-none origin-top-left bg-white select-none"
        :style="{
          width: `${own.width}px`,
          height: `${own.height}px`,
          transform: `translate(${corner.x}px, ${corner.y}px) scale(${zoom})`,
        }"
      />
      <svg v-if="points.length > 0" class="pointer-events-none absolute inset-0 h-full w-full">
        <circle
          v-for="([x, y], i) in points"
          :key="i"
          :cx="corner.x + x * zoom"
          :cy="corner.y + y * zoom"
          r="5"
          fill="none"
          stroke="var(--color-signal)"
          stroke-width="2"
        />
      </svg>
      <p v-if="!own" class="absolute inset-0 grid place-items-center p-4 text-center text-quiet">
        The drawing you were given goes here, and, to scale, under the sketches you draw after it.
      </p>
    </div>
  </div>
</template>
