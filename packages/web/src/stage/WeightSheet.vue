<script setup lang="ts">
/** What the part, or a picked body of it, weighs, where its centre lies, and how it resists being turned. */
import {
  displayFactor, formatNumber, massOf, MATERIALS, principalOf, shifted, type BodyView, type Vec3, type Weight,
} from '@helb/core'; // prettier-ignore
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { sizesOf } from './shown-bodies.ts';

const props = defineProps<{ part: string; bodies: readonly BodyView[] }>();
const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();

/** By the side in mm of the square in kg·side². */
const TURNING = { 'kg·mm²': 1, 'kg·cm²': 100, 'kg·m²': 1e6 } as const;
const turning = ref<keyof typeof TURNING>('kg·mm²');
const found = shallowRef<{ weight: Weight; exact: boolean } | null>(null);
const trouble = ref<string | null>(null);

const own = computed(() => {
  const { body } = session.weighing!;
  return body === null ? props.bodies : props.bodies.filter((b) => b.id === body);
});
watch(
  () => own.value.map((b) => b.key).join(),
  async () => {
    const keys = own.value.map((b) => b.key);
    trouble.value = null;
    try {
      const now = await evaluation.on(design.design!).weigh(props.part, keys);
      if (keys.join() === own.value.map((b) => b.key).join()) found.value = now;
    } catch {
      found.value = null;
      trouble.value = 'The kernel could not weigh this; change it, or try again.';
    }
  },
  { immediate: true },
);

const material = computed(() => design.design?.parts[props.part]?.material);
const rows = computed<{ label: string; text: string }[]>(() => {
  const d = design.design;
  if (!d || !found.value) return [];
  const { units } = d;
  const { weight, exact } = found.value;
  const per = displayFactor('length', units);
  const number = (n: number) => formatNumber(Math.abs(n) < 1e-9 ? 0 : n, Math.max(3, units.decimals));
  const place = (p: Vec3) => p.map((x) => number(x / per)).join(', ');
  const from = session.weighing!.from;
  const center = weight.center.map((x, i) => x - (from?.at[i] ?? 0)) as unknown as Vec3;
  const size = sizesOf(own.value);
  const area = own.value.reduce((sum, b) => sum + b.faces.reduce((all, f) => all + f.area, 0), 0);
  const lines = [
    { label: `Volume, ${units.length}³`, text: number(weight.volume / per ** 3) },
    { label: `Area, ${units.length}²`, text: number(area / per ** 2) },
    { label: `Box, ${units.length}`, text: size.map((x) => number(x / per)).join(' × ') },
    { label: `Centre from ${from?.label ?? 'the origin'}, ${units.length}`, text: place(center) },
  ];
  if (!material.value) return [{ label: 'Mass', text: 'no material; choose one in the tray' }, ...lines];
  const density = massOf(1, material.value);
  const moment = (m: number) => (m * density) / TURNING[turning.value];
  const about = from ? shifted(weight.rows, weight.volume, center) : weight.rows;
  const round = (m: number) => Number(m.toPrecision(6)).toString();
  const { moments, axes } = principalOf(weight.rows);
  return [
    { label: `Mass, kg, of ${MATERIALS[material.value].label}`, text: formatNumber(weight.volume * density, 5) },
    ...lines,
    { label: `Moments about X, Y, Z through ${from?.label ?? 'the centre'}`, text: ([0, 1, 2] as const).map((i) => round(moment(about[i][i]))).join(', ') }, // prettier-ignore
    { label: 'Products XY, YZ, ZX', text: [about[0][1], about[1][2], about[2][0]].map((m) => round(Math.abs(m) < 1e-9 * about[0][0] ? 0 : moment(m))).join(', ') }, // prettier-ignore
    ...([0, 1, 2] as const).map((i) => ({
      label: `${['Smallest', 'Middle', 'Largest'][i]} moment, and its axis`,
      text: `${round(moment(moments[i]))}  (${axes[i].map((x) => formatNumber(Math.abs(x) < 1e-9 ? 0 : x, 4)).join(', ')})`,
    })),
    ...(exact ? [] : [{ label: 'Free faces', text: 'moments are reckoned numerically, to about 1 part in 1000' }]),
  ];
});
</script>

<template>
  <section
    aria-label="Weight"
    class="absolute bottom-3 left-3 z-10 max-w-[75%] rounded-lg border border-hairline bg-panel/95 px-3 py-2 text-[13px]"
    @pointerdown.stop
    @pointerup.stop
    @keydown.escape.stop="session.weighing = null"
  >
    <header class="flex items-center gap-3">
      <h3 class="flex-1 font-semibold">Weight{{ session.weighing!.body === null ? '' : ' of the picked body' }}</h3>
      <select v-model="turning" class="rounded border border-hairline bg-field px-1" aria-label="Unit of moments">
        <option v-for="(_, unit) in TURNING" :key="unit">{{ unit }}</option>
      </select>
      <button class="font-medium text-link underline" @click="session.weighing = null">Close</button>
    </header>
    <p v-if="trouble" role="alert" class="text-bad">{{ trouble }}</p>
    <p v-else-if="!found" role="status" class="text-quiet">Weighing</p>
    <table v-else class="mt-1">
      <tbody>
        <tr v-for="row in rows" :key="row.label">
          <th scope="row" class="pr-4 text-left font-normal text-quiet">{{ row.label }}</th>
          <td class="number select-text whitespace-nowrap">{{ row.text }}</td>
        </tr>
      </tbody>
    </table>
    <p class="mt-1 text-xs text-quiet">Geometry and mass only; Helb does not reckon strength.</p>
  </section>
</template>
