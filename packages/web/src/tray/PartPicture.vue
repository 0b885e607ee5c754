<script setup lang="ts">
import * as Comlink from 'comlink';
import { onMounted, useTemplateRef, watch } from 'vue';
import type { PartView } from '@helb/core';
import type { ThumbnailWorker } from './thumbnail.worker.ts';

const props = defineProps<{ view: PartView | undefined; color: string }>();

const WIDTH = 96;
const HEIGHT = 52;
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
let drawn = '';

async function draw(): Promise<void> {
  const bodies = props.view?.bodies ?? [];
  const key = `${props.color} ${bodies.map((b) => b.key).join()}`;
  if (!canvas.value || key === drawn) return;
  drawn = key;
  const context = canvas.value.getContext('2d')!;
  if (bodies.length === 0) {
    context.clearRect(0, 0, canvas.value.width, canvas.value.height);
    return;
  }
  const data = bodies.map(({ mesh: { positions, normals, triangles, edgePoints, edgeRanges }, box }) => ({
    positions,
    normals,
    triangles,
    edgePoints,
    edgeRanges,
    box,
  }));
  const bitmap = await artist().draw(data, props.color, canvas.value.width, canvas.value.height);
  if (key !== drawn) return;
  context.clearRect(0, 0, canvas.value.width, canvas.value.height);
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
}

onMounted(() => {
  const ratio = Math.max(window.devicePixelRatio, 1);
  canvas.value!.width = WIDTH * ratio;
  canvas.value!.height = HEIGHT * ratio;
  void draw();
});
watch(() => [props.view, props.color], draw);
</script>

<script lang="ts">
let shared: Comlink.Remote<ThumbnailWorker> | null = null;

/** One worker draws the pictures of all parts. */
function artist(): Comlink.Remote<ThumbnailWorker> {
  shared ??= Comlink.wrap<ThumbnailWorker>(
    new Worker(new URL('./thumbnail.worker.ts', import.meta.url), { type: 'module', name: 'thumbnails' }),
  );
  return shared;
}
</script>

<template>
  <canvas
    ref="canvas"
    class="mx-auto block"
    :style="{ width: `${WIDTH}px`, height: `${HEIGHT}px` }"
    aria-hidden="true"
  />
</template>
