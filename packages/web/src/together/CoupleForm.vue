<script setup lang="ts">
/** Couples two motions: gears, a belt, or a rack with its pinion. */
import { addCoupling, COUPLING_KINDS, newId, type Coupling, type JointMotion, type JointState } from '@helb/core';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { MOTION_NAMES } from './joint-words.ts';

const props = defineProps<{ motions: readonly { readonly joint: JointState; readonly motion: JointMotion }[] }>();
const design = useDesign();
const session = useSession();
const open = ref(false);
const kind = ref<Coupling['kind']>('gear');
const one = ref(0);
const other = ref(1);
const WORDS: Readonly<Record<Coupling['kind'], string>> = {
  gear: 'meshes with',
  belt: 'is belted to',
  rack: 'drives the rack of',
};
const NUMBERS: Readonly<Record<Coupling['kind'], Coupling['numbers']>> = { gear: { first: '20', second: '40' }, belt: { first: '20', second: '40' }, rack: { lead: '50 mm' } }; // prettier-ignore
const turning = computed(() =>
  props.motions.map((m, i) => ({ i, ...m })).filter(({ motion }) => motion.key === 'turn'),
);
const seconds = computed(() => (kind.value === 'rack' ? props.motions.map((m, i) => ({ i, ...m })).filter(({ motion }) => motion.key !== 'turn') : turning.value)); // prettier-ignore
const label = ({ joint, motion }: (typeof props.motions)[number]) => `${joint.joint.name}, ${MOTION_NAMES[motion.key]}`;

function make(): void {
  const [a, b] = [props.motions[one.value], props.motions[other.value]];
  if (!a || !b || one.value === other.value)
    return void (session.notice = 'Two different motions are coupled; choose another.');
  if (!seconds.value.some(({ i }) => i === other.value))
    return void (session.notice = 'A rack slides, and wheels turn; choose another motion.');
  const coupling: Coupling = {
    kind: kind.value,
    name: `${a.joint.joint.name} ${WORDS[kind.value]} ${b.joint.joint.name}`.slice(0, 80),
    a: { joint: a.joint.id, motion: a.motion.key },
    b: { joint: b.joint.id, motion: b.motion.key },
    numbers: NUMBERS[kind.value],
  };
  session.notice = design.edit(addCoupling(session.activeAssembly!, newId('c'), coupling));
  if (session.notice === null) open.value = false;
}
</script>

<template>
  <button v-if="!open" class="text-xs text-link underline" @click="open = true">Couple two motions</button>
  <form
    v-else
    class="flex flex-wrap items-center gap-1.5 rounded-lg border border-signal bg-card px-3 py-2 text-xs"
    @submit.prevent="make"
    @keydown.escape.stop="open = false"
  >
    <!-- prettier-ignore -->
    <select v-model="one" class="max-w-full rounded border border-hairline bg-field px-1 py-0.5" aria-label="First motion">
      <option v-for="m in turning" :key="m.i" :value="m.i">{{ label(m) }}</option>
    </select>
    <select
      v-model="kind"
      class="rounded border border-hairline bg-field px-1 py-0.5"
      aria-label="How they are coupled"
    >
      <option v-for="k in COUPLING_KINDS" :key="k" :value="k">{{ WORDS[k] }}</option>
    </select>
    <select
      v-model="other"
      class="max-w-full rounded border border-hairline bg-field px-1 py-0.5"
      aria-label="Second motion"
    >
      <option v-for="m in seconds" :key="m.i" :value="m.i">{{ label(m) }}</option>
    </select>
    <button class="button-primary py-0.5">Couple</button>
    <button type="button" class="button py-0.5" @click="open = false">Drop</button>
  </form>
</template>
