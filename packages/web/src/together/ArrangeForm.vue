<script setup lang="ts">
/** A row or a ring of the picked part: how many, how far apart, along or about which axis. */
import { ref } from 'vue';
import { useSession } from '../design/session.ts';
import { useArranging, type Arrangement } from './arranging.ts';
import { useTogether } from './together-store.ts';

const props = defineProps<{ instance: string }>();
const together = useTogether();
const session = useSession();
const { arrange } = useArranging();
const kind = ref<Arrangement['kind']>('row');
const count = ref(3);
const step = ref('20 mm');
const axis = ref<Arrangement['axis']>('x');

function change(): void {
  step.value = kind.value === 'row' ? '20 mm' : '60 deg';
  axis.value = kind.value === 'row' ? 'x' : 'z';
}

function make(): void {
  const n = Math.round(count.value);
  if (!(n >= 2 && n <= 200)) return void (session.notice = 'Between 2 and 200 can be arranged.');
  arrange(props.instance, { kind: kind.value, count: n, step: step.value, axis: axis.value });
  if (session.notice === null) together.arranging = null;
}
</script>

<template>
  <form
    class="flex flex-wrap items-center gap-2 rounded-lg border border-signal bg-card px-3 py-2 text-xs"
    @submit.prevent="make"
    @keydown.escape.stop="together.arranging = null"
  >
    <!-- prettier-ignore -->
    <select v-model="kind" class="rounded border border-hairline bg-field px-1 py-0.5" aria-label="How they stand" @change="change">
      <option value="row">In a row</option>
      <option value="ring">In a ring</option>
    </select>
    of
    <input
      v-model.number="count"
      type="number"
      min="2"
      max="200"
      class="number w-14 rounded border border-hairline bg-field px-1"
      aria-label="How many"
    />
    <!-- prettier-ignore -->
    by
    <input
      v-model="step"
      class="number w-24 rounded border border-hairline bg-field px-1"
      aria-label="Step from one to the next"
    />
    {{ kind === 'row' ? 'along' : 'about' }}
    <select v-model="axis" class="rounded border border-hairline bg-field px-1 py-0.5" aria-label="Axis">
      <option value="x">x</option>
      <option value="y">y</option>
      <option value="z">z</option>
    </select>
    <button class="button-primary py-0.5">Arrange</button>
    <button type="button" class="button py-0.5" @click="together.arranging = null">Drop</button>
  </form>
</template>
