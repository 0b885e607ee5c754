<script setup lang="ts">
/** Numbers that all designs of the project may use; a change here reaches each when it is next open. */
import {
  addDimension,
  deleteDimension,
  editShared,
  Ledger,
  ledgerDesign,
  newId,
  renameDimension,
  setDimension,
  type Edit,
} from '@helb/core';
import { computed, ref } from 'vue';
import HeldInput from '../fields/HeldInput.vue';
import NameField from '../fields/NameField.vue';
import type { SharedOfProject } from './shared-of-project.ts';

const props = defineProps<{ shared: SharedOfProject; fixed?: boolean }>();
const { now, trouble, put } = props.shared;
const name = ref('');
const value = ref('');

const rows = computed(() => {
  const ledger = Ledger.of(ledgerDesign('Project', now.value.shared));
  return ledger.entries.map((entry) => ({
    id: entry.ref,
    name: entry.name,
    text: ledger.shown(entry),
    value: ledger.format(ledger.valueOfEntry(entry)),
    note: entry.note,
  }));
});

async function change(edit: Edit): Promise<boolean> {
  trouble.value = null;
  const edited = editShared(now.value.shared, edit);
  if ('message' in edited) {
    trouble.value = edited.message;
    return false;
  }
  return put(edited.shared);
}

function rename(id: string, to: string): string | null {
  void change(renameDimension(id, to));
  return null;
}

async function add(): Promise<void> {
  if (!(await change(addDimension(newId('d'), { name: name.value.trim(), value: value.value.trim() || '10 mm' }))))
    return;
  name.value = '';
  value.value = '';
}
</script>

<template>
  <section aria-label="Shared dimensions" class="mt-8">
    <h2 class="font-semibold">Dimensions shared by its designs</h2>
    <p class="text-quiet">
      Stock thicknesses, clearances: typed once here, used by name in every design of the project.
    </p>
    <ul
      v-if="rows.length > 0"
      class="mt-3 divide-y divide-hairline overflow-visible rounded-lg border border-hairline bg-panel"
    >
      <li v-for="row in rows" :key="row.id" class="flex items-center gap-3 px-4 py-1.5" :data-shared="row.name">
        <NameField
          class="w-40"
          :name="row.name"
          label="Name of the dimension"
          :rename="(to) => rename(row.id, to)"
          :fixed="fixed"
        />
        <HeldInput
          class="field number max-w-48"
          :readonly="fixed"
          :value="row.text"
          :aria-label="`Value of ${row.name}`"
          :set="(typed) => change(setDimension(row.id, typed))"
        />
        <span v-if="row.value !== row.text" class="number text-quiet">= {{ row.value }}</span>
        <span class="min-w-0 flex-1 truncate text-quiet">{{ row.note }}</span>
        <button
          v-if="!fixed"
          class="text-quiet hover:text-bad"
          :aria-label="`Delete ${row.name}`"
          @click="change(deleteDimension(row.id))"
        >
          delete
        </button>
      </li>
    </ul>
    <form v-if="!fixed" class="mt-3 flex gap-2" @submit.prevent="add">
      <input
        v-model="name"
        class="field max-w-40"
        placeholder="name"
        aria-label="Name of a new shared dimension"
        maxlength="40"
      />
      <input v-model="value" class="field number max-w-40" placeholder="10 mm" aria-label="Its value" />
      <button class="button">Add</button>
    </form>
  </section>
</template>
