<script setup lang="ts">
/** A line or two at the stage's corner: what the part weighs and measures, or where the pointer is. */
import { formatNumber, displayFactor, massOf, MATERIALS } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { sizesOf } from './shown-bodies.ts';
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
  return [
    material ? `${MATERIALS[material].label} · ${formatNumber(massOf(volume, material), 3)} kg` : 'no material',
    `${sizesOf(bodies)
      .map((s) => length(s, 2))
      .join(' × ')} ${d.units.length}`,
  ];
});
</script>

<template>
  <div class="number pointer-events-none text-xs leading-snug text-quiet" data-testid="caption">
    <p v-for="line in lines" :key="line">{{ line }}</p>
  </div>
</template>
