<script setup lang="ts">
/** A scale: one of the standard ones, or none, as it fits. */
import { SCALES } from '@helb/core';

type Scale = [number, number];
defineProps<{ value: Readonly<Scale> | undefined }>();
const emit = defineEmits<{ set: [scale: Scale | null] }>();

const AS_IT_FITS = 'auto';
function read(event: Event): void {
  const { value } = event.target as HTMLSelectElement;
  emit('set', value === AS_IT_FITS ? null : (value.split(':').map(Number) as Scale));
}
</script>

<template>
  <label class="text-quiet"
    >Scale
    <select class="field mt-1 w-full" :value="value?.join(':') ?? AS_IT_FITS" @change="read">
      <option :value="AS_IT_FITS">as it fits</option>
      <option v-for="[on, truth] in SCALES" :key="`${on}:${truth}`" :value="`${on}:${truth}`">
        {{ on }} : {{ truth }}
      </option>
    </select>
  </label>
</template>
