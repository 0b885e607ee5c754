<script setup lang="ts">
/** For who keeps the server: everyone with an account, and what was tried and done about accounts. */
import { computed, onMounted, ref, shallowRef } from 'vue';
import PageFrame from '../projects/PageFrame.vue';
import { people, type AuditEntry, type Everyone } from '../server.ts';
import { useAccount } from './account-store.ts';
import { useAttempt } from '../fields/attempt.ts';

const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
const account = useAccount();
const everyone = shallowRef<Everyone[] | null>(null);
const audit = shallowRef<AuditEntry[]>([]);
const ending = ref<string | null>(null);
const { trouble, attempt } = useAttempt();

const load = () =>
  attempt(async () => {
    [everyone.value, audit.value] = await Promise.all([people.everyone(), people.audit()]);
  });
onMounted(load);

const end = (id: string) =>
  attempt(async () => {
    await people.endAccount(id);
    ending.value = null;
    everyone.value = await people.everyone();
  });

const nameOf = computed(() => new Map((everyone.value ?? []).map((p) => [p.id, p.name])));
const WHAT: Record<string, string> = {
  'sign-in': 'signing in',
  forgot: 'password forgotten',
  link: 'a link opened',
  password: 'password',
  keeper: 'keeps the server',
  joined: 'joined',
  invited: 'invited somebody',
  role: 'changed a role',
  shared: 'made a link to look',
  unshared: 'ended a link to look',
  left: 'account ended',
};
const HOW: Record<string, string> = { tried: 'not finished', right: 'right', wrong: 'wrong', limited: 'refused: too many', done: 'done' }; // prettier-ignore
</script>

<template>
  <PageFrame>
    <h1 class="text-xl font-semibold">Everyone with an account</h1>
    <p class="text-quiet">People come by invitation to a project; an account ended here cannot be brought back.</p>
    <p v-if="trouble" role="alert" class="mt-4 text-bad">{{ trouble }}</p>
    <ul
      class="mt-5 divide-y divide-hairline overflow-hidden rounded-lg border border-hairline bg-panel"
      aria-label="Everyone"
    >
      <li v-for="p in everyone ?? []" :key="p.id" class="flex items-center gap-4 px-4 py-2">
        <span class="w-44 truncate font-semibold">{{ p.name }}</span>
        <span class="min-w-0 flex-1 truncate">{{ p.address }}</span>
        <span class="text-quiet">{{ p.seen ? `seen ${WHEN.format(new Date(p.seen))}` : 'signed out' }}</span>
        <span v-if="p.keeper" class="text-quiet">keeps the server</span>
        <template v-else-if="p.id !== account.person?.id">
          <span v-if="ending === p.id" class="flex gap-2">
            <button class="font-medium text-bad underline" @click="end(p.id)">End it for good</button>
            <button class="underline" @click="ending = null">Keep it</button>
          </span>
          <button
            v-else
            class="text-quiet hover:text-bad"
            :aria-label="`End the account of ${p.name}`"
            @click="ending = p.id"
          >
            end
          </button>
        </template>
      </li>
    </ul>
    <section class="mt-8" aria-label="Records">
      <h2 class="font-semibold">What was tried and done</h2>
      <p class="text-quiet">The newest {{ audit.length }}; kept for half a year.</p>
      <table class="mt-2 w-full text-xs">
        <thead class="text-left text-quiet">
          <tr>
            <th class="py-1 font-normal">when</th>
            <th class="font-normal">what</th>
            <th class="font-normal">how it went</th>
            <th class="font-normal">who</th>
            <th class="font-normal">from</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(a, i) in audit" :key="i" class="border-t border-hairline">
            <td class="py-1 whitespace-nowrap">{{ WHEN.format(new Date(a.at)) }}</td>
            <td>{{ WHAT[a.what] ?? a.what }}</td>
            <td :class="a.outcome === 'wrong' || a.outcome === 'limited' ? 'text-bad' : ''">
              {{ HOW[a.outcome] ?? a.outcome }}
            </td>
            <td>{{ (a.person && nameOf.get(a.person)) ?? a.address ?? '' }}</td>
            <td class="number">{{ a.ip ?? '' }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </PageFrame>
</template>
