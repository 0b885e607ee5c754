<script setup lang="ts">
/** Motions that go together, as a sentence. */
import { removeCoupling, type CouplingState } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import JointNumberSlot from './JointNumberSlot.vue';
import { useTogether } from './together-store.ts';

const props = defineProps<{ state: CouplingState }>();
const design = useDesign();
const session = useSession();
const together = useTogether();
const own = computed(() => ({ id: props.state.id, assembly: session.activeAssembly! }));
const nameOf = (joint: string) => together.assembly?.joints[joint]?.name ?? 'a deleted joint';
const numbers = computed(() => (props.state.coupling.kind === 'rack' ? (['lead'] as const) : (['first', 'second'] as const))); // prettier-ignore
const DOES = { gear: 'meshes with', belt: 'is belted to', rack: 'drives the rack of' };
</script>

<template>
  <li
    class="group rounded-lg border bg-card px-3 py-2"
    :class="state.fault ? 'border-bad/50' : 'border-hairline'"
    :data-coupling="state.coupling.name"
  >
    <!-- prettier-ignore -->
    <p class="leading-6">
      <span class="font-semibold">{{ nameOf(state.coupling.a.joint) }}</span> {{ DOES[state.coupling.kind] }}
      <span class="font-semibold">{{ nameOf(state.coupling.b.joint) }}</span
      ><template v-for="key in numbers" :key="key">, <JointNumberSlot :state="own" :number="key" :begin="false" /></template>
    </p>
    <p v-if="state.fault" class="text-bad" role="alert">{{ state.fault }}</p>
    <button
      class="text-xs text-quiet hover:text-bad"
      @click="session.notice = design.edit(removeCoupling(session.activeAssembly!, state.id))"
    >
      Remove
    </button>
  </li>
</template>
