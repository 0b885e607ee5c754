<script setup lang="ts">
/** What stands in the assembly, how it is joined, and its motions, as sentences. */
import { addRun, keepPose, newId, renameAssembly, strayedSentence, type JointState } from '@helb/core';
import { computed, useTemplateRef } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import LongList from '../fields/LongList.vue';
import NameField from '../fields/NameField.vue';
import ArrangeForm from './ArrangeForm.vue';
import ContactRow from './ContactRow.vue';
import CouplingCard from './CouplingCard.vue';
import CoupleForm from './CoupleForm.vue';
import DriveRow from './DriveRow.vue';
import FitCheck from './FitCheck.vue';
import InstanceRow from './InstanceRow.vue';
import JointCard from './JointCard.vue';
import MirrorForm from './MirrorForm.vue';
import ReplaceForm from './ReplaceForm.vue';
import RunCard from './RunCard.vue';
import { useTogether } from './together-store.ts';

const design = useDesign();
const session = useSession();
const together = useTogether();
const scroller = useTemplateRef<HTMLElement>('scroller');

/** Its own joints, and those within that move and are not met: these are mended where they stand. */
const joints = computed(() => together.it?.joints.filter((j) => j.assembly === session.activeAssembly || j.fault || j.misses !== null) ?? []); // prettier-ignore
/** Suppressed ones move nothing, and are listed to be brought back. */
const asleep = computed(() => Object.entries(together.assembly?.joints ?? {}).filter(([, j]) => j.suppressed));
const rest = computed(() => asleep.value.length > 0 || (together.it?.couplings.length ?? 0) > 0);
const motions = computed(() => (together.it?.joints ?? []).flatMap((j) => j.motions.map((m) => ({ joint: j, motion: m })))); // prettier-ignore
const coupleable = computed(() => motions.value.filter(({ joint }) => joint.assembly === session.activeAssembly));
const runs = computed(() => Object.entries(together.assembly?.runs ?? {}));
const newRun = () => void (session.notice = design.edit(addRun(session.activeAssembly!, newId('r'), 'Run')));
const poses = computed(() => Object.entries(together.assembly?.poses ?? {}));
const forget = (id: string) => void (session.notice = design.edit(keepPose(session.activeAssembly!, id, null)));
const state = computed(() => {
  const { it, freedoms } = together;
  if (!it || it.members.length === 0) return null;
  if (it.waiting.length > 0) return { text: 'computing', tone: 'text-quiet' };
  if (!it.closed) return { text: 'cannot be met', tone: 'text-bad' };
  if (!freedoms) return { text: 'looking', tone: 'text-quiet' };
  const left = freedoms.whole.freedoms;
  return left === 0
    ? { text: 'all held', tone: 'text-good' }
    : { text: `${left} freedom${left === 1 ? '' : 's'}`, tone: 'text-warn' };
});
const spare = computed(() => together.freedoms?.whole.spare ?? 0);
</script>

