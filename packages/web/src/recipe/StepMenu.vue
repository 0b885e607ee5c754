<script setup lang="ts">
import { Menu, MenuButton } from '@headlessui/vue';
import {
  asSketch, copyStep, copySteps, groupSteps, kindOf, moveStep, newId, replaceSketch, stepWithRests, usersOfStep, type Step,
} from '@helb/core'; // prettier-ignore
import { IconDots } from '@tabler/icons-vue';
import { computed } from 'vue';
import { toast } from 'vue-sonner';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import ActionItems from '../fields/ActionItems.vue';
import { useFilling } from '../slots/filling.ts';
import { useVerbs } from '../verbs/verbs.ts';

const props = defineProps<{ part: string; stepId: string; step: Step; index: number; last: boolean }>();
const emit = defineEmits<{ open: [] }>();
const design = useDesign();
const session = useSession();
const { removeStep, setSuppressed, freshName } = useVerbs();

/** To this place among the others. */
function move(to: number): void {
  const others = home.value.stepOrder.filter((id) => id !== props.stepId);
  session.notice = design.edit(moveStep(props.part, props.stepId, others[to - 1] ?? null));
}

const { awaitPicks, fill } = useFilling();
/** The plane slot of the step, when it has one. */
const plane = computed(() => Object.entries(kindOf(props.step).slots).find(([, s]) => s.of.kind === 'plane')?.[0]);

/** The copy stands after its original; one on a plane asks for its own. */
function copy(): void {
  const id = newId('s');
  session.notice = design.edit(copyStep(props.part, props.stepId, id, freshName(kindOf(props.step).label)));
  if (session.notice === null && plane.value && asSketch(props.step)) awaitPicks(id, plane.value);
}

const home = computed(() => design.design!.parts[props.part]!);

/** What stands above it, with which it can be grouped. */
const above = computed(() => home.value.stepOrder[props.index - 1]);
function group(): void {
  const own = home.value.steps[above.value!]!.group;
  const names = new Set(Object.values(home.value.steps).map((s) => s.group));
  let n = 1;
  while (names.has(`Group ${n}`)) n++;
  const steps = own === undefined ? [above.value!, props.stepId] : [props.stepId];
  session.notice = design.edit(groupSteps(props.part, steps, own ?? `Group ${n}`));
}

/** With all it rests on, so that it is whole there. */
function copyTo(to: string): void {
  const copies = stepWithRests(home.value, props.stepId).map((id) => [id, newId('s')] as const);
  session.notice = design.edit(copySteps(props.part, to, copies));
  if (session.notice !== null) return;
  const more = copies.length - 1;
  const with_ = more === 0 ? '' : more === 1 ? ', with the step it rests on' : `, with the ${more} steps it rests on`;
  toast(`${props.step.name} is at the end of ${design.design!.parts[to]!.name}${with_}.`);
}

/** A sketch that steps have used is shown again, to be picked from. */
function toggleShown(): void {
  const shown = new Set(session.shownSketches);
  if (!shown.delete(props.stepId)) shown.add(props.stepId);
  session.shownSketches = shown;
}

/** Other sketches of this part that could take the place of this one. */
const otherSketches = computed(() =>
  asSketch(props.step) && usersOfStep(home.value, props.stepId).length > 0
    ? home.value.stepOrder.filter((id) => id !== props.stepId && asSketch(home.value.steps[id]))
    : [],
);

const items = computed(() => [
  { label: asSketch(props.step) ? 'Open the sketch' : 'Edit', run: () => emit('open') },
  ...(asSketch(props.step) && usersOfStep(home.value, props.stepId).length > 0
    ? [{ label: session.shownSketches.has(props.stepId) ? 'Hide' : 'Show on the stage', run: toggleShown }]
    : []),
  {
    label: props.step.suppressed ? 'Bring back' : 'Suppress',
    run: () => setSuppressed(props.stepId, !props.step.suppressed),
  },
  ...(props.last || session.standing === props.stepId
    ? []
    : [{ label: 'Stand here', run: () => session.standAt(props.stepId) }]),
  ...(kindOf(props.step).extras?.(props.step) ?? []).map(({ label, slot, stored }) => ({
    label: `Add: ${label}`,
    run: () => fill(props.part, props.stepId, slot, stored),
  })),
  ...(props.index > 0 ? [{ label: 'Move up', run: () => move(props.index - 1) }] : []),
  ...(props.last ? [] : [{ label: 'Move down', run: () => move(props.index + 1) }]),
  { label: asSketch(props.step) ? 'Copy to another plane' : 'Duplicate', run: copy },
  ...(above.value && !props.step.group ? [{ label: 'Group with the step above', run: group }] : []),
  ...(props.step.group
    ? [
        {
          label: 'Take out of its group',
          run: () => (session.notice = design.edit(groupSteps(props.part, [props.stepId], null))),
        },
      ]
    : []),
  ...otherSketches.value.map((id) => ({
    label: `Use ${home.value.steps[id]!.name} in its place`,
    run: () => (session.notice = design.edit(replaceSketch(props.part, props.stepId, id))),
  })),
  ...design
    .design!.partOrder.filter((id) => id !== props.part)
    .map((id) => ({ label: `Copy to ${design.design!.parts[id]!.name}`, run: () => copyTo(id) })),
  { label: 'Delete', run: () => removeStep(props.stepId) },
]);
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton
      class="grid h-6 w-6 place-items-center rounded text-quiet hover:bg-tray hover:text-ink"
      :aria-label="`More for ${step.name}`"
      ><IconDots :size="15"
    /></MenuButton>
    <ActionItems :items="items" side="right" />
  </Menu>
</template>
