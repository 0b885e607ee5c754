<script setup lang="ts">
/** The issues of a sheet: given away anew, held against what it reads now, and shown as they were. */
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useAttempt } from '../fields/attempt.ts';
import { server } from '../server.ts';
import { useTrial } from '../trial/trial-store.ts';
import { useKeptIssues } from './kept-issues.ts';
import { useSheets } from './sheet-store.ts';

const sheets = useSheets();
const design = useDesign();
const session = useSession();
const trial = useTrial();
const { trouble, busy, attempt } = useAttempt();

const note = ref('');
function issue(): void {
  sheets.issue(note.value);
  note.value = '';
}

/** The newest first. */
const issues = computed(() => [...(sheets.sheet?.issues ?? [])].reverse());
const show = (letter: string) =>
  attempt(async () => {
    const id = session.activeSheet!;
    const all = sheets.sheet!.issues!;
    const at = all.findIndex((i) => i.letter === letter);
    const past = await server.state(design.id!, all[at]!.revision);
    const own = past.sheets?.[id];
    if (!own) throw new Error('That state of the design has no such sheet any more.');
    // It was given away with its own row, which came a moment after that state.
    const issued = { ...past, sheets: { ...past.sheets, [id]: { ...own, issues: all.slice(0, at + 1) } } };
    session.notice = trial.lookBack({ revision: all[at]!.revision, design: issued });
  });
const kept = useKeptIssues();
const open = (letter: string) => attempt(() => kept.open(session.activeSheet!, sheets.sheet!.name, sheets.sheet!.issues!.find((i) => i.letter === letter)!)); // prettier-ignore
</script>

<template>
  <section aria-label="Issues">
    <h3 class="mb-1 font-semibold">Issues</h3>
    <p v-if="issues.length === 0" class="text-quiet">Not yet issued.</p>
    <p v-if="!trial.past && sheets.changed.length > 0" class="text-warn" data-testid="changed">
      Since issue {{ sheets.lastIssue!.letter }}: {{ sheets.changed.slice(0, 6).join('; ')
      }}{{ sheets.changed.length > 6 ? `; and ${sheets.changed.length - 6} more` : '' }}.
    </p>
    <ul v-if="issues.length > 0" class="max-h-32 overflow-y-auto">
      <li v-for="{ letter, date, note: what } in issues" :key="letter" class="flex items-baseline gap-2">
        <span class="w-6 font-semibold">{{ letter }}</span>
        <span class="number text-quiet">{{ date }}</span>
        <span class="min-w-0 flex-1 truncate" :title="what">{{ what }}</span>
        <button
          v-if="!trial.past"
          class="text-link hover:underline"
          :disabled="busy"
          :aria-label="`Show issue ${letter} as it was`"
          @click="show(letter)"
        >
          Show
        </button>
        <button
          class="text-link hover:underline"
          :disabled="busy"
          :aria-label="`PDF of issue ${letter} as it was given away`"
          @click="open(letter)"
        >
          PDF
        </button>
      </li>
    </ul>
    <p v-if="trial.past" class="mt-1 text-warn">
      The sheet as it was at state {{ trial.past.revision }}; it can be written and printed.
      <button class="text-link underline" @click="trial.lookBack(null)">Back to the present</button>
    </p>
    <p v-if="trouble" class="text-bad" role="alert">{{ trouble }}</p>
    <form v-if="!trial.past" class="mt-1 flex gap-2" @submit.prevent="issue">
      <input
        v-model="note"
        class="field min-w-0 flex-1"
        aria-label="What the issue is for"
        placeholder="What it is for"
      />
      <button class="button" :disabled="design.saveState !== 'saved'">Issue</button>
    </form>
  </section>
</template>
