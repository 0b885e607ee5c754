<script setup lang="ts">
/** Where the bodies on the stage are cut open: moved, turned over and put away here. */
import { deleteSection, displayFactor, keepSection, MOST_SECTION_PLANES, newId, type Box, type Vec3 } from '@helb/core';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import NameField from '../fields/NameField.vue';
import type { SectionPlane } from './section.ts';

const props = defineProps<{
  /** Round what is cut. */
  boxes: readonly Box[];
  /** The part that keeps them by name; null where none are kept. */
  part: string | null;
}>();
const design = useDesign();
const session = useSession();

const which = ref(0);
const section = computed(() => session.section[Math.min(which.value, session.section.length - 1)]!);
const factor = computed(() => displayFactor('length', design.design!.units));
const AXES: Readonly<Record<string, Vec3>> = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };
const axisOf = ({ normal }: { readonly normal: Vec3 }) =>
  Object.keys(AXES).find((k) => AXES[k]!.every((c, i) => Math.abs(c) === Math.abs(normal[i]!))) ?? 'face';
const axis = computed(() => axisOf(section.value));

/** How far the bodies reach along the normal. */
const reach = computed(() => reachAlong(section.value.normal));
function reachAlong(normal: Vec3): readonly [number, number] {
  const all = props.boxes.flatMap(({ min, max }) =>
    Array.from({ length: 8 }, (_, i) => normal.reduce((sum, n, k) => sum + n * ((i >> k) & 1 ? max[k]! : min[k]!), 0)),
  );
  return all.length > 0 ? [Math.min(...all), Math.max(...all)] : [0, 1];
}

const middleOf = (normal: Vec3) => ({ normal, at: (reachAlong(normal)[0] + reachAlong(normal)[1]) / 2 });
function put(plane: SectionPlane): void {
  session.section = session.section.map((p) => (p === section.value ? plane : p));
}
const move = (at: number) => put({ ...section.value, at });
function turn(key: string): void {
  if (AXES[key]) put(middleOf(AXES[key]));
}
function flip(): void {
  const { normal, at } = section.value;
  put({ normal: normal.map((c) => -c || 0) as unknown as Vec3, at: -at });
}

/** One more plane, across an axis that none is across yet: what lies before all of them is cut away. */
const free = computed(() =>
  session.section.length < MOST_SECTION_PLANES
    ? Object.keys(AXES).find((key) => !session.section.some((p) => axisOf(p) === key))
    : undefined,
);
function addPlane(): void {
  session.section = [...session.section, middleOf(AXES[free.value!]!)];
  which.value = session.section.length - 1;
}
function takeAway(): void {
  session.section = session.section.filter((p) => p !== section.value);
  which.value = 0;
}

/** Sections kept of this part. */
const kept = computed(() => design.design?.parts[props.part ?? '']?.sections);
const shownKept = computed(() =>
  kept.value?.order.find((id) => JSON.stringify(kept.value!.rows[id]!.planes) === JSON.stringify(session.section)),
);
function keep(): void {
  const names = new Set(Object.values(kept.value?.rows ?? {}).map((row) => row.name));
  let n = 1;
  while (names.has(`Section ${n}`)) n++;
  const planes = session.section.map(({ normal, at }) => ({ normal: [...normal] as [number, number, number], at }));
  session.notice = design.edit(keepSection(props.part!, newId('x'), { name: `Section ${n}`, planes }));
}
function rename(id: string, name: string): string | null {
  return design.edit(keepSection(props.part!, id, { ...kept.value!.rows[id]!, name }));
}
function show(id: string): void {
  session.section = kept.value!.rows[id]!.planes;
  which.value = 0;
}
function forget(id: string): void {
  session.notice = design.edit(deleteSection(props.part!, id));
}
</script>

<template>
  <form
    class="flex flex-wrap items-center justify-center gap-x-2 gap-y-1 rounded-lg whitespace-nowrap border border-hairline bg-panel/95 px-3 py-1.5 text-[13px]"
    aria-label="Section"
    @submit.prevent
    @pointerdown.stop
    @pointerup.stop
    @keydown.stop="$event.key === 'Escape' && (session.section = [])"
  >
    <select
      v-if="kept"
      :value="shownKept ?? ''"
      aria-label="Kept sections"
      class="w-24 rounded border border-hairline bg-field px-1"
      @change="show(($event.target as HTMLSelectElement).value)"
    >
      <option v-if="!shownKept" value="" disabled>Section</option>
      <option v-for="id in kept.order" :key="id" :value="id">{{ kept.rows[id]!.name }}</option>
    </select>
    <span v-else class="font-medium">Section</span>
    <select
      v-if="session.section.length > 1"
      v-model.number="which"
      aria-label="Which plane"
      class="rounded border border-hairline bg-field px-1"
    >
      <option v-for="(_, i) in session.section" :key="i" :value="i">plane {{ i + 1 }}</option>
    </select>
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
      class="w-28 accent-petrol"
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
    <button v-if="free" type="button" class="font-medium text-link underline" @click="addPlane">
      And across {{ free }}
    </button>
    <button v-if="session.section.length > 1" type="button" class="font-medium text-link underline" @click="takeAway">
      Take away
    </button>
    <template v-if="shownKept">
      <NameField
        :name="kept!.rows[shownKept]!.name"
        label="Name of the section"
        :rename="(name) => rename(shownKept!, name)"
      />
      <button type="button" class="font-medium text-link underline" @click="forget(shownKept)">Forget</button>
    </template>
    <button v-else-if="part" type="button" class="font-medium text-link underline" @click="keep">Keep</button>
    <button type="button" class="font-medium text-link underline" @click="session.section = []">Close</button>
  </form>
</template>
