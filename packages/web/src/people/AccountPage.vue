<script setup lang="ts">
/** One's own account: name, password, where one is signed in, the end of it. */
import { ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { toast } from 'vue-sonner';
import PageFrame from '../projects/PageFrame.vue';
import { people } from '../server.ts';
import { useAccount } from './account-store.ts';
import { useAttempt } from '../fields/attempt.ts';
import PasswordField from './PasswordField.vue';

const router = useRouter();
const account = useAccount();
const name = ref(account.person?.name ?? '');
const present = ref('');
const password = ref('');
const leaving = ref(false);
const { trouble, busy, attempt } = useAttempt();

const done = (what: string, work: () => Promise<unknown>) =>
  attempt(async () => {
    await work();
    present.value = password.value = '';
    toast.success(what);
  });

const rename = () =>
  done('Others see your new name from now on.', async () => {
    await people.rename(name.value);
    await account.load();
  });
const change = () =>
  done('Your password is changed; other browsers are signed out.', () =>
    people.changePassword(present.value, password.value),
  );
const elsewhere = () => done('All other browsers are signed out.', people.signOutElsewhere);
const leave = () =>
  attempt(async () => {
    await people.leave(present.value);
    await account.load();
    await router.replace('/sign-in');
  });
</script>

<template>
  <PageFrame>
    <h1 class="text-xl font-semibold">My account</h1>
    <p class="text-quiet">{{ account.person?.address }}</p>
    <p v-if="account.person?.keeper" class="mt-1">
      You keep this server: <RouterLink to="/people" class="text-link underline">everyone with an account</RouterLink>
    </p>
    <p v-if="trouble" role="alert" class="mt-4 text-bad">{{ trouble }}</p>
    <form class="mt-6 grid max-w-sm gap-2" @submit.prevent="rename">
      <h2 class="font-semibold">Name</h2>
      <label class="grid gap-1">As others see it <input v-model="name" class="field" required maxlength="80" /></label>
      <p><button class="button" :disabled="busy">Change it</button></p>
    </form>
    <form class="mt-6 grid max-w-sm gap-2" @submit.prevent="change">
      <h2 class="font-semibold">Password</h2>
      <PasswordField v-model="present" label="Present one" />
      <PasswordField v-model="password" label="New one" chosen />
      <p><button class="button" :disabled="busy">Change it</button></p>
    </form>
    <section class="mt-6 grid max-w-sm gap-2">
      <h2 class="font-semibold">Other browsers</h2>
      <p><button class="button" :disabled="busy" @click="elsewhere">Sign out everywhere else</button></p>
    </section>
    <form class="mt-6 grid max-w-sm gap-2" @submit.prevent="leave">
      <h2 class="font-semibold">Leave</h2>
      <p class="text-quiet">
        What you made stays with its projects, under “Someone who left”. Your name and address are gone for good.
      </p>
      <p v-if="!leaving"><button type="button" class="button" @click="leaving = true">Leave Helb</button></p>
      <template v-else>
        <PasswordField v-model="present" label="Your password" />
        <p class="flex gap-3">
          <button class="font-medium text-bad underline" :disabled="busy">Leave for good</button>
          <button type="button" class="underline" @click="leaving = false">Stay</button>
        </p>
      </template>
    </form>
  </PageFrame>
</template>
