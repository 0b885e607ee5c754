<script setup lang="ts">
/** One instance: its name, whether it is fixed, and how it can still move. */
import { changeJoint, instanceName, markInstances } from '@helb/core';
import { IconAnchor, IconEye, IconEyeOff } from '@tabler/icons-vue';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import NameField from '../fields/NameField.vue';
import { colorOfPart } from '../stage/colors.ts';
import { JOINT_NAMES } from './joint-words.ts';
import { useTogether } from './together-store.ts';

const props = defineProps<{ id: string }>();
const design = useDesign();
const session = useSession();
const together = useTogether();

const own = computed(() => together.assembly?.instances[props.id]);
const link = computed(() => together.it?.linkOf.get(props.id));
const freedom = computed(() => together.freedoms?.links.find((f) => f.link === link.value));
const name = computed(() => (together.assembly ? instanceName(design.design!, together.assembly, props.id) : ''));
const isChosen = computed(() => together.chosen.has(props.id));
const color = computed(() => (own.value && 'part' in own.value.of ? colorOfPart(design.design, own.value.of.part) : 'var(--color-quiet)')); // prettier-ignore

function mark(marks: Parameters<typeof markInstances>[2]): string | null {
  return (session.notice = design.edit(markInstances(session.activeAssembly!, [props.id], marks)));
}

/** Joints of this assembly that would hold it, were they of another kind. */
const held = computed(() =>
  (freedom.value?.held ?? []).flatMap(({ joint, kind }) => {
    const state = together.it?.joints.find((j) => j.key === joint);
    return state?.assembly === session.activeAssembly ? [{ joint: state, kind }] : [];
  }),
);
function hold({ joint, kind }: (typeof held.value)[number]): void {
  session.notice = design.edit(changeJoint(session.activeAssembly!, joint.id, { kind }));
}

function choose(event: MouseEvent): void {
  const next = new Set(event.shiftKey ? together.chosen : []);
  if (isChosen.value) next.delete(props.id);
  else next.add(props.id);
  together.chosen = next;
  together.picked = [];
}

function open(): void {
  if (!own.value) return;
  if ('part' in own.value.of)
    session.openInPlace(own.value.of.part, { assembly: session.activeAssembly!, instance: [props.id] }); // prettier-ignore
  else session.openAssembly(own.value.of.assembly);
}
</script>

<template>
  <li
    v-if="own"
    class="group flex min-h-7 flex-wrap items-center gap-1.5 rounded px-1 text-xs"
    :class="[isChosen ? 'bg-signal-soft' : 'hover:bg-tray', own.suppressed ? 'text-quiet line-through' : '']"
    :data-instance="name"
  >
    <button
      class="h-3.5 w-3.5 shrink-0 rounded-sm border border-hairline"
      :style="{ background: color }"
      :aria-pressed="isChosen"
      :aria-label="`Pick ${name}`"
      @click="choose"
    />
    <NameField
      class="min-w-0 shrink truncate"
      :name="name"
      label="Name of the instance"
      :rename="(n) => mark({ name: n })"
    />
    <span class="min-w-0 flex-1 truncate text-quiet" :title="freedom?.says">{{
      own.suppressed ? '' : own.fixed ? 'fixed' : (freedom?.says ?? '')
    }}</span>
    <button v-if="own.suppressed" class="text-link underline" @click="mark({ suppressed: false })">Bring back</button>
    <template v-else>
      <button
        v-if="freedom && freedom.freedoms > 0"
        class="number grid h-6 min-w-6 place-items-center rounded text-warn hover:bg-panel"
        :aria-label="`Show how ${name} can still move`"
        :title="`${freedom.freedoms} way${freedom.freedoms === 1 ? '' : 's'} to move: show`"
        @click="together.showFreedom(freedom.link)"
      >
        {{ freedom.freedoms }}
      </button>
      <button
        class="grid h-6 w-6 place-items-center rounded hover:bg-panel"
        :class="own.fixed ? 'text-ink' : 'text-hairline group-hover:text-quiet'"
        :aria-pressed="own.fixed === true"
        :aria-label="own.fixed ? `Free ${name}` : `Fix ${name}`"
        @click="mark({ fixed: !own.fixed })"
      >
        <IconAnchor :size="14" />
      </button>
      <button
        class="grid h-6 w-6 place-items-center rounded text-quiet hover:bg-panel"
        :aria-pressed="own.hidden === true"
        :aria-label="own.hidden ? `Show ${name}` : `Hide ${name}`"
        @click="mark({ hidden: !own.hidden })"
      >
        <component :is="own.hidden ? IconEyeOff : IconEye" :size="14" />
      </button>
      <button class="text-link underline opacity-0 group-hover:opacity-100 focus:opacity-100" @click="open">
        Edit
      </button>
    </template>
    <p v-if="isChosen && held.length > 0" class="w-full pb-1 pl-5 text-quiet">
      It would be held more if
      <template v-for="(one, i) in held" :key="one.joint.id + one.kind"
        >{{ i > 0 ? ', or if' : '' }}
        <button class="text-link underline" @click="hold(one)">
          {{ one.joint.joint.name }} were {{ JOINT_NAMES[one.kind].toLowerCase() }}
        </button></template
      >.
    </p>
  </li>
</template>
