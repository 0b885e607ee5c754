<script setup lang="ts">
/** A line or two at the stage's corner: what the part weighs and measures, or where the pointer is. */
import { formatNumber, displayFactor, massOf, MATERIALS } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import type { BodyView } from '@helb/core';

const props = defineProps<{
  part: string | null;
  /** Those on the stage. */
  bodies: readonly BodyView[];
  position: readonly [number, number] | null;
}>();
const design = useDesign();

/** Two decimals, and no minus before nothing. */
const toFixed = (n: number) => (Math.abs(n) < 0.005 ? 0 : n).toFixed(2);

const lines = computed<string[]>(() => {
  const d = design.design;
  if (!d) return [];
  const factor = displayFactor('length', d.units);
  const length = (mm: number, decimals: number) => formatNumber(mm / factor, decimals);
  if (props.position) {
    return [
      `${props.position.map((n) => toFixed(n / factor)).join(', ')} ${d.units.length}`,
      'pencil is loose, ink is settled',
    ];
  }
  const { bodies, part } = props;
  if (part === null || bodies.length === 0) return [];
  const material = d.parts[part]?.material;
  const volume = bodies.reduce((sum, b) => sum + b.volume, 0);
  const size = [0, 1, 2].map(
    (i) => Math.max(...bodies.map((b) => b.box.max[i]!)) - Math.min(...bodies.map((b) => b.box.min[i]!)),
  );
  return [
    material ? `${MATERIALS[material].label} · ${formatNumber(massOf(volume, material), 3)} kg` : 'no material',
    `${size.map((s) => length(s, 2)).join(' × ')} ${d.units.length}`,
  ];
});
</script>

<template>
  <div class="number pointer-events-none text-xs leading-snug text-quiet" data-testid="caption">
    <p v-for="line in lines" :key="line">{{ line }}</p>
  </div>
</template>
