<script setup lang="ts">
/** Who may do what in the project; owners say it. */
import { computed, onMounted, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { useAccount } from '../people/account-store.ts';
import { useAttempt } from '../fields/attempt.ts';
import { MAY } from '../people/roles.ts';
import { people, type Invited, type Member, type Role } from '../server.ts';

const props = defineProps<{ project: string; role: Role }>();
const ROLES = ['reads', 'edits', 'owns'] as const;
const UNTIL = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });
const router = useRouter();
const account = useAccount();
const members = shallowRef<Member[]>([]);
const invited = shallowRef<Invited[]>([]);
const address = ref('');
const wanted = ref<Role>('edits');
const said = ref<string | null>(null);
const removing = ref<string | null>(null);
const { trouble, busy, attempt } = useAttempt();
const owns = computed(() => props.role === 'owns');

async function read(): Promise<void> {
  const told = await people.of(props.project);
  members.value = told.people;
  invited.value = told.invited;
}
onMounted(() => attempt(read));

const invite = () =>
  attempt(async () => {
    said.value = null;
    await people.invite(props.project, address.value, wanted.value);
    said.value = `A letter with a link is on its way to ${address.value.trim()}.`;
    address.value = '';
    await read();
  });
/** A refused choice is put back by reading anew. */
const setRole = (id: string, event: Event) =>
  attempt(async () => {
    const field = event.target as HTMLSelectElement;
    try {
      await people.setRole(props.project, id, field.value as Role);
    } catch (error) {
      field.value = members.value.find((m) => m.id === id)?.role ?? field.value;
      throw error;
    }
    await read();
  });
const remove = (id: string) =>
  attempt(async () => {
    removing.value = null;
    if (id === account.person?.id) {
      await people.leaveProject(props.project);
      await router.replace('/');
    } else {
      await people.remove(props.project, id);
      await read();
    }
  });
const uninvite = (id: string) =>
  attempt(async () => {
    await people.uninvite(props.project, id);
    await read();
  });
</script>

<template>
  <section aria-label="Who may do what" class="mt-8">
    <h2 class="font-semibold">Who may do what</h2>
    <p class="text-quiet">
      <template v-for="(r, i) in ROLES" :key="r"
        >{{ i > 0 ? '; who' : 'Who' }} <b class="font-medium text-ink">{{ MAY[r].short }}</b> may
        {{ MAY[r].long }}</template
      >.
    </p>
    <p v-if="trouble" role="alert" class="mt-2 text-bad">{{ trouble }}</p>
    <ul class="mt-3 divide-y divide-hairline overflow-hidden rounded-lg border border-hairline bg-panel">
      <li v-for="m in members" :key="m.id" class="flex items-center gap-3 px-4 py-1.5" :data-member="m.name">
        <span class="w-44 truncate font-semibold">{{ m.name }}</span>
        <span class="min-w-0 flex-1 truncate text-quiet">{{ m.id === account.person?.id ? 'you' : m.address }}</span>
        <select
          v-if="owns"
          class="field !w-24"
          :value="m.role"
          :aria-label="`What ${m.name} may do`"
          :disabled="busy"
          @change="setRole(m.id, $event)"
        >
          <option v-for="r in ROLES" :key="r" :value="r">{{ MAY[r].short }}</option>
        </select>
        <span v-else>{{ MAY[m.role].short }}</span>
        <span v-if="removing === m.id" class="flex gap-2">
          <button class="font-medium text-bad underline" @click="remove(m.id)">
            {{ m.id === account.person?.id ? 'Leave it' : 'Remove them' }}
          </button>
          <button class="underline" @click="removing = null">Stay</button>
        </span>
        <button
          v-else-if="owns || m.id === account.person?.id"
          class="w-14 text-right text-quiet hover:text-bad"
          :aria-label="m.id === account.person?.id ? 'Leave the project' : `Remove ${m.name}`"
          @click="removing = m.id"
        >
          {{ m.id === account.person?.id ? 'leave' : 'remove' }}
        </button>
      </li>
      <li v-for="i in invited" :key="i.id" class="flex items-center gap-3 px-4 py-1.5" :data-invited="i.address">
        <span class="w-44 text-quiet">invited</span>
        <span class="min-w-0 flex-1 truncate">{{ i.address }}</span>
        <span class="text-quiet">until {{ UNTIL.format(new Date(i.ends)) }}</span>
        <span class="w-24 px-2">{{ MAY[i.role].short }}</span>
        <button
          class="w-14 text-right text-quiet hover:text-bad"
          :aria-label="`Take back the invitation of ${i.address}`"
          @click="uninvite(i.id)"
        >
          take back
        </button>
      </li>
    </ul>
    <form v-if="owns" class="mt-3 flex gap-2" @submit.prevent="invite">
      <input
        v-model="address"
        class="field max-w-64"
        type="email"
        required
        placeholder="mail address"
        aria-label="Mail address of who is invited"
        maxlength="200"
      />
      <select v-model="wanted" class="field !w-24" aria-label="What they may do">
        <option v-for="r in ROLES" :key="r" :value="r">{{ MAY[r].short }}</option>
      </select>
      <button class="button" :disabled="busy">Invite</button>
    </form>
    <p v-if="said" role="status" class="mt-2">{{ said }}</p>
  </section>
</template>
