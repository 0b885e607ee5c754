<script setup lang="ts">
/** The active part's steps, in order, as sentences. */
import { groupSteps, lentBy } from '@helb/core';
import { IconChevronDown, IconChevronRight } from '@tabler/icons-vue';
import { computed, ref, watch } from 'vue';
import { useBrief } from '../brief/brief-store.ts';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import GuideCard from '../guide/GuideCard.vue';
import NameField from '../fields/NameField.vue';
import { recipeRows, type RecipeRow } from './recipe-rows.ts';
import StepCard from './StepCard.vue';
import TriesCard from './TriesCard.vue';

/** With fewer steps nothing needs to be looked for. */
const FIND_FROM = 6;

const design = useDesign();
const brief = useBrief();
const session = useSession();
const evaluation = useEvaluation();

const part = computed(() => (session.activePart ? design.design?.parts[session.activePart] : undefined));
const views = computed(() => new Map(evaluation.parts.get(session.activePart ?? '')?.steps.map((s) => [s.id, s])));
/** What other parts take from this one. */
const lent = computed(() => (part.value ? lentBy(design.design!, session.activePart!) : []));
const wanted = ref('');
const rows = computed(() => (part.value ? recipeRows(part.value, wanted.value) : []));
const indexOf = computed(() => new Map(part.value?.stepOrder.map((id, i) => [id, i])));
/** While a sketch is open, or one stands at an earlier step, what comes after it is not shown on the stage. */
const openAt = computed(() => indexOf.value.get(session.sketching ?? session.standing ?? '') ?? -1);
const here = computed(() => {
  const at = indexOf.value.get(session.standing ?? '') ?? -1;
  return at >= 0 && at < indexOf.value.size - 1 ? session.standing : null;
});

/** Groups that are shown as one line, by their first step. */
const closed = ref(new Set<string>());
function toggle({ steps }: RecipeRow): void {
  const next = new Set(closed.value);
  if (!next.delete(steps[0]!)) next.add(steps[0]!);
  closed.value = next;
}
const isClosed = ({ group, steps }: RecipeRow) => group !== null && !wanted.value && closed.value.has(steps[0]!);
const failing = ({ steps }: RecipeRow) => steps.filter((id) => views.value.get(id)?.status === 'failed').length;

function regroup(steps: readonly string[], name: string | null): string | null {
  return (session.notice = design.edit(groupSteps(session.activePart!, steps, name)));
}

watch(
  () => session.activePart,
  () => (wanted.value = ''),
);
// It may have been undone or deleted by someone else.
watch(part, (now) => session.standing && !now?.steps[session.standing] && (session.standing = null));
</script>

<template>
  <section aria-label="Recipe" class="flex min-h-0 flex-col border-l border-hairline bg-panel">
    <header class="flex items-baseline gap-2 px-4 pt-2.5 pb-2">
      <h2 class="font-semibold">Recipe</h2>
      <span v-if="part" class="min-w-0 flex-1 truncate text-xs text-quiet"
        >{{ part.name }}, {{ part.stepOrder.length }} step{{ part.stepOrder.length === 1 ? '' : 's' }}</span
      >
      <button
        v-if="part"
        class="text-xs"
        :class="brief.shown ? 'text-signal' : 'text-link'"
        :aria-pressed="brief.shown"
        @click="brief.shown = !brief.shown"
      >
        Brief
        <span v-if="brief.verdicts.size > 0" class="number">{{ brief.right }}/{{ brief.verdicts.size }}</span>
      </button>
      <input
        v-if="part && (part.stepOrder.length >= FIND_FROM || wanted)"
        v-model="wanted"
        type="search"
        class="w-28 rounded border border-hairline bg-field px-1.5 py-0.5 text-xs"
        placeholder="Find a step"
        aria-label="Find a step by its name, kind or number"
        @keydown.escape.stop="wanted = ''"
      />
    </header>
    <GuideCard />
    <TriesCard v-if="!session.inSketch" />
    <ol v-if="part" class="flex min-h-0 flex-1 flex-col gap-2 overflow-y-auto px-3 pb-3">
      <li v-for="row in rows" :key="row.steps[0]" class="contents">
        <div v-if="row.group !== null" class="flex items-baseline gap-1 text-xs" :data-group="row.group">
          <button
            class="grid h-6 w-6 shrink-0 place-items-center self-center rounded text-quiet hover:bg-tray hover:text-ink"
            :aria-expanded="!isClosed(row)"
            :aria-label="`${isClosed(row) ? 'Show' : 'Hide'} the steps of ${row.group}`"
            @click="toggle(row)"
          >
            <component :is="isClosed(row) ? IconChevronRight : IconChevronDown" :size="14" />
          </button>
          <NameField :name="row.group" label="Name of the group" :rename="(name) => regroup(row.steps, name || null)" />
          <span class="flex-1 text-quiet">{{ row.steps.length }} step{{ row.steps.length === 1 ? '' : 's' }}</span>
          <span v-if="failing(row) > 0" class="text-bad">{{ failing(row) }} failed</span>
          <button class="text-quiet hover:text-ink" @click="regroup(row.steps, null)">Ungroup</button>
        </div>
        <ol
          v-if="!isClosed(row)"
          class="flex flex-col gap-2"
          :class="row.group === null ? '' : 'ml-2.5 border-l border-hairline pl-2.5'"
        >
          <template v-for="id in row.steps" :key="id">
            <StepCard
              :part="session.activePart!"
              :step-id="id"
              :step="part.steps[id]!"
              :index="indexOf.get(id)!"
              :last="indexOf.get(id) === part.stepOrder.length - 1"
              :view="views.get(id)"
              :later="openAt >= 0 && indexOf.get(id)! > openAt"
            />
            <li v-if="here === id" class="flex items-center gap-2 text-xs text-signal" data-testid="standing">
              <span class="h-px flex-1 bg-signal" />
              new steps go here
              <button class="font-medium underline" @click="session.standing = null">Go to the end</button>
              <span class="h-px flex-1 bg-signal" />
            </li>
          </template>
        </ol>
      </li>
      <li v-if="wanted && rows.length === 0" class="px-1 text-quiet">No step has “{{ wanted }}” in it.</li>
      <li v-if="!here" class="rounded-lg border border-dashed border-hairline px-3 py-2 text-center text-quiet">
        {{
          part.stepOrder.length === 0
            ? 'Start with a sketch: click a plane’s tab on the stage'
            : 'Add a step: pick something on the stage'
        }}
      </li>
    </ol>
    <p v-if="lent.length > 0" class="border-t border-hairline px-4 py-2 text-xs text-quiet" data-testid="lent">
      Borrowed from here:
      <template v-for="(l, i) in lent" :key="`${l.part} ${l.step}`"
        >{{ i > 0 ? '; ' : '' }}{{ l.sketch ? (part?.steps[l.sketch]?.name ?? 'a deleted sketch') : 'its bodies' }} by
        <button class="text-link underline" @click="session.openPart(l.part)">
          {{ design.design?.parts[l.part]?.name }}, {{ design.design?.parts[l.part]?.steps[l.step]?.name }}
        </button></template
      >
    </p>
    <p v-else-if="!part" class="px-4 text-quiet">Pick a part in the tray to read its recipe.</p>
  </section>
</template>
