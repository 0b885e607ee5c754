<script setup lang="ts">
/** Where the bodies on the stage are cut open: moved, turned over and put away here. */
import { displayFactor, type BodyView, type Vec3 } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';

const props = defineProps<{ bodies: readonly BodyView[] }>();
const design = useDesign();
const session = useSession();

const section = computed(() => session.section!);
const factor = computed(() => displayFactor('length', design.design!.units));
const AXES: Readonly<Record<string, Vec3>> = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };
const axis = computed(() => {
  const { normal } = section.value;
  return Object.keys(AXES).find((k) => AXES[k]!.every((c, i) => Math.abs(c) === Math.abs(normal[i]!))) ?? 'face';
});

/** How far the bodies reach along the normal. */
const reach = computed(() => reachAlong(section.value.normal));
function reachAlong(normal: Vec3): readonly [number, number] {
  const all = props.bodies.flatMap(({ box: { min, max } }) =>
    Array.from({ length: 8 }, (_, i) => normal.reduce((sum, n, k) => sum + n * ((i >> k) & 1 ? max[k]! : min[k]!), 0)),
  );
  return all.length > 0 ? [Math.min(...all), Math.max(...all)] : [0, 1];
}

function move(at: number): void {
  session.section = { ...section.value, at };
}
function turn(key: string): void {
  const normal = AXES[key];
  if (!normal) return;
  const [low, high] = reachAlong(normal);
  session.section = { normal, at: (low + high) / 2 };
}
function flip(): void {
  const { normal, at } = section.value;
  session.section = { normal: normal.map((c) => -c || 0) as unknown as Vec3, at: -at };
}
</script>

<template>
  <form
    class="flex items-center gap-2 rounded-lg whitespace-nowrap border border-hairline bg-panel/95 px-3 py-1.5 text-[13px]"
    aria-label="Section"
    @submit.prevent
    @pointerdown.stop
    @pointerup.stop
    @keydown.stop="$event.key === 'Escape' && (session.section = null)"
  >
    <span class="font-medium">Section</span>
    <select
      :value="axis"
      aria-label="Square to"
      class="rounded border border-hairline bg-field px-1"
      @change="turn(($event.target as HTMLSelectElement).value)"
    >
      <option v-for="(_, key) in AXES" :key="key" :value="key">across {{ key }}</option>
      <option v-if="axis === 'face'" value="face">along the face</option>
    </select>
    <input
      type="range"
      class="w-36 accent-petrol"
      aria-label="Where it cuts"
      :min="reach[0]"
      :max="reach[1]"
      :step="(reach[1] - reach[0]) / 200"
      :value="section.at"
      @input="move(Number(($event.target as HTMLInputElement).value))"
    />
    <input
      type="number"
      step="any"
      class="number w-20 rounded border border-hairline bg-field px-1"
      aria-label="Distance of the cut from the origin"
      :value="Number((section.at / factor).toFixed(design.design!.units.decimals))"
      @change="move(Number(($event.target as HTMLInputElement).value) * factor)"
    />
    <span class="text-quiet">{{ design.design!.units.length }}</span>
    <button type="button" class="font-medium text-link underline" @click="flip">Other side</button>
    <button type="button" class="font-medium text-link underline" @click="session.section = null">Close</button>
  </form>
</template>
