<script setup lang="ts">
import { ref } from 'vue';
import { RouterLink } from 'vue-router';
import { people } from '../server.ts';
import { useAttempt } from '../fields/attempt.ts';
import PlainForm from './PlainForm.vue';

const address = ref('');
const sent = ref(false);
const { trouble, busy, attempt } = useAttempt();
const send = () =>
  attempt(async () => {
    await people.forgot(address.value);
    sent.value = true;
  });
</script>

<template>
  <PlainForm title="Password forgotten" :trouble="trouble" :busy="busy || sent" does="Send a link" @done="send">
    <p v-if="sent" role="status">
      If {{ address }} has an account here, a letter with a link is on its way. It serves for an hour, once.
    </p>
    <label v-else class="grid gap-1"
      >Mail address
      <input v-model="address" class="field" type="email" autocomplete="username" required maxlength="200" autofocus />
    </label>
    <template #beside><RouterLink to="/sign-in" class="text-link underline">Back to signing in</RouterLink></template>
  </PlainForm>
</template>
