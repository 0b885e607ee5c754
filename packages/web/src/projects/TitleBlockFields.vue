<script setup lang="ts">
/** What stands in the title block of every sheet of the project’s designs, unless a sheet says it itself. */
import { TOLERANCES, withTitleField, type TitleField } from '@helb/core';
import { ref } from 'vue';
import PlainField from '../fields/PlainField.vue';
import type { SharedOfProject } from './shared-of-project.ts';

const props = defineProps<{ shared: SharedOfProject; fixed?: boolean }>();
const { now, put } = props.shared;
const kept = ref(false);

const FIELDS: readonly (readonly [TitleField, string, string])[] = [
  ['firm', 'Firm', ''],
  ['drawn', 'Drawn by', ''],
  ['checked', 'Checked by', ''],
  ['tolerances', 'Tolerances', TOLERANCES],
];
async function set(field: TitleField, text: string): Promise<void> {
  kept.value = await put(withTitleField(now.value.shared, field, text));
}
</script>

<template>
  <section aria-label="Title block" class="mt-8">
    <h2 class="font-semibold">Title block of its sheets</h2>
    <p class="text-quiet">Stands on every sheet of the project’s designs that does not say it itself.</p>
    <div class="mt-3 grid max-w-xl grid-cols-2 gap-3">
      <PlainField
        v-for="[field, label, example] in FIELDS"
        :key="field"
        :label="label"
        :value="now.shared.titleBlock?.[field] ?? ''"
        :placeholder="example"
        :fixed="fixed"
        @set="set(field, $event)"
      />
    </div>
    <p v-if="kept" role="status" class="mt-2 text-quiet">Kept; open designs take it over.</p>
  </section>
</template>
