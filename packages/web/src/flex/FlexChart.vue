<script setup lang="ts">
/** A number of the design over a dial's range. */
import { displayFactor, kindOfPowers, Ledger, sizeKey, type DialFlex } from '@helb/core';
import { LineChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed, ref } from 'vue';
import VChart from 'vue-echarts';
import type { Design } from '@helb/core';
import { inks, useTheme } from '../theme/theme.ts';

use([LineChart, GridComponent, TooltipComponent, MarkLineComponent, CanvasRenderer]);

const props = defineProps<{ flex: DialFlex; of: Design }>();
const theme = useTheme();
const ink = inks({ line: 'petrol', quiet: 'quiet', hairline: 'hairline', bad: 'bad', signal: 'signal' });

/** Changes smaller than this share are the kernel's rounding. */
const STILL = 1e-9;

/** What changes as the dial moves: mass first, then the named numbers, those of steps last. */
const choices = computed(() => {
  const { dial, samples } = props.flex;
  const ledger = Ledger.of(props.of);
  const moves = (ref: string) => {
    const values = samples.flatMap((s) => s.numbers[ref] ?? []);
    const [least, most] = [Math.min(...values), Math.max(...values)];
    return values.length > 1 && most - least > STILL * Math.max(Math.abs(least), Math.abs(most));
  };
  const named = ledger.entries.filter((e) => e.ref !== dial.ref && moves(e.ref));
  const rank = (level: string) => (level === 'design' || level === 'project' ? 0 : level === 'part' ? 1 : 2);
  named.sort((a, b) => Number(b.measured?.of === 'part') - Number(a.measured?.of === 'part') || rank(a.owner.level) - rank(b.owner.level)); // prettier-ignore
  const { parts, partOrder, units: shown } = props.of;
  const length = displayFactor('length', shown);
  const sizes = partOrder.flatMap((part) =>
    (['x', 'y', 'z'] as const).map((axis) => ({
      ref: sizeKey(part, axis),
      label: `${parts[part]!.name}, size along ${axis}, ${shown.length}`,
      factor: length,
    })),
  );
  const volume = { ref: 'volume', label: `volume of all parts, ${shown.length}³`, factor: length ** 3 };
  return [
    ...(moves('mass') ? [{ ref: 'mass', label: 'mass of all parts, kg', factor: 1 }] : []),
    ...[volume, ...sizes].filter((c) => moves(c.ref)),
    ...named.map((entry) => {
      const value = ledger.valueOfEntry(entry);
      const kind = value.ok ? kindOfPowers(value.quantity.powers) : null;
      const { units } = props.of;
      const unit = kind === 'length' ? `, ${units.length}` : kind === 'angle' ? `, ${units.angle}` : '';
      return { ref: entry.ref, label: `${entry.path.join('.')}${unit}`, factor: kind ? displayFactor(kind, units) : 1 };
    }),
  ];
});
const wanted = ref<string | null>(null);
const chosen = computed(() => choices.value.find((c) => c.ref === wanted.value) ?? choices.value[0]);

const option = computed(() => {
  void theme.shown;
  const own = chosen.value;
  if (!own) return null;
  const { dial, samples } = props.flex;
  const factor = displayFactor(dial.kind, props.of.units);
  const axis = {
    type: 'value' as const,
    scale: true,
    axisLine: { show: true, lineStyle: { color: ink.hairline } },
    splitLine: { lineStyle: { color: ink.hairline, opacity: 0.5 } },
    axisLabel: { color: ink.quiet, fontFamily: 'Spline Sans Mono', fontSize: 10 },
  };
  return {
    animation: false,
    grid: { left: 8, right: 12, top: 10, bottom: 4, containLabel: true },
    tooltip: { trigger: 'axis' as const, confine: true },
    xAxis: { ...axis, min: dial.min / factor, max: dial.max / factor },
    yAxis: axis,
    series: [
      {
        name: own.label,
        type: 'line' as const,
        lineStyle: { color: ink.line, width: 1.5 },
        symbolSize: 6,
        data: samples.flatMap((s) => {
          const value = s.numbers[own.ref];
          if (value === undefined) return [];
          const fails = s.faults.length > 0;
          const at = [Number((s.at / factor).toPrecision(9)), Number((value / own.factor).toPrecision(9))];
          return [
            { value: at, symbol: fails ? 'diamond' : 'circle', itemStyle: { color: fails ? ink.bad : ink.line } },
          ];
        }),
        markLine: {
          silent: true,
          symbol: 'none',
          label: { show: false },
          lineStyle: { color: ink.signal, type: 'solid' as const },
          data: [{ xAxis: dial.now / factor }],
        },
      },
    ],
  };
});
</script>

<template>
  <div class="mt-1 rounded-md border border-hairline bg-card p-2">
    <template v-if="option && chosen">
      <label class="flex items-center gap-2 text-xs text-quiet">
        {{ flex.dial.name }} moves
        <select
          :value="chosen.ref"
          class="max-w-72 rounded border border-hairline bg-field px-1 py-0.5 text-ink"
          @change="wanted = ($event.target as HTMLSelectElement).value"
        >
          <option v-for="c in choices" :key="c.ref" :value="c.ref">
            {{ c.label }}
          </option>
        </select>
        <span>· diamonds do not stand</span>
      </label>
      <!-- The chart takes the size of what it stands in. -->
      <div class="h-40">
        <VChart role="img" :aria-label="`${chosen.label} over ${flex.dial.name}`" :option="option" autoresize />
      </div>
    </template>
    <p v-else class="text-xs text-quiet">No number and no mass moves with this dial.</p>
  </div>
</template>
