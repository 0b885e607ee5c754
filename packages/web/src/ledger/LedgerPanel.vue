<script setup lang="ts">
/** Every dimension of the design: the dials first, then the design's own, then each part's. */
import { addDimension, newId, type DimensionEntry } from '@helb/core';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import LedgerRow from './LedgerRow.vue';

const design = useDesign();
const session = useSession();
const query = ref('');

function matches(entry: DimensionEntry): boolean {
  const wanted = query.value.trim().toLowerCase();
  if (!wanted) return true;
  const ledger = design.ledger!;
  return [entry.path.join('.'), ledger.shown(entry), ledger.format(ledger.valueOfEntry(entry))].some((text) =>
    text.toLowerCase().includes(wanted),
  );
}

const groups = computed(() => {
  const ledger = design.ledger;
  const d = design.design;
  if (!ledger || !d) return [];
  const shown = ledger.entries.filter(matches);
  // The part being worked on stands nearest to the dials.
  const parts = [...d.partOrder].sort((a, b) => Number(b === session.activePart) - Number(a === session.activePart));
  return [
    { title: 'Dials', entries: shown.filter((e) => e.dial) },
    { title: 'Design', entries: shown.filter((e) => e.owner.level === 'design' && !e.dial) },
    ...parts.map((id) => ({
      title: d.parts[id]!.name,
      entries: shown.filter((e) => !e.dial && 'part' in e.owner && e.owner.part === id),
    })),
  ].filter((g) => g.entries.length > 0);
});
const usage = computed(() => {
  const counts = new Map<string, number>();
  const ledger = design.ledger;
  for (const e of ledger?.entries ?? [])
    for (const ref of ledger!.dependenciesOf(e)) counts.set(ref, (counts.get(ref) ?? 0) + 1);
  return counts;
});

function addDial(): void {
  const names = new Set(Object.values(design.design!.dimensions).map((d) => d.name));
  let n = 1;
  while (names.has(`dial_${n}`)) n++;
  session.notice = design.edit(addDimension(newId('d'), { name: `dial_${n}`, value: '10 mm', dial: {} }));
}
</script>

<template>
  <section aria-label="Ledger" class="flex min-h-0 flex-col border-r border-hairline bg-panel">
    <header class="flex items-baseline gap-2 px-3.5 pt-2.5 pb-2">
      <h2 class="font-semibold">Ledger</h2>
      <span class="text-xs text-quiet">{{ design.ledger?.entries.length ?? 0 }} dimensions</span>
      <span class="flex-1" />
      <button class="rounded px-1.5 text-xs font-medium text-link hover:bg-tray" @click="addDial">New dial</button>
    </header>
    <div class="px-3 pb-1">
      <input
        v-model="query"
        class="field"
        placeholder="Find a name or a value"
        aria-label="Find a name or a value"
        @keydown.stop
      />
    </div>
    <div class="min-h-0 flex-1 overflow-y-auto pb-3">
      <template v-for="group in groups" :key="group.title">
        <h3 class="px-3.5 pt-3 pb-1 text-xs font-medium text-quiet">{{ group.title }}</h3>
        <LedgerRow v-for="entry in group.entries" :key="entry.ref" :entry="entry" :used="usage.get(entry.ref) ?? 0" />
      </template>
      <p v-if="groups.length === 0" class="px-3.5 py-3 text-quiet">
        {{
          query
            ? 'No dimension has that name or value.'
            : 'Numbers appear here as they are made. A dial is a number you mean to change later.'
        }}
      </p>
    </div>
  </section>
</template>
