<script setup lang="ts">
/** Datum planes: hairline frames with a label tab each; the tab is what is clicked. */
import { DATUM_FRAMES, DATUM_PLANES, toSpace } from '@helb/core';
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import { useFilling } from '../slots/filling.ts';
import { useVerbs } from '../verbs/verbs.ts';
import type { StageScene } from './scene.ts';

const props = defineProps<{ scene: StageScene; frame: number }>();
const session = useSession();
const verbs = useVerbs();
const { give } = useFilling();

const HALF_MM = 40;
/** However near one looks, the frames stay this far inside the stage, px. */
const MOST_HALF_PX = 190;

const planes = computed(() => {
  void props.frame;
  const [a, b] = [props.scene.pixelOf([0, 0, 0]), props.scene.pixelOf([0, 0, 1])];
  const [c, d] = [props.scene.pixelOf([1, 0, 0]), props.scene.pixelOf([0, 1, 0])];
  const scale = Math.max(...[b, c, d].map((p) => Math.hypot(p[0] - a[0], p[1] - a[1])));
  const half = Math.min(HALF_MM, MOST_HALF_PX / Math.max(scale, 1e-9));
  return DATUM_PLANES.map((datum) => {
    const frame = DATUM_FRAMES[datum];
    const corners = [[-1, -1], [1, -1], [1, 1], [-1, 1]].map(([u, v]) => props.scene.pixelOf(toSpace(frame, u! * half, v! * half))); // prettier-ignore
    // The tab stands at the corner farthest from the others' tabs.
    const tab = corners[datum === 'floor' ? 1 : datum === 'wall' ? 3 : 2]!;
    return { datum, points: corners.map((c) => c.join()).join(' '), tab };
  });
});

function choose(datum: (typeof DATUM_PLANES)[number]): void {
  if (session.pickingFor) give({ kind: 'datum', datum });
  else verbs.sketchOn(datum);
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
