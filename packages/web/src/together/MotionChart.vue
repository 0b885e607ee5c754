<script setup lang="ts">
/** One motion through its range: what another motion, or a picked point, does meanwhile; over the lower stage. */
import { formatQuantity, numbersCsv, placedAt, travelOf, type Travel } from '@helb/core';
import { LineChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import VChart from 'vue-echarts';
import { useDesign } from '../design/design-store.ts';
import { saveFile } from '../shell/save-file.ts';
import { inks, useTheme } from '../theme/theme.ts';
import { MOTION_NAMES } from './joint-words.ts';
import { rangeOfMotion, useTogether } from './together-store.ts';

use([LineChart, GridComponent, TooltipComponent, CanvasRenderer]);
const props = defineProps<{ joint: string; motion: string }>();
const design = useDesign();
const together = useTogether();
const theme = useTheme();
const ink = inks({ line: 'petrol', quiet: 'quiet', hairline: 'hairline' });

const SAMPLES = 91;
const joint = computed(() => together.it?.joints.find((j) => j.key === props.joint));
const driver = computed(() => joint.value?.motions.find((m) => m.key === props.motion));
const travel = shallowRef<Travel | null>(null);
const busy = ref(false);
const shown = ref('');
/** The first picked frame is followed. */
const point = computed(() => {
  const [spot] = together.picked;
  const member = spot && together.it?.members.find((m) => m.key === spot.member);
  return spot && member ? { link: member.link, at: placedAt(member.within, spot.frame.at), label: spot.label } : null;
});

let asked = 0;
async function run(): Promise<void> {
  const own = ++asked;
  const { it } = together;
  if (!it?.closed || !driver.value) return;
  busy.value = true;
  let breathed = performance.now();
  const breathe = async () => {
    if (performance.now() - breathed < 12) return;
    await new Promise((next) => setTimeout(next));
    breathed = performance.now();
    if (own !== asked) throw new Error('superseded');
  };
  try {
    const found = await travelOf(it, it.home, driver.value, rangeOfMotion(it, driver.value), SAMPLES, point.value ? [point.value] : [], breathe); // prettier-ignore
    if (own !== asked) return;
    travel.value = found;
    together.trace = found.samples.flatMap((s) => s.points.slice(0, 1));
  } catch {
    // A newer one is under way.
  } finally {
    if (own === asked) busy.value = false;
  }
}
watch([() => together.it, driver, point], () => void run(), { immediate: true });
onBeforeUnmount(() => {
  asked++;
  together.trace = [];
});

const unitOf = (key: string) => (key === 'turn' ? 180 / Math.PI : 1);
const unitName = (key: string) => (key === 'turn' ? '°' : ' mm');
const choices = computed(() => {
  const all = (travel.value?.motions ?? []).flatMap(({ joint: key, motion }, i) => {
    const own = together.it?.joints.find((j) => j.key === key);
    if (!own || (key === props.joint && motion.key === props.motion)) return [];
    return [{ id: `${key} ${motion.key}`, label: `${own.joint.name}, ${MOTION_NAMES[motion.key]}`, unit: unitName(motion.key), of: (s: Travel['samples'][number]) => s.values[i]! * unitOf(motion.key) }]; // prettier-ignore
  });
  const places = point.value && travel.value?.samples[0]?.points.length ? ['x', 'y', 'z'].map((axis, k) => ({ id: axis, label: `${point.value!.label}, ${axis}`, unit: ' mm', of: (s: Travel['samples'][number]) => s.points[0]?.[k] ?? NaN })) : []; // prettier-ignore
  return [...all, ...places];
});
const chosen = computed(() => choices.value.find((c) => c.id === shown.value) ?? choices.value[0]);
const stoppedAt = computed(() => {
  const t = travel.value;
  if (!t?.stopped || !driver.value) return null;
  const at = t.samples.at(-1)?.value;
  const where =
    at === undefined
      ? 'at once'
      : `at ${formatQuantity(at, driver.value.key === 'turn' ? 'angle' : 'length', design.design!.units)}`;
  return t.stopped.kind === 'jam' ? `It jams ${where}.` : `It meets a limit ${where}.`;
});

const option = computed(() => {
  void theme.shown;
  const key = driver.value?.key ?? 'turn';
  return {
    animation: false,
    grid: { left: 56, right: 16, top: 8, bottom: 24 },
    tooltip: { trigger: 'axis', valueFormatter: (n: number) => `${n.toFixed(3)}${chosen.value?.unit ?? ''}` },
    xAxis: { type: 'value', min: 'dataMin', max: 'dataMax', axisLabel: { color: ink.quiet, formatter: (n: number) => `${Number(n.toFixed(2))}${unitName(key)}` }, splitLine: { lineStyle: { color: ink.hairline } } }, // prettier-ignore
    yAxis: { type: 'value', scale: true, axisLine: { onZero: false }, axisLabel: { color: ink.quiet }, splitLine: { lineStyle: { color: ink.hairline } } }, // prettier-ignore
    series: [{ type: 'line', showSymbol: false, lineStyle: { color: ink.line, width: 2 }, itemStyle: { color: ink.line }, data: (travel.value?.samples ?? []).map((s) => [s.value * unitOf(key), chosen.value?.of(s) ?? NaN]) }], // prettier-ignore
  };
});

function write(): void {
  const key = driver.value!.key;
  const head = [`${joint.value!.joint.name}${unitName(key)}`, ...choices.value.map((c) => `${c.label}${c.unit}`)];
  const rows = travel.value!.samples.map((s) => [s.value * unitOf(key), ...choices.value.map((c) => c.of(s))]);
  saveFile(new TextEncoder().encode(numbersCsv(head, rows)), `${joint.value!.joint.name}.csv`, 'text/csv');
}
</script>

<template>
  <section
    v-if="joint && driver"
    aria-label="Chart of a motion"
    class="border-t border-hairline bg-panel/95 px-4 py-2 text-xs"
  >
    <header class="flex items-center gap-2 pb-1">
      <h3 class="min-w-0 truncate font-semibold">{{ joint.joint.name }}, {{ MOTION_NAMES[driver.key] }}, moves</h3>
      <select
        v-if="choices.length > 0"
        class="rounded border border-hairline bg-field px-1 py-0.5"
        aria-label="What is charted"
        :value="chosen?.id"
        @change="shown = ($event.target as HTMLSelectElement).value"
      >
        <!-- prettier-ignore -->
        <option v-for="c in choices" :key="c.id" :value="c.id">{{ c.label }}</option>
      </select>
      <span v-if="busy" class="text-quiet" role="status">computing</span>
      <span v-else-if="stoppedAt" class="text-warn" role="status">{{ stoppedAt }}</span>
      <span class="flex-1" />
      <button v-if="travel && choices.length > 0" class="text-link underline" @click="write">Write CSV</button>
      <button class="text-link underline" @click="together.charted = null">Close</button>
    </header>
    <p v-if="!busy && choices.length === 0" class="text-quiet">
      Nothing else moves with it; pick a frame on the stage to follow its place.
    </p>
    <VChart v-else style="height: 150px" :option="option" autoresize data-testid="motion-chart" />
  </section>
</template>
