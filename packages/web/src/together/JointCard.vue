<script setup lang="ts">
/** One joint as a sentence: what it lets happen, between what, with its numbers; whether it is met. */
import { changeJoint, JOINT_KINDS, MATE_KINDS, removeJoints, setJointNumber, type JointMotion, type JointNumber, type JointState } from '@helb/core'; // prettier-ignore
import { IconDots } from '@tabler/icons-vue';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import NameField from '../fields/NameField.vue';
import JointNumberSlot from './JointNumberSlot.vue';
import { JOINT_DOES, JOINT_NAMES, type JoiningKind } from './joint-words.ts';
import { useTogether } from './together-store.ts';

const props = defineProps<{ state: JointState }>();
const design = useDesign();
const session = useSession();
const together = useTogether();

const joint = computed(() => props.state.joint);
const fresh = computed(() => together.joining === props.state.id);
const numbers = computed(() => Object.keys(joint.value.numbers).filter((k) => joint.value.numbers[k as JointNumber] !== undefined) as JointNumber[]); // prettier-ignore

/** Numbers it could have and has not. */
const others = computed<readonly (readonly [JointNumber, string, string])[]>(() => {
  const keys = new Set(props.state.motions.map((m) => m.key));
  const all: (readonly [JointNumber, string, string])[] = [
    ['offset', 'an offset', '0 mm'],
    ...(joint.value.kind === 'revolute' || joint.value.kind === 'spherical'
      ? []
      : [['angle', 'an angle', '0 deg'] as const]),
    ...(['slide', 'across', 'turn'] as const).flatMap((k) =>
      keys.has(k)
        ? ([
            [`least_${k}`, `least ${k}`, k === 'turn' ? '-90 deg' : '0 mm'],
            [`most_${k}`, `most ${k}`, k === 'turn' ? '90 deg' : '10 mm'],
            [`rest_${k}`, `${k} at home`, k === 'turn' ? '0 deg' : '0 mm'],
          ] as const)
        : [],
    ),
  ];
  return all.filter(([key]) => joint.value.numbers[key] === undefined);
});
const adding = ref(false);
const more = ref(false);
const options = computed(() => fresh.value || more.value);
const opened = ref<JointNumber | null>(null);

function edit(command: Parameters<typeof design.edit>[0]): boolean {
  session.notice = design.edit(command);
  return session.notice === null;
}
const change = (to: Parameters<typeof changeJoint>[2]) => edit(changeJoint(props.state.assembly, props.state.id, to));

function add(key: JointNumber, text: string): void {
  adding.value = false;
  if (edit(setJointNumber(props.state.assembly, props.state.id, key, text))) opened.value = key;
}

/** Limits are for moving; where it stands at home outside them, it is told. */
const outside = ({ home, least, most }: JointMotion) => (least !== null && home < least - 1e-6) || (most !== null && home > most + 1e-6); // prettier-ignore

const status = computed(() => {
  if (props.state.fault) return { text: 'failed', tone: 'text-bad' };
  if (props.state.reversed) return { text: 'the wrong way round: flip it', tone: 'text-bad' };
  if (props.state.misses !== null) return { text: `misses by ${props.state.misses.toFixed(2)} mm`, tone: 'text-bad' };
  const out = props.state.motions.find((m) => outside(m));
  if (out) return { text: `home is outside its ${out.key}’s limits`, tone: 'text-warn' };
  if (fresh.value) return { text: 'new · Enter keeps, Esc drops', tone: 'text-quiet' };
  return { text: 'met', tone: 'text-good' };
});
</script>

<template>
  <li
    class="group rounded-lg border bg-card px-3 py-2"
    :class="
      fresh
        ? 'border-signal shadow-[0_0_0_2px_var(--color-region-hover)]'
        : state.fault || state.misses !== null
          ? 'border-bad/50'
          : 'border-hairline'
    "
    :data-joint="joint.name"
  >
    <div class="flex items-baseline justify-between gap-2 text-xs">
      <NameField
        class="min-w-0 truncate"
        :name="joint.name"
        label="Name of the joint"
        :rename="(name) => (change({ name }), session.notice)"
      />
      <span class="flex shrink-0 items-center gap-1">
        <span :class="status.tone">{{ status.text }}</span>
        <button
          v-if="!fresh"
          class="grid h-6 w-6 place-items-center rounded text-quiet hover:bg-tray hover:text-ink"
          :aria-label="`More for ${joint.name}`"
          :aria-expanded="more"
          @click="((more = !more), (adding = false))"
        >
          <IconDots :size="14" />
        </button>
      </span>
    </div>
    <p class="mt-0.5 leading-6">
      <span class="font-semibold">{{ state.names[1] }}</span> {{ JOINT_DOES[joint.kind] }}
      <span class="font-semibold">{{ state.names[0] }}</span><template v-for="key in numbers" :key="key"
        >, <JointNumberSlot :state="state" :number="key" :begin="opened === key" @done="opened = null"
      /></template>
    </p>
    <p v-if="state.fault" class="mt-1 border-t border-dashed border-hairline pt-1 text-bad" role="alert">
      {{ state.fault }}
    </p>
    <p v-else-if="state.inTheWay" class="mt-1 text-xs text-bad">Without this one all the others can be met.</p>
    <p v-for="doubt in state.doubts" :key="doubt.side" class="mt-1 text-xs text-warn">
      {{ doubt.says }}
      <button
        v-if="doubt.proposed"
        class="text-link underline"
        @click="change({ [doubt.side]: { instance: [...joint[doubt.side].instance], on: doubt.proposed } })"
      >
        Take it
      </button>
    </p>
    <div v-if="options" class="mt-1 flex flex-wrap items-center gap-x-2 text-xs text-quiet">
      <select
        class="rounded border border-hairline bg-field px-1 py-0.5 text-ink"
        aria-label="What it leaves free"
        :value="joint.kind"
        @change="change({ kind: ($event.target as HTMLSelectElement).value as JoiningKind })"
      >
        <option v-for="kind in [...JOINT_KINDS, ...MATE_KINDS]" :key="kind" :value="kind">
          {{ JOINT_NAMES[kind] }}
        </option>
      </select>
      <button class="hover:text-ink" @click="change({ flip: !joint.flip })">Flip</button>
      <button class="hover:text-ink" :aria-expanded="adding" @click="adding = !adding">Add a number</button>
      <template v-if="!fresh">
        <button class="hover:text-ink" @click="change({ suppressed: true })">Suppress</button>
        <button class="text-bad" @click="edit(removeJoints(state.assembly, [state.id]))">Remove</button>
      </template>
    </div>
    <div v-if="options && adding" class="mt-1 flex flex-wrap gap-x-2 text-xs">
      <button
        v-for="[key, label, text] in others"
        :key="key"
        class="min-h-6 text-link underline"
        @click="add(key, text)"
      >
        {{ label }}
      </button>
    </div>
  </li>
</template>
