<script setup lang="ts">
/** The given numbers with their kind: typed, pasted or read from a file; each says how the model uses it. */
import { GIVEN_KINDS, quantityOfGiven, type GivenKind, type GivenNumber, type GivenVerdict } from '@helb/core';
import { useFileDialog } from '@vueuse/core';
import { computed, ref } from 'vue';
import PlainField from '../fields/PlainField.vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useBrief } from './brief-store.ts';

const brief = useBrief();
const design = useDesign();
const session = useSession();

const KIND_WORDS: Readonly<Record<GivenKind, string>> = {
  diameter: 'Ø diameter', radius: 'R radius', length: 'length', angle: '∠ angle', count: 'count', mass: 'mass, kg',
  box_x: 'overall x', box_y: 'overall y', box_z: 'overall z', centre_x: 'centre x', centre_y: 'centre y', centre_z: 'centre z',
}; // prettier-ignore
const MARKS: Readonly<Record<GivenVerdict['state'], readonly [mark: string, tone: string, word: string]>> = {
  right: ['✓', 'text-good', 'used as given'],
  wrong: ['!', 'text-bad', 'not as given'],
  other: ['?', 'text-warn', 'to be looked at'],
  unused: ['○', 'text-quiet', 'not used yet'],
  unread: ['!', 'text-bad', 'not readable'],
};

const rows = computed(() =>
  (brief.brief?.numberOrder ?? []).map((id) => {
    const verdict = brief.verdicts.get(id) ?? { state: 'unused' as const, says: null, uses: [] };
    const [mark, tone, word] = MARKS[verdict.state];
    return { id, own: brief.brief!.numbers[id]!, verdict, mark, tone, word };
  }),
);

const typed = ref('');
const unread = ref<readonly string[]>([]);
function take(text: string): void {
  if (!text.trim()) return;
  unread.value = brief.take(text);
  if (unread.value.length === 0) typed.value = '';
}
function paste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text') ?? '';
  if (!/[\n\t]/.test(text.trim())) return;
  event.preventDefault();
  take(text);
}

const MOST_TEXT = 1_000_000;
const { open, onChange } = useFileDialog({ accept: '.csv,.txt,text/csv,text/plain', multiple: false, reset: true });
onChange(async (files) => {
  const file = files?.[0];
  if (!file) return;
  if (file.size > MOST_TEXT) unread.value = [`${file.name} is too large for a list of numbers.`];
  else take(await file.text());
});

function setKind(id: string, own: GivenNumber, event: Event): void {
  const kind = (event.target as HTMLSelectElement).value as GivenKind;
  brief.put(id, { ...own, kind });
}
function setTimes(id: string, own: GivenNumber, text: string): void {
  const { times: _, ...rest } = own;
  const times = Number(text);
  if (text.trim() === '' || times === 1) brief.put(id, rest);
  else if (Number.isInteger(times) && times > 1 && times <= 1000) brief.put(id, { ...rest, times });
  else session.notice = 'How many there are of it is a whole number from 1 to 1000.';
}
function setNote(id: string, own: GivenNumber, text: string): void {
  const { note: _, ...rest } = own;
  brief.put(id, text.trim() ? { ...rest, note: text.trim().slice(0, 120) } : rest);
}
function setValue(id: string, own: GivenNumber, text: string): void {
  brief.put(id, { ...own, value: design.ledger!.bind(text.trim() || own.value, {}, quantityOfGiven(own.kind)) });
}
const light = (uses: readonly string[]) => (session.hoveredDimension = uses[0] ?? null);
</script>

<template>
  <div class="flex min-h-0 flex-col text-xs">
    <header class="flex flex-wrap items-center gap-3 px-3 pt-2">
      <h3 class="font-semibold">Brief</h3>
      <span v-if="rows.length > 0" class="text-quiet" data-testid="brief-state"
        ><span class="number">{{ brief.right }}</span> of <span class="number">{{ rows.length }}</span> as given<span
          v-if="brief.wrong > 0"
          class="text-bad"
          >, <span class="number">{{ brief.wrong }}</span> not</span
        ></span
      >
      <span v-if="brief.unmeasured" class="text-warn">The part could not be measured; judged by the recipe alone.</span>
      <span class="flex-1" />
      <button class="text-link underline" @click="open()">Read CSV</button>
      <button class="text-link underline" @click="brief.shown = false">Close</button>
    </header>
    <form class="px-3 py-1.5" @submit.prevent="take(typed)">
      <input
        v-model="typed"
        class="field number w-full"
        aria-label="A given number"
        placeholder="4× Ø6.6 wall holes — or paste many lines"
        @paste="paste"
        @keydown.escape.stop="typed = ''"
      />
      <p v-for="says in unread.slice(0, 4)" :key="says" class="text-bad" role="alert">{{ says }}</p>
      <p v-if="unread.length > 4" class="text-bad">and {{ unread.length - 4 }} lines more.</p>
    </form>
    <p v-if="rows.length === 0" class="px-3 text-quiet">
      Type the numbers of the drawing as they stand there: Ø42, R5, 4× Ø6.6, 30°, 120 mm. Each is ticked off as the
      model uses it, and told where it is used as something else.
    </p>
    <ol class="min-h-0 flex-1 overflow-y-auto px-3 pb-2">
      <li
        v-for="row in rows"
        :key="row.id"
        class="grid grid-cols-[1rem_2.4rem_6.4rem_5.4rem_minmax(0,1fr)_auto] items-center gap-1.5 border-t border-hairline py-0.5"
        :data-given="row.verdict.state"
        @mouseenter="light(row.verdict.uses)"
        @mouseleave="light([])"
      >
        <span :class="row.tone" class="text-center font-semibold" role="img" :aria-label="row.word" :title="row.word">{{
          row.mark
        }}</span>
        <PlainField
          hidden
          label="How many"
          class="number"
          :value="row.own.times ? `${row.own.times}` : ''"
          placeholder="1"
          @set="setTimes(row.id, row.own, $event)"
        />
        <select class="field" aria-label="Kind" :value="row.own.kind" @change="setKind(row.id, row.own, $event)">
          <option v-for="kind in GIVEN_KINDS" :key="kind" :value="kind">{{ KIND_WORDS[kind] }}</option>
        </select>
        <PlainField
          hidden
          label="Value"
          class="number"
          :value="row.own.value"
          @set="setValue(row.id, row.own, $event)"
        />
        <PlainField
          hidden
          label="Of what"
          :value="row.own.note ?? ''"
          placeholder="of what"
          @set="setNote(row.id, row.own, $event)"
        />
        <button
          class="min-h-6 px-1 text-quiet hover:text-bad"
          :aria-label="`Take ${row.own.value} off`"
          @click="brief.remove([row.id])"
        >
          Off
        </button>
        <p v-if="row.verdict.says && row.verdict.state !== 'unused'" class="col-span-5 col-start-2" :class="row.tone">
          {{ row.verdict.says }}
        </p>
      </li>
    </ol>
  </div>
</template>
