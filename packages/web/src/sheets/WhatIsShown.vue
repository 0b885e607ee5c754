<script setup lang="ts">
/** What a sheet shows: which variant, and how an assembly stands. */
import { changeSheet, type Sheet } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useSheets } from './sheet-store.ts';

const sheets = useSheets();
const session = useSession();
const design = useDesign();

const variants = computed(() => (design.design?.variants?.order ?? []).map((id) => ({ id, name: design.design!.variants!.rows[id]!.name }))); // prettier-ignore
const poses = computed(() => {
  const of = sheets.sheet?.of;
  const own = of && 'assembly' in of ? design.design?.assemblies?.[of.assembly] : undefined;
  return own ? Object.entries(own.poses ?? {}).map(([id, { name }]) => ({ id, name })) : null;
});

const APART = 'apart';
const standing = computed(() => {
  const shown = sheets.sheet?.shown;
  if (!shown) return '';
  return 'apart' in shown ? APART : `pose ${shown.pose}`;
});
const chosen = (event: Event) => (event.target as HTMLSelectElement).value;
function stand(value: string): void {
  const shown: Sheet['shown'] | null = value === '' ? null : value === APART ? { apart: true } : { pose: value.slice(5) }; // prettier-ignore
  sheets.edit(changeSheet(session.activeSheet!, { shown }));
}
const vary = (value: string): void => void sheets.edit(changeSheet(session.activeSheet!, { variant: value || null }));
</script>

<template>
  <section v-if="poses || variants.length > 0 || sheets.sheet?.variant" aria-label="What is shown">
    <h3 class="mb-1 font-semibold">What is shown</h3>
    <div class="grid grid-cols-2 gap-2">
      <label v-if="poses" class="text-quiet"
        >Stands
        <select class="field mt-1 w-full" :value="standing" @change="stand(chosen($event))">
          <option value="">at home</option>
          <option :value="APART">taken apart</option>
          <option v-for="{ id, name } in poses" :key="id" :value="`pose ${id}`">{{ name }}</option>
        </select>
      </label>
      <label v-if="variants.length > 0 || sheets.sheet?.variant" class="text-quiet"
        >Variant
        <select class="field mt-1 w-full" :value="sheets.sheet?.variant ?? ''" @change="vary(chosen($event))">
          <option value="">as the design is</option>
          <option v-for="{ id, name } in variants" :key="id" :value="id">{{ name }}</option>
        </select>
      </label>
    </div>
  </section>
</template>
