<script setup lang="ts">
/** Does it survive change? The dials over their ranges, and what must hold. */
import { writeFlexCsv } from '@helb/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { saveFile } from '../shell/save-file.ts';
import DialBar from './DialBar.vue';
import { useFlex } from './flex-store.ts';
import RequirementList from './RequirementList.vue';

/** Charts are large, and seldom looked at. */
const FlexChart = defineAsyncComponent(() => import('./FlexChart.vue'));

const design = useDesign();
const session = useSession();
const flex = useFlex();
const charted = ref<string | null>(null);

function writeCsv(): void {
  const of = flex.of!;
  const text = `\uFEFF${writeFlexCsv(of, flex.dials)}`;
  saveFile(new TextEncoder().encode(text), `${of.name} - flex.csv`, 'text/csv');
}

const dialCount = computed(() => design.ledger?.entries.filter((e) => e.dial).length ?? 0);
const standing = computed(() => {
  const { progress } = flex;
  if (progress)
    return progress.doing === 'pairs'
      ? `pairs at their corners, ${progress.done} of ${progress.total}`
      : progress.doing === 'as it is'
        ? 'computing it as it is'
        : `moving ${progress.doing}, ${progress.done + 1} of ${progress.total}`;
  if (!flex.of) return 'each dial is moved through its range alone, then pairs at their corners';
  if (flex.stale) return 'the design has changed since; compute again';
  return flex.whole ? 'each dial alone, then in pairs' : 'stopped before the end';
});
</script>

<template>
  <section aria-label="Flex" class="absolute inset-0 z-30 overflow-y-auto bg-paper px-6 py-4" @wheel.stop>
    <header class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
      <h2 class="text-lg font-semibold">Does it survive change?</h2>
      <span role="status" :class="flex.stale ? 'text-warn' : 'text-quiet'">{{ standing }}</span>
      <progress
        v-if="flex.progress"
        class="h-1.5 w-24"
        :value="flex.progress.done"
        :max="flex.progress.total ?? undefined"
      />
      <span class="flex-1" />
      <button v-if="flex.dials.length > 0 && !flex.progress" class="font-medium text-link underline" @click="writeCsv">
        Write CSV
      </button>
      <button v-if="flex.progress" class="font-medium text-link underline" @click="flex.stop">Stop</button>
      <button v-else-if="dialCount > 0" class="button-primary px-3 py-1" @click="flex.compute">
        {{ flex.of ? 'Compute again' : 'Move every dial' }}
      </button>
      <button class="font-medium text-link underline" @click="session.showFlex = false">Back to the stage</button>
    </header>
    <p v-if="flex.present.length > 0" class="mt-2 text-bad">
      {{ flex.present.length }} {{ flex.present.length === 1 ? 'thing does' : 'things do' }} not stand as the design is;
      the bars show what fails besides.
    </p>
    <p v-if="dialCount === 0" class="mt-3 max-w-xl text-quiet">
      This design has no dials yet. A dial is a dimension that drives the model: open a number’s menu in the ledger and
      choose “Make it a dial”.
    </p>
    <svg class="absolute h-0 w-0" aria-hidden="true">
      <defs>
        <pattern id="flex-fails" width="3" height="8" patternUnits="userSpaceOnUse" patternTransform="skewX(-20)">
          <rect width="3" height="8" class="fill-bad/10" />
          <line x1="0" x2="0" y1="0" y2="8" class="stroke-bad" stroke-width="0.7" />
        </pattern>
      </defs>
    </svg>
    <ul class="mt-4 flex flex-col gap-4">
      <DialBar
        v-for="(own, i) in flex.dials"
        :key="own.dial.ref"
        :flex="own"
        :done="!flex.progress || flex.progress.doing === 'pairs' || i < flex.dials.length - 1"
        :charted="charted === own.dial.ref"
        @chart="charted = charted === own.dial.ref ? null : own.dial.ref"
      >
        <FlexChart v-if="charted === own.dial.ref && flex.of" :flex="own" :of="flex.of" />
      </DialBar>
    </ul>
    <p v-for="sentence in flex.left" :key="sentence" class="mt-2 text-warn">{{ sentence }}</p>
    <RequirementList />
    <p class="mt-4 max-w-2xl text-xs text-quiet">
      A range is looked at in nine places and where it begins to fail, not everywhere. What stands here is geometry and
      what you require of it; strength is not computed.
    </p>
  </section>
</template>
