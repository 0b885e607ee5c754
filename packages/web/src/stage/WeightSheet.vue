<script setup lang="ts">
/** What the part, or a picked body of it, weighs, where its centre lies, and how it resists being turned. */
import {
  displayFactor,
  formatNumber,
  HERE,
  massOf,
  MATERIALS,
  standingWeight,
  type BodyView,
  type Weight,
} from '@helb/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { sizesOf } from './shown-bodies.ts';
import { centerRow, FREE_FACES, momentRows, shownNumber, type Turning, type WeightRow } from './weight-rows.ts';
import WeightTable from './WeightTable.vue';

const props = defineProps<{ part: string; bodies: readonly BodyView[] }>();
const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();

const turning = ref<Turning>('kg·mm²');
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
const rows = computed<WeightRow[] | null>(() => {
  const d = design.design;
  if (!d || !found.value) return null;
  const { units } = d;
  const { weight, exact } = found.value;
  const per = displayFactor('length', units);
  const { from } = session.weighing!;
  const area = own.value.reduce((sum, b) => sum + b.faces.reduce((all, f) => all + f.area, 0), 0);
  const lines = [
    { label: `Volume, ${units.length}³`, text: shownNumber(weight.volume / per ** 3, units) },
    { label: `Area, ${units.length}²`, text: shownNumber(area / per ** 2, units) },
    {
      label: `Box, ${units.length}`,
      text: sizesOf(own.value)
        .map((x) => shownNumber(x / per, units))
        .join(' × '),
    },
    centerRow(weight, from, units),
  ];
  if (!material.value) return [{ label: 'Mass', text: 'no material; choose one in the tray' }, ...lines];
  const kilograms = standingWeight(weight, HERE, massOf(1, material.value));
  return [
    { label: `Mass, kg, of ${MATERIALS[material.value].label}`, text: formatNumber(kilograms.volume, 5) },
    ...lines,
    ...momentRows(kilograms, from, turning.value),
    ...(exact ? [] : [FREE_FACES]),
  ];
});
</script>

<template>
  <WeightTable
    v-model:turning="turning"
    :title="`Weight${session.weighing!.body === null ? '' : ' of the picked body'}`"
    :rows="rows"
    :trouble="trouble"
    @close="session.weighing = null"
  />
</template>
