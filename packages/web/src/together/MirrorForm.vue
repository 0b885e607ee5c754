<script setup lang="ts">
/** The picked parts on the other side of a plane of the assembly, or of the face that is picked. */
import { poseWithin, turned, type MirrorPlane, type Vec3 } from '@helb/core';
import { computed, ref } from 'vue';
import { useSession } from '../design/session.ts';
import { useMirroring } from './mirroring.ts';
import { useTogether } from './together-store.ts';

const props = defineProps<{ instances: readonly string[] }>();
const together = useTogether();
const session = useSession();
const { mirror } = useMirroring();

const PLANES: Readonly<Record<string, Vec3>> = { yz: [1, 0, 0], zx: [0, 1, 0], xy: [0, 0, 1] };
const face = computed(() => {
  const spot = together.picked.at(-1);
  return spot ? { label: spot.label, pose: poseWithin(together.poseOf(spot.member), spot.frame) } : null;
});
const across = ref(face.value ? 'face' : 'yz');
const busy = ref(false);

async function make(): Promise<void> {
  const plane: MirrorPlane =
    across.value === 'face' && face.value
      ? { origin: face.value.pose.at, normal: turned(face.value.pose.turn, [0, 0, 1]) }
      : { origin: [0, 0, 0], normal: PLANES[across.value] ?? PLANES.yz! };
  busy.value = true;
  const told = await mirror(props.instances, plane);
  busy.value = false;
  if (told === null) return;
  if (told.length > 0) session.notice = told.join(' ');
  together.mirroring = null;
  together.picked = [];
  together.chosen = new Set();
}
</script>

<template>
  <form
    class="flex flex-wrap items-center gap-2 rounded-lg border border-signal bg-card px-3 py-2 text-xs"
    aria-label="Mirror"
    @submit.prevent="make"
    @keydown.escape.stop="together.mirroring = null"
  >
    <!-- prettier-ignore -->
    <span>Mirror {{ instances.length === 1 ? 'the picked part' : `the ${instances.length} picked parts` }}, with joints, across</span>
    <select v-model="across" class="max-w-full rounded border border-hairline bg-field px-1 py-0.5" aria-label="Plane">
      <option v-if="face" value="face">{{ face.label }}</option>
      <option v-for="(_, name) in PLANES" :key="name" :value="name">the {{ name }} plane of the assembly</option>
    </select>
    <p class="w-full text-quiet">
      A part that is its own mirror image is turned; of any other its opposite hand is made, and follows it. An assembly
      is made anew of such parts, with its joints.
    </p>
    <button class="button-primary py-0.5" :disabled="busy">{{ busy ? 'Computing' : 'Mirror' }}</button>
    <button type="button" class="button py-0.5" @click="together.mirroring = null">Drop</button>
  </form>
</template>
