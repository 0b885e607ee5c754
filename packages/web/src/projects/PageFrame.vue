<script setup lang="ts">
import { RouterLink } from 'vue-router';
import ThemeButton from '../theme/ThemeButton.vue';
</script>

<template>
  <div class="flex min-h-full flex-col">
    <header class="flex h-11 items-center border-b border-hairline bg-panel px-4">
      <RouterLink to="/" class="text-base font-bold tracking-tight" aria-label="Helb, all projects"
        >helb<span class="text-signal">.</span></RouterLink
      >
      <span class="flex-1" />
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
