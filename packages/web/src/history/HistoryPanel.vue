<script setup lang="ts">
/** What was done to the design, by whom and when: to look at, compare, name, and go back to. */
import { compareDesigns, formatNumber, massOf, type Comparison } from '@helb/core';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useAttempt } from '../fields/attempt.ts';
import NameField from '../fields/NameField.vue';
import { server, type Listed } from '../server.ts';
import { useTrial } from '../trial/trial-store.ts';

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const trial = useTrial();
const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: 'short', timeStyle: 'short' });

/** Readings that follow an edit belong to it: the state after it is the one after them. */
const rows = computed(() => {
  const all: { change: Listed; state: number }[] = [];
  for (const change of design.log) {
    const last = all.at(-1);
    if (change.kind !== 'follow') all.push({ change, state: change.revision });
    else if (last) last.state = change.revision;
  }
  return all.reverse();
});
const { trouble, busy, attempt } = useAttempt();
// Where the server is away, the names are as they were.
onMounted(() => void design.readNames().catch(() => {}));
/** Of the present, as it was when one began to look back: part by part, mm³. */
const presentVolumes = shallowRef<ReadonlyMap<string, number>>(new Map());

const VERBS = { edit: '', follow: '', undo: 'Taken back: ', redo: 'Made again: ', restore: '' } as const;
const said = (c: Listed) => `${VERBS[c.kind]}${c.label}`;
const by = ({ author, by: name }: Listed) =>
  author === null ? 'unknown' : author === design.you ? 'you' : (name ?? 'someone else');

const volumes = () =>
  new Map([...evaluation.parts].map(([id, view]) => [id, view.bodies.reduce((sum, b) => sum + b.volume, 0)]));

const look = (revision: number) =>
  attempt(async () => {
    const past = await server.state(design.id!, revision);
    // While the present is being computed, what is there is partly of before.
    if (!trial.past) presentVolumes.value = evaluation.busy ? new Map() : volumes();
    session.leaveSketch();
    session.notice = trial.lookBack({ revision, design: past });
  });

const back = (revision: number) =>
  attempt(async () => {
    trial.lookBack(null);
    const refusal = await design.restore(revision);
    if (refusal) throw new Error(refusal);
  });

function rename(revision: number, name: string): string | null {
  void attempt(async () => {
    await server.nameState(design.id!, revision, name);
    design.named(revision, name || null);
  });
  return null;
}

const comparison = computed<Comparison | null>(() =>
  trial.past && design.kept ? compareDesigns(trial.past.design, design.kept) : null,
);
/** Masses that differ, once the past has been computed. */
const masses = computed(() => {
  const { past } = trial;
  if (!past || evaluation.busy) return [];
  const then = volumes();
  return Object.entries(past.design.parts).flatMap(([id, part]) => {
    const [a, b] = [then.get(id), presentVolumes.value.get(id)];
    const material = design.kept?.parts[id]?.material;
    if (a === undefined || b === undefined || !part.material || !material) return [];
    const [was, is] = [massOf(a, part.material), massOf(b, material)];
    return Math.abs(was - is) < 5e-4
      ? []
      : [{ name: `mass of ${part.name}`, before: `${formatNumber(was, 3)} kg`, after: `${formatNumber(is, 3)} kg` }]; // prettier-ignore
  });
});
/** What somebody wrote stands first; what follows from it can be asked for. */
const showFollowing = ref(false);
const written = computed(() => (comparison.value?.numbers ?? []).filter((n) => !n.follows));
const following = computed(() => (comparison.value?.numbers ?? []).filter((n) => n.follows));
const numbers = computed(() => [...written.value, ...masses.value, ...(showFollowing.value ? following.value : [])]);
const nothing = computed(
  () =>
    comparison.value &&
    comparison.value.numbers.length + comparison.value.steps.length + comparison.value.parts.length === 0,
);

onBeforeUnmount(() => trial.lookBack(null));
</script>

