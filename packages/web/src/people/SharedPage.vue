<script setup lang="ts">
/** Where a link leads by which one looks at a design. */
import { onMounted } from 'vue';
import { useRouter } from 'vue-router';
import { people } from '../server.ts';
import { useAttempt } from '../fields/attempt.ts';
import { tokenHere } from './link-here.ts';
import PlainForm from './PlainForm.vue';

const router = useRouter();
const { trouble, attempt } = useAttempt();
onMounted(() =>
  attempt(async () => {
    const { design } = await people.openShare(tokenHere());
    await router.replace(`/designs/${design}`);
  }),
);
</script>

<template>
  <PlainForm title="A design to look at" :trouble="trouble" does="To the start" @done="router.replace('/')">
    <p v-if="!trouble" role="status">The link is being looked at.</p>
  </PlainForm>
</template>
