<script setup lang="ts">
/** How much of each board pieces take. */
import { BarChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed } from 'vue';
import VChart from 'vue-echarts';
import { inks, useTheme } from '../theme/theme.ts';

use([BarChart, GridComponent, TooltipComponent, CanvasRenderer]);

const props = defineProps<{ filled: readonly number[] }>();
const theme = useTheme();
const ink = inks({ petrol: 'petrol', quiet: 'quiet', hairline: 'hairline', tray: 'tray' });
const ROW_PX = 22;

const option = computed(() => {
  void theme.shown;
  const percent = (share: number) => Math.round(share * 1000) / 10;
  const label = { color: ink.quiet, fontFamily: 'Spline Sans Mono', fontSize: 11 };
  return {
    animation: false,
    grid: { left: 58, right: 46, top: 0, bottom: 0 },
    tooltip: { valueFormatter: (v: number) => `${v} %` },
    xAxis: { type: 'value', max: 100, show: false },
    yAxis: {
      type: 'category',
      inverse: true,
      data: props.filled.map((_, i) => `Board ${i + 1}`),
      axisLabel: label,
      axisLine: { show: false },
      axisTick: { show: false },
    },
    series: [
      {
        type: 'bar',
        name: 'taken',
        data: props.filled.map(percent),
        barWidth: 10,
        itemStyle: { color: ink.petrol },
        showBackground: true,
        backgroundStyle: { color: ink.tray },
        label: { show: true, position: 'right', formatter: '{c} %', ...label },
      },
    ],
  };
});
</script>

<template>
  <VChart
    :option="option"
    autoresize
    role="img"
    :aria-label="`Taken: ${filled.map((f, i) => `board ${i + 1} ${Math.round(f * 100)} %`).join(', ')}`"
    :style="{ height: `${filled.length * ROW_PX + 4}px` }"
  />
</template>
