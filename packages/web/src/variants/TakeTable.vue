<script setup lang="ts">
/** What a pasted or read table holds, before it is taken: what is wrong, cell by cell, and what is sound. */
import { columnTitle, putVariants, type ReadTable } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';

const props = defineProps<{ table: ReadTable; from: string }>();
const emit = defineEmits<{ close: [] }>();
const design = useDesign();
const session = useSession();

const sound = computed(() => props.table.rows.filter((r) => r.sound));
const MOST_FAULTS = 100;

function take(): void {
  session.notice = design.edit(putVariants(props.table.columns, sound.value));
  if (session.notice === null) emit('close');
}
</script>

<template>
  <section aria-label="Table to take in" class="rounded-md border border-hairline bg-card p-3">
    <p>
      <span class="font-semibold">{{ table.rows.length }} {{ table.rows.length === 1 ? 'row' : 'rows' }}</span>
      {{ from }}, {{ table.columns.length }} columns<template v-if="table.columns.length > 0"
        >: {{ table.columns.map((key) => columnTitle(design.kept!, key)).join(', ') }}</template
      >.
    </p>
    <table v-if="table.faults.length > 0" class="mt-2 text-left" aria-label="Cells at fault">
      <thead class="text-xs text-quiet">
        <tr>
          <th class="pr-4 font-normal">line</th>
          <th class="pr-4 font-normal">column</th>
          <th class="pr-4 font-normal">written</th>
          <th class="font-normal">what is wrong</th>
        </tr>
      </thead>
      <tbody class="align-top">
        <tr v-for="(f, i) in table.faults.slice(0, MOST_FAULTS)" :key="i">
          <td class="number pr-4">{{ f.line }}</td>
          <td class="pr-4">{{ f.column }}</td>
          <td class="number max-w-48 truncate pr-4">{{ f.typed }}</td>
          <td class="text-bad">{{ f.message }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="table.faults.length > MOST_FAULTS" class="text-xs text-quiet">
      and {{ table.faults.length - MOST_FAULTS }} more
    </p>
    <p class="mt-3 flex items-center gap-2">
      <button class="button-primary py-1" :disabled="sound.length === 0" @click="take">
        Take {{ sound.length === table.rows.length ? 'all' : 'the' }} {{ sound.length }} sound
        {{ sound.length === 1 ? 'row' : 'rows' }}
      </button>
      <button class="button py-1" @click="emit('close')">Leave it</button>
      <span v-if="table.faults.length > 0" class="text-quiet"
        >Or mend the table where it came from and bring it again.</span
      >
    </p>
  </section>
</template>
