<script setup lang="ts">
/** What else can be done with a dimension. */
import { Menu, MenuButton } from '@headlessui/vue';
import { deleteDimension, makeDial, moveDimensions, newId, type DimensionEntry } from '@helb/core';
import { IconDots } from '@tabler/icons-vue';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import ActionItems from '../fields/ActionItems.vue';
import { useStars } from '../trial/watched.ts';
import { useDimensionEdit } from './dimension-edit.ts';
import { useProjectDimensions } from './project-dimensions.ts';

const props = defineProps<{ entry: DimensionEntry }>();
const emit = defineEmits<{ details: [] }>();
const design = useDesign();
const session = useSession();
const project = useProjectDimensions();
const { stars, toggle } = useStars();
const { at } = useDimensionEdit();

/** Those it stands among in the document. */
const siblings = computed(() => {
  const { owner } = props.entry;
  if (owner.level === 'design') return design.design!.dimensionOrder;
  return owner.level === 'part' ? design.design!.parts[owner.part]!.dimensionOrder : [];
});
function move(by: -1 | 1): void {
  const i = siblings.value.indexOf(props.entry.ref);
  const before = siblings.value[by < 0 ? i - 1 : i + 2] ?? null;
  session.notice = design.edit(moveDimensions([props.entry.ref], before));
}
/** A name for the dial that is free in the design. */
function promote(): void {
  const taken = new Set(Object.values(design.design!.dimensions).map((d) => d.name));
  const base = props.entry.owner.level === 'slot' ? `${props.entry.path.at(-2)}_${props.entry.name}` : props.entry.name;
  let name = base.slice(0, 36);
  for (let n = 2; taken.has(name); n++) name = `${base.slice(0, 36)}_${n}`;
  session.notice = design.edit(makeDial(props.entry.ref, newId('d'), name));
}

/** It has a place of its own, rather than one in a sketch or step. */
const isNamed = computed(() => !('step' in props.entry.owner));

const items = computed(() => {
  const { ref: reference, owner } = props.entry;
  const place = siblings.value.indexOf(reference);
  return [
    { label: 'Trace it', run: () => (session.traced = reference) },
    { label: stars.value.has(reference) ? 'Watch it no more' : 'Watch it', run: () => toggle(reference) },
    ...(isNamed.value ? [{ label: 'Range, heading, note', run: () => emit('details') }] : []),
    ...(!isNamed.value && !props.entry.measured ? [{ label: 'Make it a dial', run: promote }] : []),
    ...(place > 0 ? [{ label: 'Move up', run: () => move(-1) }] : []),
    ...(place >= 0 && place < siblings.value.length - 1 ? [{ label: 'Move down', run: () => move(1) }] : []),
    ...(owner.level === 'design' && !props.entry.measured
      ? [{ label: 'Share with the project', run: async () => (session.notice = await project.give(reference)) }]
      : []),
    ...(isNamed.value ? [{ label: 'Delete', run: () => at(reference, deleteDimension(reference)) }] : []),
  ];
});
</script>

<template>
  <Menu as="div" class="relative shrink-0">
    <MenuButton
      class="grid h-6 w-5 place-items-center rounded text-quiet hover:bg-tray hover:text-ink"
      :aria-label="`More for ${entry.path.join('.')}`"
      ><IconDots :size="14"
    /></MenuButton>
    <ActionItems :items="items" side="right" />
  </Menu>
</template>
