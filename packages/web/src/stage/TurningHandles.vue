<script setup lang="ts">
/** Where the things in a slot of the step that is worked on begin: dragged round their middles, or turned by arrow keys. */
import type { Handle, Vec3 } from '@helb/core';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useFilling } from '../slots/filling.ts';
import type { StageScene } from './scene.ts';

const props = defineProps<{
  scene: StageScene;
  frame: number;
  part: string;
  step: string;
  handles: readonly Handle[];
}>();
const design = useDesign();
const { fill } = useFilling();

/** Degrees by which an arrow key turns. */
const BY_KEY = 15;
/** Which is dragged, and where to, rad. */
const dragged = ref<{ readonly index: number; readonly angle: number } | null>(null);

const out = ({ at, center }: Handle) => [at[0] - center[0], at[1] - center[1], at[2] - center[2]] as const;
const along = (way: readonly number[], axis: Vec3) => way.reduce((sum, c, k) => sum + c * axis[k]!, 0);
const angleOf = (handle: Handle) => Math.atan2(along(out(handle), handle.y), along(out(handle), handle.x));

const shown = computed(() => {
  void props.frame;
  return props.handles.map((handle, i) => {
    const turned = dragged.value?.index === i ? dragged.value.angle : null;
    const [center, at] = [props.scene.pixelOf(handle.center), props.scene.pixelOf(turned === null ? handle.at : placeAt(handle, turned))]; // prettier-ignore
    return {
      handle,
      center,
      at,
      label: `Where section ${handle.index + 1} begins: drag it round, or turn it by arrow keys`,
    };
  });
});

function placeAt(handle: Handle, angle: number): Vec3 {
  const r = Math.hypot(...out(handle));
  const [c, s] = [Math.cos(angle) * r, Math.sin(angle) * r];
  const at = (k: 0 | 1 | 2) => handle.center[k] + c * handle.x[k] + s * handle.y[k];
  return [at(0), at(1), at(2)];
}

/** The angle under which a place of the stage is seen from the middle; null where the plane is seen from its edge. */
function angleAt(handle: Handle, event: PointerEvent): number | null {
  const box = (event.currentTarget as HTMLElement).parentElement!.getBoundingClientRect();
  const { center, x, y } = handle;
  const pixel = (axis: Vec3) => props.scene.pixelOf([center[0] + axis[0], center[1] + axis[1], center[2] + axis[2]]);
  const [c, a, b] = [props.scene.pixelOf(center), pixel(x), pixel(y)];
  const [px, py] = [event.clientX - box.left - c[0], event.clientY - box.top - c[1]];
  const [ax, ay, bx, by] = [a[0] - c[0], a[1] - c[1], b[0] - c[0], b[1] - c[1]];
  const flat = ax * by - ay * bx;
  return Math.abs(flat) < 1e-9 ? null : Math.atan2((ax * py - ay * px) / flat, (px * by - py * bx) / flat);
}

function take(event: PointerEvent): void {
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
}

function drag(event: PointerEvent, index: number): void {
  if (!(event.currentTarget as HTMLElement).hasPointerCapture(event.pointerId)) return;
  const angle = angleAt(props.handles[index]!, event);
  if (angle !== null) dragged.value = { index, angle };
}

function drop(index: number): void {
  const now = dragged.value;
  dragged.value = null;
  if (now) turn(props.handles[index]!, now.angle);
}

function turn({ slot, index }: Handle, angle: number): void {
  const stored = design.design?.parts[props.part]?.steps[props.step]?.[slot];
  if (!Array.isArray(stored)) return;
  const start = Math.round((angle * 180_000) / Math.PI) / 1000;
  const turned = stored.map((own: object, i) => (i === index ? { ...own, start } : own));
  fill(props.part, props.step, slot, turned);
}

function key(event: KeyboardEvent, index: number): void {
  const by = event.key === 'ArrowLeft' ? BY_KEY : event.key === 'ArrowRight' ? -BY_KEY : 0;
  if (by === 0) return;
  event.preventDefault();
  event.stopPropagation();
  const handle = props.handles[index]!;
  const whole = Math.atan2(Math.sin(angleOf(handle) + (by * Math.PI) / 180), Math.cos(angleOf(handle) + (by * Math.PI) / 180)); // prettier-ignore
  turn(handle, whole);
}
</script>

<template>
  <div class="pointer-events-none absolute inset-0">
    <svg class="absolute inset-0 h-full w-full" aria-hidden="true">
      <line
        v-for="(h, i) in shown"
        :key="i"
        :x1="h.center[0]"
        :y1="h.center[1]"
        :x2="h.at[0]"
        :y2="h.at[1]"
        stroke="var(--color-signal)"
        stroke-width="1"
        stroke-dasharray="2 3"
      />
    </svg>
    <button
      v-for="(h, i) in shown"
      :key="i"
      class="pointer-events-auto absolute flex size-6 -translate-x-1/2 -translate-y-1/2 cursor-grab touch-none items-center justify-center rounded-full"
      :style="{ left: `${h.at[0]}px`, top: `${h.at[1]}px` }"
      :aria-label="h.label"
      :title="h.label"
      @pointerdown.stop="take"
      @pointermove="drag($event, i)"
      @pointerup="drop(i)"
      @keydown="key($event, i)"
    >
      <span class="size-3 rounded-full border-2 border-signal bg-panel" />
    </button>
  </div>
</template>
