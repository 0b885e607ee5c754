<script setup lang="ts">
/** A run: motions driven together over time, each through points that stand here as numbers. */
import { addPointToRun, changeRun, driveInRun, dropPointFromRun, newId, pointKeys, removeRun, valueAt, type JointMotion, type JointState, type Run } from '@helb/core'; // prettier-ignore
import { IconChartLine, IconPlayerPause, IconPlayerPlay } from '@tabler/icons-vue';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import NameField from '../fields/NameField.vue';
import { MOTION_NAMES } from './joint-words.ts';
import RunNumber from './RunNumber.vue';
import { useRuns } from './runs-store.ts';
import { useTogether } from './together-store.ts';

const props = defineProps<{
  id: string;
  run: Run;
  motions: readonly { readonly joint: JointState; readonly motion: JointMotion }[];
}>();
const design = useDesign();
const session = useSession();
const together = useTogether();
const runs = useRuns();

const assembly = computed(() => session.activeAssembly!);
const course = computed(() => runs.courses.get(props.id));
const at = computed(() => (runs.time?.id === props.id ? runs.time.at : 0));
const going = computed(() => (runs.going?.id === props.id ? runs.going : null));
const isPlaying = computed(() => runs.playing === props.id);
const undriven = computed(() => props.motions.filter(({ joint, motion }) => !Object.values(props.run.drives).some((d) => d.joint === joint.key && d.motion === motion.key))); // prettier-ignore
const edit = (made: Parameters<typeof design.edit>[0]) => void (session.notice = design.edit(made));

/** As it can be typed: where the motion stands now. */
function typed(joint: string, key: string): string {
  const motion = together.it?.joints.find((j) => j.key === joint)?.motions.find((m) => m.key === key);
  const value = motion && together.it && together.now ? valueAt(together.it.mechanism, together.now, motion) : 0;
  return key === 'turn' ? `${Number(((value * 180) / Math.PI).toFixed(3))}°` : `${Number(value.toFixed(4))} mm`;
}

function driveMore(event: Event): void {
  const select = event.target as HTMLSelectElement;
  const found = undriven.value[Number(select.value)];
  select.value = '';
  if (!found) return;
  const { joint, motion } = found;
  const start = typed(joint.key, motion.key);
  const drive = {
    name: joint.joint.name,
    joint: joint.key,
    motion: motion.key,
    between: 'even' as const,
    numbers: { at_1: '0', to_1: start },
  };
  edit(driveInRun(assembly.value, props.id, newId('d'), drive));
}

function addPoint(id: string): void {
  const state = course.value?.drives.find((d) => d.id === id);
  const { joint, motion } = props.run.drives[id]!;
  const last = state?.points.at(-1)?.at ?? 0;
  edit(addPointToRun(assembly.value, props.id, id, String(Number((last + 1).toFixed(3))), typed(joint, motion)));
}

const eased = (id: string) => {
  const drive = props.run.drives[id]!;
  edit(driveInRun(assembly.value, props.id, id, { ...drive, between: drive.between === 'eased' ? 'even' : 'eased' }));
};
</script>

