<script setup lang="ts">
import { ref } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { people } from '../server.ts';
import { useAccount } from './account-store.ts';
import { useAttempt } from '../fields/attempt.ts';
import PasswordField from './PasswordField.vue';
import PlainForm from './PlainForm.vue';

const route = useRoute();
const router = useRouter();
const account = useAccount();
const address = ref('');
const password = ref('');
const { trouble, busy, attempt } = useAttempt();

const enter = () =>
  attempt(async () => {
    await people.signIn(address.value, password.value);
    await account.load();
    const to = route.query.to;
    // Only within Helb.
    await router.replace(typeof to === 'string' && /^\/(?!\/)/.test(to) ? to : '/');
  });
</script>

<template>
  <PlainForm title="Sign in" :trouble="trouble" :busy="busy" does="Sign in" @done="enter">
    <label class="grid gap-1"
      >Mail address
      <input v-model="address" class="field" type="email" autocomplete="username" required maxlength="200" autofocus />
    </label>
    <PasswordField v-model="password" label="Password" />
    <p class="text-xs text-quiet">People come by invitation: ask an owner of the project you are to see.</p>
    <template #beside><RouterLink to="/forgot" class="text-link underline">Password forgotten</RouterLink></template>
  </PlainForm>
</template>
