<script setup lang="ts">
/** What is being tried, with what it changes: before and after. */
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useTrial } from './trial-store.ts';
import { useWatched } from './watched.ts';

const design = useDesign();
const trial = useTrial();
const evaluation = useEvaluation();
const watched = useWatched();

const tried = computed(() => {
  const ledger = design.ledger;
  if (!ledger || !design.kept) return [];
  return [...trial.values.keys()].map((ref) => {
    const entry = ledger.index.byReference(ref);
    return { ref, name: entry?.path.slice(-2).join('.') ?? ref };
  });
});
const looked = computed(() => (trial.variant ? design.kept?.variants?.rows[trial.variant]?.name : undefined));
const percent = (p: number | null) =>
  p === null
    ? undefined
    : `${p > 0 ? '+' : '−'}${Math.abs(p) < 10 ? Math.abs(p).toFixed(1) : Math.round(Math.abs(p))} %`;
</script>

<template>
  <section
    v-if="trial.on || trial.variant"
    aria-label="Trial"
    class="border-t-2 border-signal bg-card px-3.5 py-2 text-[13px]"
  >
    <div class="flex items-baseline gap-2">
      <h3 class="font-semibold">{{ looked ? `Looking at ${looked}` : 'Trying' }}</h3>
      <span v-if="evaluation.busy" class="text-xs text-quiet">computing</span>
    </div>
    <ul v-if="tried.length > 0" class="mt-0.5 flex flex-wrap gap-1">
      <li v-for="t in tried" :key="t.ref" class="flex items-center rounded bg-signal-soft pl-1.5 text-ink">
        <span class="number">{{ t.name }}</span>
        <button class="h-6 w-6 hover:text-ink" :aria-label="`Let go of ${t.name}`" @click="trial.letGo(t.ref)">
          ×
        </button>
      </li>
    </ul>
    <table class="mt-1 w-full">
      <thead class="text-left text-xs text-quiet">
        <tr>
          <th class="font-normal">watched</th>
          <th class="text-right font-normal">before</th>
          <th class="pl-2 text-right font-normal">after</th>
        </tr>
      </thead>
      <tbody class="align-top">
        <template v-for="row in watched" :key="row.key">
          <tr v-if="row.before === row.after" class="text-quiet">
            <td class="pr-1">{{ row.label }}</td>
            <td colspan="2" class="number text-right text-xs leading-5">{{ row.after }}</td>
          </tr>
          <template v-else>
            <tr :title="percent(row.percent)">
              <td class="pr-1 font-medium" :colspan="row.before.length + row.after.length > 22 ? 3 : 1">
                {{ row.label }}
              </td>
              <template v-if="row.before.length + row.after.length <= 22">
                <td class="number text-right text-xs leading-5 whitespace-nowrap text-quiet">{{ row.before }}</td>
                <td class="number pl-2 text-right text-xs leading-5 whitespace-nowrap text-signal">{{ row.after }}</td>
              </template>
            </tr>
            <tr v-if="row.before.length + row.after.length > 22">
              <td colspan="3" class="number text-right text-xs leading-4">
                <span class="text-quiet">{{ row.before }}</span><br /><span class="text-signal">{{ row.after }}</span>
              </td>
            </tr>
          </template>
        </template>
      </tbody>
    </table>
    <div class="mt-2 flex gap-2">
      <template v-if="trial.variant">
        <button class="button py-1" @click="trial.look(null)">
          Back to the design <kbd class="text-[11px] text-quiet">Esc</kbd>
        </button>
      </template>
      <template v-else-if="trial.holds">
        <button class="button-primary py-1" @click="trial.keep">Keep <kbd class="text-[11px]">Enter</kbd></button>
        <button class="button py-1" @click="trial.drop">Drop <kbd class="text-[11px] text-quiet">Esc</kbd></button>
      </template>
      <p v-else class="text-xs text-quiet">Enter keeps what is typed, Escape drops it.</p>
    </div>
  </section>
</template>