<template>
  <section
    aria-label="History"
    class="grid min-h-0 grid-rows-[auto_auto_minmax(0,1fr)] border-l border-hairline bg-panel"
  >
    <header class="flex items-baseline gap-2 px-4 pt-3 pb-2">
      <h2 class="font-semibold">History</h2>
      <span class="flex-1 text-quiet">{{ design.revision }} change{{ design.revision === 1 ? '' : 's' }}</span>
      <button class="text-xs underline" @click="session.showHistory = false">Close</button>
    </header>
    <div class="max-h-[45vh] overflow-y-auto px-4">
      <p v-if="trouble" role="alert" class="pb-2 text-bad">{{ trouble }}</p>
      <div v-if="trial.past" class="mb-3 rounded-lg border border-signal p-3" role="region" aria-label="Compared">
        <p class="font-semibold">State {{ trial.past.revision }}, against the present</p>
        <p v-if="presentVolumes.size === 0" class="text-xs text-quiet">
          The present was still being computed, so its masses are not compared; go to the present first, and look again.
        </p>
        <p class="mt-1 mb-2 flex gap-2">
          <button v-if="design.mayEdit" class="button primary" :disabled="busy" @click="back(trial.past.revision)">
            Go back to it
          </button>
          <button class="button" @click="trial.lookBack(null)">To the present</button>
        </p>
        <p v-if="nothing" class="text-quiet">Nothing differs but where loose points lie.</p>
        <table v-if="numbers.length > 0" class="w-full text-xs">
          <thead class="text-left text-quiet">
            <tr>
              <th class="font-normal">number</th>
              <th class="pl-2 text-right font-normal">then</th>
              <th class="pl-2 text-right font-normal">now</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="n in numbers" :key="n.name">
              <td class="max-w-28 truncate" :title="n.name">{{ n.name }}</td>
              <td class="number pl-2 text-right whitespace-nowrap">{{ n.before ?? '–' }}</td>
              <td class="number pl-2 text-right whitespace-nowrap">{{ n.after ?? '–' }}</td>
            </tr>
          </tbody>
        </table>
        <button
          v-if="following.length > 0"
          class="mt-1 text-xs underline"
          :aria-expanded="showFollowing"
          @click="showFollowing = !showFollowing"
        >
          {{ showFollowing ? 'Without' : 'And' }} {{ following.length }} that follow
        </button>
        <ul class="mt-1 text-xs">
          <li v-for="p in comparison?.parts ?? []" :key="p.id">Part {{ p.name }}: {{ p.how }} since</li>
          <li v-for="s in comparison?.steps ?? []" :key="`${s.part} ${s.name}`">
            {{ s.part }}, {{ s.name }}: {{ s.how }} since
          </li>
        </ul>
      </div>
    </div>
    <ol class="overflow-y-auto px-3 pb-3" aria-label="Changes">
      <li
        v-for="{ change: c, state } in rows"
        :key="c.id"
        class="group rounded px-1 py-1"
        :class="trial.past?.revision === state ? 'bg-signal-soft' : ''"
      >
        <p class="flex items-baseline gap-2">
          <span class="number w-7 shrink-0 text-right text-xs text-quiet">{{ c.revision }}</span>
          <button
            class="min-w-0 flex-1 truncate text-left hover:text-signal"
            :title="`${said(c)}: look at the design as it was then`"
            :disabled="busy"
            @click="look(state)"
          >
            {{ said(c) }}
          </button>
        </p>
        <p class="flex items-baseline gap-2 pl-9 text-xs text-quiet">
          <span class="flex-1">{{ by(c) }}, {{ WHEN.format(new Date(c.at)) }}</span>
          <NameField
            :class="c.named ? 'text-ink' : ''"
            :name="c.named ?? (design.mayEdit ? 'name it' : '')"
            :label="`Name of state ${c.revision}`"
            :fixed="!design.mayEdit"
            :rename="(name) => rename(c.revision, name === 'name it' ? '' : name)"
          />
        </p>
      </li>
      <li v-if="design.hasEarlier" class="px-1 py-2">
        <button class="underline" @click="attempt(design.loadEarlier)">Earlier changes</button>
      </li>
      <li v-else class="px-1 py-2">
        <button class="text-left text-quiet hover:text-signal" @click="look(0)">
          <span class="number mr-2 inline-block w-7 text-right text-xs">0</span>as it was begun
        </button>
      </li>
    </ol>
  </section>
</template>
