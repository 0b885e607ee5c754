<script setup lang="ts">
/** Datum planes: hairline frames with a label tab each; the tab is what is clicked. */
import { DATUM_FRAMES, DATUM_PLANES, toSpace } from '@helb/core';
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import { useVerbs } from '../verbs/verbs.ts';
import type { StageScene } from './scene.ts';

const props = defineProps<{ scene: StageScene; frame: number }>();
const session = useSession();
const verbs = useVerbs();

const HALF_MM = 40;

const planes = computed(() => {
  void props.frame;
  return DATUM_PLANES.map((datum) => {
    const frame = DATUM_FRAMES[datum];
    const corners = [[-1, -1], [1, -1], [1, 1], [-1, 1]].map(([u, v]) => props.scene.pixelOf(toSpace(frame, u! * HALF_MM, v! * HALF_MM))); // prettier-ignore
    // The tab stands at the corner farthest from the others' tabs.
    const tab = corners[datum === 'floor' ? 1 : datum === 'wall' ? 3 : 2]!;
    return { datum, points: corners.map((c) => c.join()).join(' '), tab };
  });
});

function choose(datum: (typeof DATUM_PLANES)[number]): void {
  if (session.pickingFor?.slot === 'plane') verbs.movePlane(session.pickingFor.step, { datum });
  else verbs.sketchOn({ datum });
}
</script>

<template>
  <div class="pointer-events-none absolute inset-0">
    <svg class="absolute inset-0 h-full w-full" aria-hidden="true">
      <polygon
        v-for="p in planes"
        :key="p.datum"
        :points="p.points"
        fill="none"
        stroke="var(--color-quiet)"
        stroke-width="1"
        opacity="0.6"
      />
    </svg>
    <button
      v-for="p in planes"
      :key="p.datum"
      class="pointer-events-auto absolute -translate-x-1/2 -translate-y-1/2 rounded border border-hairline bg-panel px-2 py-1 text-xs font-medium text-link hover:border-signal hover:text-signal"
      :style="{ left: `${p.tab[0]}px`, top: `${p.tab[1]}px` }"
      @pointerdown.stop
      @click="choose(p.datum)"
    >
      {{ p.datum }} plane
    </button>
  </div>
</template>
