<script setup lang="ts">
/** A weight to be read, over the stage’s corner; the unit of its moments is chosen here. */
import { TURNING, type Turning, type WeightRow } from './weight-rows.ts';

defineProps<{ title: string; rows: readonly WeightRow[] | null; trouble: string | null }>();
const turning = defineModel<Turning>('turning', { required: true });
const emit = defineEmits<{ close: [] }>();
</script>

<template>
  <section
    aria-label="Weight"
    class="absolute bottom-3 left-3 z-10 max-w-[75%] rounded-lg border border-hairline bg-panel/95 px-3 py-2 text-[13px]"
    @pointerdown.stop
    @pointerup.stop
    @keydown.escape.stop="emit('close')"
  >
    <header class="flex items-center gap-3">
      <h3 class="flex-1 font-semibold">{{ title }}</h3>
      <select v-model="turning" class="rounded border border-hairline bg-field px-1" aria-label="Unit of moments">
        <option v-for="(_, unit) in TURNING" :key="unit">{{ unit }}</option>
      </select>
      <button class="font-medium text-link underline" @click="emit('close')">Close</button>
    </header>
    <p v-if="trouble" role="alert" class="text-bad">{{ trouble }}</p>
    <p v-else-if="!rows" role="status" class="text-quiet">Weighing</p>
    <table v-else class="mt-1">
      <tbody>
        <tr v-for="row in rows" :key="row.label">
          <th scope="row" class="pr-4 text-left font-normal text-quiet">{{ row.label }}</th>
          <td class="number select-text whitespace-nowrap">{{ row.text }}</td>
        </tr>
      </tbody>
    </table>
    <p class="mt-1 text-xs text-quiet">Geometry and mass only; Helb does not reckon strength.</p>
  </section>
</template>
