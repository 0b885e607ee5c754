<script setup lang="ts">
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { people } from '../server.ts';
import { useAccount } from './account-store.ts';
import { useAttempt } from '../fields/attempt.ts';
import PasswordField from './PasswordField.vue';
import { tokenHere } from './link-here.ts';
import PlainForm from './PlainForm.vue';

const router = useRouter();
const account = useAccount();
const password = ref('');
const { trouble, busy, attempt } = useAttempt();
const set = () =>
  attempt(async () => {
    await people.useLink(tokenHere(), { password: password.value });
    await account.load();
    await router.replace('/');
  });
</script>

<template>
  <PlainForm title="A new password" :trouble="trouble" :busy="busy" does="Set it and sign in" @done="set">
    <p class="text-quiet">Every browser in which you are signed in is signed out by it.</p>
    <PasswordField v-model="password" label="New password" chosen autofocus />
  </PlainForm>
</template>
