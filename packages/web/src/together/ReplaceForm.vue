<script setup lang="ts">
/** Another part in an instance’s place: its joints stay, and each says where it finds no face to sit on. */
import { assembliesWith, changeJoint, correspondingSpot, lookOfView, markInstances, severalEdits, type Edit, type Instance } from '@helb/core'; // prettier-ignore
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useTogether } from './together-store.ts';

const props = defineProps<{ instance: string }>();
const design = useDesign();
const session = useSession();
const together = useTogether();
const evaluation = useEvaluation();

const now = computed(() => together.assembly?.instances[props.instance]?.of);
const choices = computed(() => {
  const { parts = {}, partOrder = [], assemblies = {}, assemblyOrder = [] } = design.design ?? {};
  const around = design.design ? assembliesWith(design.design, session.activeAssembly!) : new Set<string>();
  const all: { label: string; of: Instance['of'] }[] = [
    ...partOrder.map((part) => ({ label: parts[part]!.name, of: { part } })),
    ...assemblyOrder.filter((id) => !around.has(id)).map((assembly) => ({ label: assemblies[assembly]!.name, of: { assembly } })),
  ]; // prettier-ignore
  return all.filter(({ of }) => JSON.stringify(of) !== JSON.stringify(now.value));
});
const chosen = ref(0);

function replace(): void {
  const choice = choices.value[chosen.value];
  if (!choice) return;
  const { moved, edits } = jointsOnto(choice.of);
  const replaced = markInstances(session.activeAssembly!, [props.instance], { of: choice.of });
  session.notice = design.edit(severalEdits(`Replace a part by ${choice.label}`, [replaced, ...edits]));
  if (session.notice !== null) return;
  together.replacing = null;
  if (moved.length > 0)
    session.notice = `${moved.join(', ')} now ${moved.length === 1 ? 'sits' : 'sit'} on the nearest alike face or edge of ${choice.label}; look whether it is the one meant.`;
}

/** Its joints, on what corresponds; those that find nothing alike stay as they are, and say what they miss. */
function jointsOnto(of: Instance['of']): { moved: string[]; edits: Edit[] } {
  const own = together.assembly!;
  const lookOf = (what: Instance['of'] | undefined) => {
    const view = what && 'part' in what ? evaluation.parts.get(what.part) : undefined;
    return view ? lookOfView(view) : null;
  };
  const [from, to] = [lookOf(now.value), lookOf(of)];
  const moved: string[] = [];
  const edits: Edit[] = [];
  for (const [id, joint] of Object.entries(own.joints))
    for (const side of ['a', 'b'] as const) {
      const { instance, on } = joint[side];
      if (instance.length !== 1 || instance[0] !== props.instance || !from || !to) continue;
      const spot = correspondingSpot(on, from, to);
      if (!spot || spot === on) continue;
      moved.push(joint.name);
      edits.push(changeJoint(session.activeAssembly!, id, { [side]: { instance: [...instance], on: spot } }));
    }
  return { moved: [...new Set(moved)], edits };
}
</script>

<template>
  <form
    class="flex flex-wrap items-center gap-2 rounded-lg border border-signal bg-card px-3 py-2 text-xs"
    @submit.prevent="replace"
    @keydown.escape.stop="together.replacing = null"
  >
    <span>{{ together.it?.links.find((l) => l.key === instance)?.name }} by</span>
    <select
      v-model="chosen"
      class="max-w-40 rounded border border-hairline bg-field px-1 py-0.5"
      aria-label="What takes its place"
    >
      <option v-for="(choice, i) in choices" :key="i" :value="i">{{ choice.label }}</option>
    </select>
    <button class="button-primary py-0.5" :disabled="choices.length === 0">Replace</button>
    <button type="button" class="button py-0.5" @click="together.replacing = null">Drop</button>
  </form>
</template>
