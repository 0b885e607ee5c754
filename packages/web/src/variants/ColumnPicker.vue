<script setup lang="ts">
/** What a new column of the variants sets. */
import type { ColumnKey } from '@helb/core';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { useDesign } from '../design/design-store.ts';

const emit = defineEmits<{ close: []; choose: [key: ColumnKey] }>();
const design = useDesign();
const query = ref('');
const MOST = 40;
const field = useTemplateRef<HTMLInputElement>('field');
onMounted(() => field.value?.focus());

interface Choice {
  readonly key: ColumnKey;
  readonly title: string;
  readonly now: string;
}

/** Dials first: they are what variants are mostly made of. */
const all = computed<Choice[]>(() => {
  const { kept: d, ledger } = design;
  if (!d || !ledger) return [];
  const numbers = [...ledger.entries]
    .filter((e) => !e.measured && e.owner.level !== 'project')
    .sort((a, b) => Number(b.dial !== null) - Number(a.dial !== null))
    .map((e) => ({ key: `dimension:${e.ref}`, title: e.path.join('.'), now: ledger.shown(e) }));
  const parts = d.partOrder.map((id) => ({ id, ...d.parts[id]! }));
  return [
    ...numbers,
    ...parts.map((p) => ({ key: `material:${p.id}`, title: `material of ${p.name}`, now: p.material ?? 'none' })),
    ...parts.flatMap((p) =>
      p.stepOrder.map((s) => ({
        key: `step:${s}`,
        title: `${p.name}: ${p.steps[s]!.name}`,
        now: p.steps[s]!.suppressed ? 'out' : 'in',
      })),
    ),
  ].filter((c) => !d.variants?.columns.includes(c.key));
});
const found = computed(() => {
  const wanted = query.value.trim().toLowerCase();
  return all.value.filter((c) => c.title.toLowerCase().includes(wanted)).slice(0, MOST);
});
</script>

<template>
  <section aria-label="New column" class="mb-2 rounded-md border border-hairline bg-card p-2" @keydown.stop>
    <div class="flex items-center gap-2">
      <input
        v-model="query"
        ref="field"
        class="field max-w-64"
        placeholder="a number, a step or a material"
        aria-label="What the column sets"
        @keydown.escape="emit('close')"
        @keydown.enter="found[0] && emit('choose', found[0].key)"
      />
      <button class="button px-2 py-0.5" @click="emit('close')">Done</button>
    </div>
    <ul class="mt-1 grid max-h-28 grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-x-4 overflow-y-auto">
      <li v-for="c in found" :key="c.key">
        <button
          class="flex min-h-6 w-full items-baseline gap-2 rounded px-1 text-left hover:bg-signal-soft"
          @click="emit('choose', c.key)"
        >
          <span class="min-w-0 flex-1 truncate">{{ c.title }}</span>
          <span class="number max-w-24 truncate text-xs text-quiet">{{ c.now }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>
