<script setup lang="ts">
/** What the picked parts, or all, weigh where they stand, from the picked frame. */
import { displayFactor, formatNumber, massOf, type Weight } from '@helb/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { centerRow, FREE_FACES, momentRows, shownNumber, type Turning, type WeightRow } from '../stage/weight-rows.ts';
import WeightTable from '../stage/WeightTable.vue';
import { useBulkOfPart } from './bulk-of-part.ts';
import { useTogether } from './together-store.ts';

const design = useDesign();
const evaluation = useEvaluation();
const together = useTogether();
const bulkOf = useBulkOfPart();
const turning = ref<Turning>('kg·mm²');
const found = shallowRef<{ weight: Weight; exact: boolean } | null>(null);
const trouble = ref<string | null>(null);

const members = computed(() => (together.it?.members ?? []).filter((m) => together.weighing!.instances?.has(m.path[0]!) ?? true)); // prettier-ignore
const materialOf = (m: (typeof members.value)[number]) => m.instance.material ?? design.design?.parts[m.part]?.material;
const without = computed(() => [...new Set(members.value.flatMap((m) => (materialOf(m) ? [] : [m.name])))]);
const placed = computed(() =>
  members.value.flatMap((m) => {
    const [material, pose] = [materialOf(m), together.poses.get(m.key)];
    return material && pose ? [{ part: m.part, pose, density: massOf(1, material) }] : [];
  }),
);

let asked = 0;
watch(
  placed,
  async (now) => {
    const own = ++asked;
    trouble.value = null;
    try {
      const weight = now.length > 0 ? await evaluation.on(design.design!).weighTogether(now) : null;
      if (own !== asked) return;
      found.value = weight;
      if (!weight) trouble.value = 'Nothing here has a material; choose one in the tray.';
    } catch {
      if (own === asked) trouble.value = 'The kernel could not weigh this; change it, or try again.';
    }
  },
  { immediate: true },
);

const rows = computed<WeightRow[] | null>(() => {
  if (!found.value || !design.design) return null;
  const { units } = design.design;
  const { weight, exact } = found.value;
  const { from } = together.weighing!;
  const per = displayFactor('length', units);
  const volume = members.value.reduce((sum, m) => sum + (bulkOf(m.part)?.volume ?? 0), 0);
  return [
    {
      label: `Mass, kg, of ${placed.value.length === 1 ? 'one part' : `${placed.value.length} parts`}`,
      text: formatNumber(weight.volume, 5),
    },
    ...(without.value.length > 0 ? [{ label: 'Left out, without a material', text: without.value.slice(0, 4).join(', ') }] : []), // prettier-ignore
    { label: `Volume of all, ${units.length}³`, text: shownNumber(volume / per ** 3, units) },
    centerRow(weight, from, units),
    ...momentRows(weight, from, turning.value),
    ...(exact ? [] : [FREE_FACES]),
  ];
});
</script>

<template>
  <!-- Above what lies over the lower stage. -->
  <WeightTable
    class="top-14 bottom-auto!"
    v-model:turning="turning"
    :title="together.weighing!.instances ? 'Weight of the picked parts' : 'Weight'"
    :rows="rows"
    :trouble="trouble"
    @close="together.weighing = null"
  />
</template>
