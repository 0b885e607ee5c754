<script setup lang="ts">
/** A length that is kept as a plain number: typed with units, sums or names of the design, shown in its unit. */
import { displayFactor, formatNumber } from '@helb/core';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';

const props = defineProps<{
  label: string;
  /** mm */
  value: number;
  least: number;
  most: number;
}>();
const emit = defineEmits<{ set: [mm: number] }>();
const design = useDesign();

const units = computed(() => design.design!.units);
const shown = computed(() => `${formatNumber(props.value / displayFactor('length', units.value), units.value.decimals)} ${units.value.length}`); // prettier-ignore
const fault = ref<string | null>(null);

function read(event: Event): void {
  const input = event.target as HTMLInputElement;
  const value = design.ledger!.read(input.value, {}, 'length');
  fault.value = null;
  if (!value.ok) fault.value = value.message;
  else if (value.quantity.value < props.least || value.quantity.value > props.most)
    fault.value = `${props.label} is from ${inUnit(props.least)} to ${inUnit(props.most)}.`;
  else {
    emit('set', value.quantity.value);
    input.value = shown.value;
  }
}
const inUnit = (mm: number) => `${formatNumber(mm / displayFactor('length', units.value), 2)} ${units.value.length}`;
</script>

<template>
  <label class="text-quiet"
    >{{ label }}
    <input class="field number mt-1 w-full" :value="shown" :aria-invalid="fault !== null" @change="read" />
    <span v-if="fault" role="alert" class="block text-xs text-bad">{{ fault }}</span>
  </label>
</template>