<template>
  <li class="rounded-lg border border-hairline bg-card px-3 py-2 text-xs" :data-run="run.name">
    <div class="flex items-center gap-2">
      <NameField
        class="min-w-0 flex-1"
        :name="run.name"
        label="Name of the run"
        :rename="(name) => design.edit(changeRun(assembly, id, { name }))"
      />
      <span class="number text-quiet">{{ at.toFixed(2) }} of {{ (course?.seconds ?? 0).toFixed(2) }} s</span>
    </div>
    <div class="flex items-center gap-2">
      <button
        class="grid h-6 w-6 shrink-0 place-items-center rounded text-quiet hover:bg-tray hover:text-ink disabled:opacity-40"
        :aria-label="isPlaying ? `Stop ${run.name}` : `Play ${run.name}`"
        :disabled="!course?.at"
        @click="isPlaying ? runs.pause() : runs.play(id)"
      >
        <component :is="isPlaying ? IconPlayerPause : IconPlayerPlay" :size="14" />
      </button>
      <input
        type="range"
        class="h-1 min-w-0 flex-1 accent-[var(--color-petrol)]"
        :aria-label="`Time in ${run.name}`"
        min="0"
        :max="course?.seconds ?? 0"
        step="any"
        :disabled="!course?.at"
        :value="at"
        @input="(runs.pause(), runs.showAt(id, Number(($event.target as HTMLInputElement).value)))"
      />
      <button
        class="grid h-6 w-6 shrink-0 place-items-center rounded text-quiet hover:bg-tray hover:text-ink disabled:opacity-40"
        :aria-label="`Chart ${run.name}`"
        :disabled="!course?.at"
        @click="together.charted = { run: id }"
      >
        <IconChartLine :size="14" />
      </button>
    </div>
    <p v-if="going" role="status" class="flex items-center gap-2 text-quiet">
      <progress class="h-1.5 w-28" :value="going.done" :max="going.total" />
      {{ going.done }} of {{ going.total }}
      <button class="text-link underline" @click="runs.cancel()">Stop</button>
    </p>
    <div v-for="state in course?.drives ?? []" :key="state.id" class="mt-1" :data-driven="state.drive.name">
      <p class="leading-5">
        <span class="font-semibold">{{ state.drive.name }}</span>
        <span class="text-quiet">, {{ MOTION_NAMES[state.drive.motion] }}, </span>
        <button class="text-link underline" @click="eased(state.id)">
          {{ state.drive.between === 'eased' ? 'eased' : 'at one speed' }}
        </button>
        <button
          class="float-right text-quiet hover:text-bad"
          :aria-label="`Drive ${state.drive.name} no longer`"
          @click="edit(driveInRun(assembly, id, state.id, null))"
        >
          ×
        </button>
      </p>
      <p v-for="n in state.listed" :key="n" class="flex flex-wrap items-center gap-1 leading-6">
        <!-- prettier-ignore -->
        <span class="text-quiet">at</span>
        <RunNumber :reference="`${state.id}.${pointKeys(n)[0]}`" label="seconds" /><span class="text-quiet">s</span>
        <RunNumber :reference="`${state.id}.${pointKeys(n)[1]}`" label="where it is then" />
        <button
          class="text-quiet hover:text-bad"
          aria-label="Take this point away"
          @click="edit(dropPointFromRun(assembly, id, state.id, n))"
        >
          ×
        </button>
      </p>
      <button class="text-link underline" @click="addPoint(state.id)">Add where it stands now</button>
      <p v-if="state.fault" class="text-bad" role="alert">{{ state.fault }}</p>
    </div>
    <div class="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1">
      <select
        v-if="undriven.length > 0"
        class="max-w-full rounded border border-hairline bg-field px-1 py-0.5"
        :aria-label="`Drive one more in ${run.name}`"
        @change="driveMore"
      >
        <option value="">Drive…</option>
        <option v-for="(m, i) in undriven" :key="i" :value="i">
          {{ m.joint.joint.name }}, {{ MOTION_NAMES[m.motion.key] }}
        </option>
      </select>
      <label class="flex items-center gap-1">
        <input
          type="checkbox"
          :checked="run.push === true"
          class="accent-[var(--color-petrol)]"
          @change="edit(changeRun(assembly, id, { push: !run.push }))"
        />
        parts push
      </label>
      <label class="flex items-center gap-1">
        <input
          type="checkbox"
          :checked="run.sprung === true"
          class="accent-[var(--color-petrol)]"
          @change="edit(changeRun(assembly, id, { sprung: !run.sprung }))"
        />
        the rest springs home
      </label>
      <button class="text-quiet hover:text-bad" @click="edit(removeRun(assembly, id))">Remove</button>
    </div>
  </li>
</template>
