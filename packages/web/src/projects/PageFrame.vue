<script setup lang="ts">
import { RouterLink, useRouter } from 'vue-router';
import { useAccount } from '../people/account-store.ts';
import ThemeButton from '../theme/ThemeButton.vue';

const account = useAccount();
const router = useRouter();

async function signOut(): Promise<void> {
  await account.signOut();
  await router.push('/sign-in');
}
</script>

<template>
  <div class="flex min-h-full flex-col">
    <header class="flex h-11 items-center border-b border-hairline bg-panel px-4">
      <RouterLink to="/" class="text-base font-bold tracking-tight" aria-label="Helb, all projects"
        >helb<span class="text-signal">.</span></RouterLink
      >
      <span class="flex-1" />
      <nav v-if="account.accounts" aria-label="Account" class="mr-4 flex gap-4">
        <template v-if="account.person">
          <RouterLink to="/account" class="font-medium hover:underline">{{ account.person.name }}</RouterLink>
          <button class="text-quiet hover:text-ink hover:underline" @click="signOut">Sign out</button>
        </template>
        <RouterLink v-else to="/sign-in" class="hover:underline">Sign in</RouterLink>
      </nav>
      <ThemeButton />
    </header>
    <main class="mx-auto w-full max-w-3xl flex-1 px-6 py-8">
      <slot />
    </main>
    <footer class="mx-auto w-full max-w-3xl px-6 py-4 text-xs text-quiet">
      Helb computes geometry and mass, not strength. What holds, moves or lifts people or loads is for a qualified
      engineer and your local rules to judge. Solid geometry by Open CASCADE Technology (LGPL 2.1).
    </footer>
  </div>
</template>
