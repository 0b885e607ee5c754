<script setup lang="ts">
import { Menu, MenuButton } from '@headlessui/vue';
import { asSketch, copyStep, kindOf, moveStep, newId, type Step } from '@helb/core';
import { IconDots } from '@tabler/icons-vue';
import { computed } from 'vue';
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

const move = (to: number) => (session.notice = design.edit(moveStep(props.part, props.stepId, to)));

const { awaitPicks, fill } = useFilling();
/** The plane slot of the step, when it has one. */
const plane = computed(() => Object.entries(kindOf(props.step).slots).find(([, s]) => s.of.kind === 'plane')?.[0]);

/** The copy stands after its original; one on a plane asks for its own. */
function copy(): void {
  const id = newId('s');
  session.notice = design.edit(copyStep(props.part, props.stepId, id, freshName(kindOf(props.step).label)));
  if (session.notice === null && plane.value && asSketch(props.step)) awaitPicks(id, plane.value);
}

const items = computed(() => [
  { label: asSketch(props.step) ? 'Open the sketch' : 'Edit', run: () => emit('open') },
  {
    label: props.step.suppressed ? 'Bring back' : 'Suppress',
    run: () => setSuppressed(props.stepId, !props.step.suppressed),
  },
  ...(kindOf(props.step).extras?.(props.step) ?? []).map(({ label, slot, stored }) => ({
    label: `Add: ${label}`,
    run: () => fill(props.part, props.stepId, slot, stored),
  })),
  ...(props.index > 0 ? [{ label: 'Move up', run: () => move(props.index - 1) }] : []),
  ...(props.last ? [] : [{ label: 'Move down', run: () => move(props.index + 1) }]),
  { label: asSketch(props.step) ? 'Copy to another plane' : 'Duplicate', run: copy },
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
