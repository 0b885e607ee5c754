<script setup lang="ts">
/** What fails first as the dials move, nearest to the present values first, with what to do. */
import { dialText, expressionOf, faultSentence, setDimension, shownValue, type Fault, type Tried } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useFlex } from './flex-store.ts';
import { useShowing } from './showing.ts';

const design = useDesign();
const session = useSession();
const flex = useFlex();
const { show } = useShowing();

const units = computed(() => design.kept!.units);

interface Found {
  readonly key: string;
  readonly at: string;
  readonly faults: readonly Fault[];
  readonly tried: Tried;
  /** How far from the present value, as a share of the range. */
  readonly away: number;
}
const alone = computed(() =>
  flex.dials
    .flatMap(({ dial, below, above }): Found[] =>
      [below, above].flatMap((limit) =>
        limit
          ? [
              {
                key: `${dial.ref} ${limit.fails}`,
                at: `${dial.name} at ${shownValue(dial, limit.fails, units.value)}`,
                faults: limit.faults,
                tried: [[dial.ref, dialText(dial, limit.fails)]],
                away: Math.abs(limit.fails - dial.now) / (dial.max - dial.min),
              },
            ]
          : [],
      ),
    )
    .sort((a, b) => a.away - b.away),
);
const inPairs = computed(() =>
  flex.pairs.map(({ dials, at, faults }): Found => {
    const of = dials.map((ref) => flex.dials.find((f) => f.dial.ref === ref)!.dial);
    return {
      key: `${dials.join()} ${at.join()}`,
      at: of.map((d, i) => `${d.name} ${shownValue(d, at[i]!, units.value)}`).join(' with '),
      faults,
      tried: of.map((d, i) => [d.ref, dialText(d, at[i]!)]),
      away: 1,
    };
  }),
);

function cureOf({ step, cure }: Fault) {
  // What is wrong at some numbers only is mended by a number.
  if (!cure || 'slot' in cure || step === undefined) return null;
  const text = expressionOf(cure.value, cure.kind, units.value);
  return {
    label: `Make its ${cure.number} ${text}`,
    take: () => void (session.notice = design.edit(setDimension(`${step}.${cure.number}`, text))),
  };
}
const present = computed((): Found[] =>
  flex.present.map((fault, i) => ({
    key: `now ${i}`,
    at: 'at the present numbers',
    faults: [fault],
    tried: [],
    away: 0,
  })),
);
const groups = computed(() => [
  { title: 'As it is', found: present.value },
  { title: 'First to fail', found: alone.value },
  { title: 'In pairs, where each stands alone', found: inPairs.value },
]);
</script>

<template>
  <section
    aria-label="What fails"
    class="flex min-h-0 flex-col overflow-y-auto border-l border-hairline bg-panel px-3 pb-3"
  >
    <template v-for="group in groups" :key="group.title">
      <template v-if="group.found.length > 0">
        <h2 class="px-1 pt-2.5 pb-2 font-semibold">{{ group.title }}</h2>
        <ol class="flex flex-col gap-2">
          <li v-for="f in group.found" :key="f.key" class="rounded-lg border border-hairline bg-card px-3 py-2">
            <p class="number text-xs">{{ f.at }}</p>
            <div v-for="(fault, i) in f.faults.slice(0, 4)" :key="i" class="mt-1">
              <p :class="fault.how === 'doubt' ? 'text-warn' : 'text-bad'">{{ faultSentence(design.kept!, fault) }}</p>
              <button v-if="cureOf(fault)" class="mr-3 font-medium text-link underline" @click="cureOf(fault)!.take">
                {{ cureOf(fault)!.label }}
              </button>
            </div>
            <p v-if="f.faults.length > 4" class="text-quiet">and {{ f.faults.length - 4 }} more</p>
            <button class="mt-1 font-medium text-link underline" @click="show(f.faults[0]!, f.tried)">
              Look at it
            </button>
          </li>
        </ol>
      </template>
    </template>
    <p v-if="groups.every((g) => g.found.length === 0)" class="px-1 pt-3 text-quiet">
      {{
        flex.of === null
          ? 'What fails as the dials move will stand here, with what to do about it.'
          : flex.progress
            ? 'Nothing fails so far.'
            : flex.whole
              ? 'Nothing fails in these ranges.'
              : 'Nothing has failed as far as it was looked at.'
      }}
    </p>
  </section>
</template>
