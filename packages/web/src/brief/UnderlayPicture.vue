<script setup lang="ts">
/** The drawing under the open sketch. */
import { pixelInSketch } from '@helb/core';
import { computed } from 'vue';
import type { PlaneMap } from '../sketch/plane-map.ts';
import { useBrief } from './brief-store.ts';

const props = defineProps<{ map: PlaneMap }>();
const brief = useBrief();

/** From pixels of the picture to those of the stage. */
const matrix = computed(() => {
  const own = brief.underlay?.own;
  if (!own || props.map.edgeOn) return null;
  const at = (u: number, v: number) => props.map.toPixel(pixelInSketch(own, [u, v]));
  const [o, x, y] = [at(0, 0), at(1, 0), at(0, 1)];
  return `matrix(${x[0] - o[0]}, ${x[1] - o[1]}, ${y[0] - o[0]}, ${y[1] - o[1]}, ${o[0]}, ${o[1]})`;
});
</script>

<template>
  <img
    v-if="brief.underlay && matrix"
    :src="brief.underlay.picture"
    alt="The drawing under this sketch"
    data-testid="underlay"
    draggable="false"
    class="pointer-events-none absolute top-0 left-0 max-w-none origin-top-left select-none"
    :style="{
      width: `${brief.underlay.width}px`,
      height: `${brief.underlay.height}px`,
      transform: matrix,
      opacity: brief.underlay.own.seen,
      mixBlendMode: 'multiply',
    }"
  />
</template>
