<script setup lang="ts">
/** A dial over its range: where it stands, where it does not and why, and the present value. */
import { describeDimensions, dialText, faultSentence, rangeToKeep, shownValue, type DialFlex } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { stretchesOf } from './stretches.ts';
import { useShowing } from './showing.ts';

const props = defineProps<{ flex: DialFlex; done: boolean; charted: boolean }>();
const emit = defineEmits<{ chart: [] }>();
const design = useDesign();
const session = useSession();
const { show } = useShowing();

const dial = computed(() => props.flex.dial);
const units = computed(() => design.kept!.units);
const shown = (value: number) => shownValue(dial.value, value, units.value);
const share = (value: number) => (100 * (value - dial.value.min)) / (dial.value.max - dial.value.min);
const stretches = computed(() =>
  stretchesOf(props.flex).map((s) => ({ ...s, x: share(s.from), width: share(s.to) - share(s.from) })),
);
const limits = computed(() => {
  const { below, above } = props.flex;
  return [...(below ? [{ limit: below, word: 'up to' }] : []), ...(above ? [{ limit: above, word: 'from' }] : [])].map(
    ({ limit, word }) => ({
      at: `${word} ${shown(limit.fails)}`,
      says: faultSentence(design.kept!, limit.faults[0]!),
      show: () => show(limit.faults[0]!, [[dial.value.ref, dialText(dial.value, limit.fails)]]),
    }),
  );
});
const kept = computed(() => {
  const range = rangeToKeep(props.flex, units.value);
  const { min, max, proposed } = dial.value;
  if (!range || !props.done || (!proposed && range.min === min && range.max === max)) return null;
  return {
    label: `Keep ${shown(range.min)} to ${shown(range.max)}`,
    take() {
      const own = design.ledger!.index.byReference(dial.value.ref)?.dial ?? {};
      const [least, most] = [range.min, range.max].map((at) => dialText(dial.value, at));
      session.notice = design.edit(describeDimensions([dial.value.ref], { dial: { ...own, min: least, max: most } }));
    },
  };
});
</script>

<template>
  <li class="grid grid-cols-[8.5rem_minmax(0,1fr)] gap-x-3" :data-dial="dial.name">
    <div class="min-w-0">
      <p class="truncate font-semibold" :title="dial.name">{{ dial.name }}</p>
      <p class="number text-xs text-quiet">{{ shown(dial.min) }} to {{ shown(dial.max) }}</p>
      <p v-if="dial.proposed" class="text-xs text-quiet">no range yet, tried</p>
    </div>
    <div class="min-w-0">
      <svg
        class="block h-6 w-full overflow-visible"
        preserveAspectRatio="none"
        viewBox="0 0 100 24"
        role="img"
        :aria-label="`${dial.name} over its range`"
      >
        <rect width="100" height="24" class="fill-tray" />
        <rect
          v-for="s in stretches"
          :key="s.from"
          :x="s.x"
          :width="s.width"
          y="0"
          height="24"
          vector-effect="non-scaling-stroke"
          :class="s.stands ? 'fill-good/15 stroke-good' : 'stroke-bad'"
          :fill="s.stands ? undefined : 'url(#flex-fails)'"
        />
        <line
          :x1="share(dial.now)"
          :x2="share(dial.now)"
          y1="-3"
          y2="27"
          vector-effect="non-scaling-stroke"
          class="stroke-signal"
          stroke-width="2.5"
        />
      </svg>
      <p class="mt-1 text-[13px]">
        <template v-for="limit in limits" :key="limit.at">
          <span class="text-bad"
            ><span class="number">{{ limit.at }}</span
            >: {{ limit.says }}</span
          >
          <button class="mx-1.5 font-medium text-link underline" @click="limit.show">Show</button>
        </template>
        <span v-if="limits.length === 0" class="text-quiet"
          >{{ done ? 'stands from end to end' : 'stands so far' }}, at {{ flex.samples.length }} values</span
        >
        <button v-if="kept" class="ml-1.5 font-medium text-link underline" @click="kept.take">{{ kept.label }}</button>
        <button class="ml-2 text-link underline" :aria-expanded="charted" @click="emit('chart')">
          {{ charted ? 'Put the chart away' : 'Chart' }}
        </button>
      </p>
      <slot />
    </div>
  </li>
</template>
