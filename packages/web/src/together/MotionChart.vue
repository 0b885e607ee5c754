<script setup lang="ts">
/** A motion through its range, or a run through its time: what else happens meanwhile; over the lower stage. */
import { formatQuantity, numbersCsv } from '@helb/core';
import { LineChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed } from 'vue';
import VChart from 'vue-echarts';
import { useDesign } from '../design/design-store.ts';
import { saveFile } from '../shell/save-file.ts';
import { inks, useTheme } from '../theme/theme.ts';
import { unitName, unitOf, useCharted, useCharting } from './charting.ts';
import { useTogether, type Charted } from './together-store.ts';

use([LineChart, GridComponent, TooltipComponent, CanvasRenderer]);
const props = defineProps<{ of: Charted }>();
const design = useDesign();
const together = useTogether();
const theme = useTheme();
const ink = inks({ line: 'petrol', quiet: 'quiet', hairline: 'hairline' });
const { title, key, travel, busy, driven } = useCharting(() => props.of);
const { choices, chosen, measuring, choose } = useCharted(travel, driven);

const stoppedAt = computed(() => {
  const t = travel.value;
  if (!t?.stopped) return null;
  const at = t.samples.at(-1)?.value;
  const where = at === undefined ? 'at once' : `at ${key.value === 'time' ? `${Number(at.toFixed(3))} s` : formatQuantity(at, key.value === 'turn' ? 'angle' : 'length', design.design!.units)}`; // prettier-ignore
  const { stopped } = t;
  return stopped.kind === 'jam' ? `It jams ${where}.` : stopped.kind === 'touch' ? `${stopped.says} ${where}.` : `It meets a limit ${where}.`; // prettier-ignore
});

const option = computed(() => {
  void theme.shown;
  return {
    animation: false,
    grid: { left: 56, right: 16, top: 8, bottom: 24 },
    tooltip: { trigger: 'axis', valueFormatter: (n: number) => `${n.toFixed(3)}${chosen.value?.unit ?? ''}` },
    xAxis: { type: 'value', min: 'dataMin', max: 'dataMax', axisLabel: { color: ink.quiet, formatter: (n: number) => `${Number(n.toFixed(2))}${unitName(key.value)}` }, splitLine: { lineStyle: { color: ink.hairline } } }, // prettier-ignore
    yAxis: { type: 'value', scale: true, axisLine: { onZero: false }, axisLabel: { color: ink.quiet }, splitLine: { lineStyle: { color: ink.hairline } } }, // prettier-ignore
    series: [{ type: 'line', showSymbol: false, lineStyle: { color: ink.line, width: 2 }, itemStyle: { color: ink.line }, data: (travel.value?.samples ?? []).map((s, i) => [s.value * unitOf(key.value), chosen.value?.values?.[i] ?? NaN]) }], // prettier-ignore
  };
});

function write(): void {
  const told = choices.value.filter((c) => c.values !== null);
  const head = [`${title.value}${unitName(key.value)}`, ...told.map((c) => `${c.label}${c.unit}`)];
  const rows = travel.value!.samples.map((s, i) => [s.value * unitOf(key.value), ...told.map((c) => c.values![i]!)]);
  saveFile(new TextEncoder().encode(numbersCsv(head, rows)), `${title.value}.csv`, 'text/csv');
}
</script>

<template>
  <section v-if="title" aria-label="Chart of a motion" class="border-t border-hairline bg-panel/95 px-4 py-2 text-xs">
    <header class="flex items-center gap-2 pb-1">
      <h3 class="min-w-0 truncate font-semibold">{{ title }}, moves</h3>
      <select
        v-if="choices.length > 0"
        class="rounded border border-hairline bg-field px-1 py-0.5"
        aria-label="What is charted"
        :value="chosen?.id"
        @change="choose(($event.target as HTMLSelectElement).value)"
      >
        <!-- prettier-ignore -->
        <option v-for="c in choices" :key="c.id" :value="c.id">{{ c.label }}</option>
      </select>
      <span v-if="busy || measuring" class="text-quiet" role="status">computing</span>
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
