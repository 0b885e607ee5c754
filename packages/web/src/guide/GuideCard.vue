<script setup lang="ts">
/** The move to be made now, and a ring round what to click for it. */
import { useIntervalFn } from '@vueuse/core';
import { shallowRef } from 'vue';
import { useGuide } from './guide-store.ts';

const guide = useGuide();
const ring = shallowRef<{ left: string; top: string; width: string; height: string } | null>(null);
const GROWN_PX = 4;
const LOOK_MS = 300;

useIntervalFn(() => {
  const box = guide.move?.target?.()?.getBoundingClientRect();
  ring.value = box && box.width > 0
    ? { left: `${box.left - GROWN_PX}px`, top: `${box.top - GROWN_PX}px`, width: `${box.width + 2 * GROWN_PX}px`, height: `${box.height + 2 * GROWN_PX}px` }
    : null; // prettier-ignore
}, LOOK_MS);
</script>

<template>
  <section
    v-if="guide.shown"
    aria-label="A first part"
    class="mx-3 mb-2 rounded-lg border border-signal bg-paper px-3 py-2 text-[13px]"
  >
    <header class="flex items-baseline justify-between gap-2">
      <h3 class="font-semibold">{{ guide.move?.title ?? 'That was a first part' }}</h3>
      <span class="number text-xs text-quiet"
        >{{ Math.min(guide.progress!.done + 1, guide.moves) }}/{{ guide.moves }}</span
      >
    </header>
    <p class="mt-1" aria-live="polite">
      {{
        guide.move?.says ??
        'It is yours: go on with it. Space lists all that can be done, ? the keys. The project Glasshouse holds a whole design to look into.'
      }}
    </p>
    <footer class="mt-1.5 flex gap-3 text-xs">
      <button v-if="guide.move" class="text-quiet hover:text-ink" @click="guide.skip">Skip this</button>
      <span class="flex-1" />
      <button class="font-medium text-link underline" @click="guide.leave">
        {{ guide.move ? 'Leave; go on later' : 'Close' }}
      </button>
    </footer>
    <Teleport to="body">
      <div
        v-if="ring && guide.move"
        class="pointer-events-none fixed z-40 rounded-md border-2 border-signal/70 motion-safe:animate-pulse"
        :style="ring"
        aria-hidden="true"
      />
    </Teleport>
  </section>
</template>
