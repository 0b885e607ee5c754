<script setup lang="ts">
/** Where an invitation leads, and the first link of a server nobody keeps yet. */
import { computed, onMounted, ref, shallowRef } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { people, type LinkAbout } from '../server.ts';
import { signInTo, useAccount } from './account-store.ts';
import { useAttempt } from '../fields/attempt.ts';
import PasswordField from './PasswordField.vue';
import { tokenHere } from './link-here.ts';
import PlainForm from './PlainForm.vue';
import { MAY } from './roles.ts';

const router = useRouter();
const account = useAccount();
const about = shallowRef<LinkAbout | null>(null);
const address = ref('');
const name = ref('');
const password = ref('');
const { trouble, busy, attempt } = useAttempt();

onMounted(() =>
  attempt(async () => {
    about.value = await people.readLink(tokenHere());
    address.value = about.value.address ?? '';
  }),
);

const title = computed(() => (about.value?.kind === 'keeper' ? 'Keep this server' : about.value?.project ? `Join ${about.value.project}` : 'Welcome')); // prettier-ignore
/** Signed in as who is invited: nothing is left to be told. */
const isMe = computed(() => about.value?.hasAccount === true && account.person?.address === about.value.address);
const mustSignIn = computed(() => about.value?.hasAccount === true && !isMe.value);

const join = () =>
  attempt(async () => {
    const given = isMe.value ? {} : { name: name.value, password: password.value, ...(about.value?.address ? {} : { address: address.value }) }; // prettier-ignore
    const { project } = await people.useLink(tokenHere(), given);
    await account.load();
    await router.replace(project ? `/projects/${project}` : '/');
  });

async function signIn(): Promise<void> {
  if (account.person) await account.signOut();
  await router.push(signInTo(`/welcome#${tokenHere()}`));
}
</script>

<template>
  <PlainForm
    v-if="about && !mustSignIn"
    :title="title"
    :trouble="trouble"
    :busy="busy"
    :does="about.kind === 'keeper' ? 'Begin' : 'Join'"
    @done="join"
  >
    <p v-if="about.kind === 'keeper'" class="text-quiet">
      Whoever keeps a server sees who has an account on it, and may end it. Designs made before belong to them.
    </p>
    <p v-else-if="about.role" class="text-quiet">You will {{ MAY[about.role].long }}.</p>
    <template v-if="!isMe">
      <label class="grid gap-1"
        >Mail address
        <input
          v-model="address"
          class="field"
          type="email"
          autocomplete="username"
          required
          maxlength="200"
          :readonly="about.address !== null"
        />
      </label>
      <label class="grid gap-1"
        >Your name, as others see it
        <input v-model="name" class="field" autocomplete="name" required maxlength="80" />
      </label>
      <PasswordField v-model="password" label="Password" chosen />
    </template>
  </PlainForm>
  <PlainForm v-else-if="about" :title="title" does="Sign in" @done="signIn">
    <p>This link is for {{ about.address }}, who has an account here: sign in with it, and the link works on.</p>
  </PlainForm>
  <PlainForm v-else title="Welcome" :trouble="trouble" does="To the start" @done="router.replace('/')">
    <p v-if="busy" role="status">The link is being looked at.</p>
    <template #beside><RouterLink to="/sign-in" class="text-link underline">Sign in</RouterLink></template>
  </PlainForm>
</template>