<template>
  <section aria-label="Together" class="flex min-h-0 flex-col border-l border-hairline bg-panel">
    <header class="flex items-baseline gap-2 px-4 pt-2.5 pb-2">
      <h2 class="font-semibold">Together</h2>
      <NameField
        v-if="together.assembly"
        class="min-w-0 flex-1 truncate text-xs text-quiet"
        :name="together.assembly.name"
        label="Name of the assembly"
        :rename="(name) => design.edit(renameAssembly(session.activeAssembly!, name))"
      />
      <span v-if="state" class="shrink-0 text-xs" :class="state.tone" data-testid="together-state">{{
        state.text
      }}</span>
    </header>
    <div v-if="together.it" ref="scroller" class="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto px-3 pb-3">
      <p v-for="fault in together.it.faults" :key="fault" class="text-bad" role="alert">{{ fault }}</p>
      <p v-for="one in together.strayed" :key="`${one.part} ${one.step}`" class="text-xs text-warn" role="status">
        {{ strayedSentence(design.design!, one) }}
        <button class="text-link underline" @click="together.settleHomes()">Draw it from here</button>
      </p>
      <LongList
        v-if="together.assembly!.instanceOrder.length > 0"
        v-slot="{ item: id }"
        :items="together.assembly!.instanceOrder"
        :key-of="(id: string) => id"
        :row-height="28"
        :scroller="scroller"
        aria-label="What stands here"
      >
        <InstanceRow :id="id" />
      </LongList>
      <ArrangeForm v-if="together.arranging" :instance="together.arranging" />
      <MirrorForm v-if="together.mirroring" :instances="together.mirroring" />
      <ReplaceForm v-if="together.replacing" :key="together.replacing" :instance="together.replacing" />
      <LongList
        v-if="joints.length > 0"
        v-slot="{ item: joint }"
        class="gap-2"
        :items="joints"
        :key-of="(joint: JointState) => joint.key"
        :row-height="76"
        :scroller="scroller"
        aria-label="Joints"
      >
        <JointCard :state="joint" />
      </LongList>
      <ol v-if="rest" class="flex flex-col gap-2" aria-label="Suppressed joints and couplings">
        <li
          v-for="[id, joint] in asleep"
          :key="id"
          class="rounded-lg border border-dashed border-hairline bg-paper px-3 py-1.5 text-xs text-quiet"
        >
          <!-- prettier-ignore -->
          {{ joint.name }}, suppressed
          <button class="ml-1 text-link underline" @click="together.wake(id)">Bring back</button>
        </li>
        <CouplingCard v-for="coupling in together.it.couplings" :key="coupling.id" :state="coupling" />
      </ol>
      <p
        v-if="joints.length === 0 && together.it.members.length > 1"
        class="rounded-lg border border-dashed border-hairline px-3 py-2 text-center text-quiet"
      >
        Join parts: pick a frame on one, then on another
      </p>
      <p v-if="spare > 0" class="text-xs text-quiet">
        {{ spare }} condition{{ spare === 1 ? ' says' : 's say' }} again what others say; it holds all the same.
      </p>
      <div v-if="motions.length > 0">
        <h3 class="mb-1 text-xs font-semibold text-quiet">Drive</h3>
        <ul class="flex flex-col gap-1.5" aria-label="Motions">
          <DriveRow
            v-for="{ joint, motion } in motions"
            :key="`${joint.key} ${motion.key}`"
            :joint="joint"
            :motion="motion"
          />
        </ul>
        <ContactRow class="mt-1.5" />
        <ul v-if="runs.length > 0" class="mt-1.5 flex flex-col gap-1.5" aria-label="Runs">
          <RunCard v-for="[id, run] in runs" :key="id" :id="id" :run="run" :motions="motions" />
        </ul>
        <p class="mt-1.5 flex flex-wrap gap-x-4 gap-y-1">
          <button class="text-xs text-link underline" @click="newRun">Drive several over time</button>
          <CoupleForm v-if="coupleable.length > 1" :motions="coupleable" />
        </p>
      </div>
      <div v-if="poses.length > 0" class="text-xs">
        <h3 class="mb-1 font-semibold text-quiet">Poses</h3>
        <p v-for="[id, pose] in poses" :key="id" class="flex min-h-6 items-center gap-2" :data-pose="pose.name">
          <button
            class="min-w-0 flex-1 truncate text-left text-link underline"
            @click="pose.exploded ? together.lookApart(pose) : (together.putTogether(), together.lookAtPose(pose))"
          >
            {{ pose.name }}
          </button>
          <button class="text-quiet hover:text-bad" :aria-label="`Forget ${pose.name}`" @click="forget(id)">
            Forget
          </button>
        </p>
      </div>
      <FitCheck v-if="together.it.members.length > 1" />
    </div>
  </section>
</template>
