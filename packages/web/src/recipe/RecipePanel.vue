<script setup lang="ts">
/** The active part's steps, in order, as sentences. */
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import StepCard from './StepCard.vue';
import TriesCard from './TriesCard.vue';

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();

const part = computed(() => (session.activePart ? design.design?.parts[session.activePart] : undefined));
const views = computed(() => new Map(evaluation.parts.get(session.activePart ?? '')?.steps.map((s) => [s.id, s])));
/** While a sketch is open, what comes after it is not shown on the stage. */
const openAt = computed(() => (session.sketching ? (part.value?.stepOrder.indexOf(session.sketching) ?? -1) : -1));
</script>

<template>
  <section aria-label="Recipe" class="flex min-h-0 flex-col border-l border-hairline bg-panel">
    <header class="flex items-baseline gap-2 px-4 pt-2.5 pb-2">
      <h2 class="font-semibold">Recipe</h2>
      <span v-if="part" class="truncate text-xs text-quiet"
        >{{ part.name }}, {{ part.stepOrder.length }} step{{ part.stepOrder.length === 1 ? '' : 's' }}</span
      >
    </header>
    <TriesCard v-if="!session.inSketch" />
    <ol v-if="part" class="flex min-h-0 flex-1 flex-col gap-2 overflow-y-auto px-3 pb-3">
      <StepCard
        v-for="(id, i) in part.stepOrder"
        :key="id"
        :part="session.activePart!"
        :step-id="id"
        :step="part.steps[id]!"
        :index="i"
        :last="i === part.stepOrder.length - 1"
        :view="views.get(id)"
        :later="openAt >= 0 && i > openAt"
      />
      <li class="rounded-lg border border-dashed border-hairline px-3 py-2 text-center text-quiet">
        {{
          part.stepOrder.length === 0
            ? 'Start with a sketch: click a plane’s tab on the stage'
            : 'Add a step: pick something on the stage'
        }}
      </li>
    </ol>
    <p v-else class="px-4 text-quiet">Pick a part in the tray to read its recipe.</p>
  </section>
</template>
