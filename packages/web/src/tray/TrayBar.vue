<script setup lang="ts">
/** The parts of the design; the one worked on is picked here. */
import { addAssembly, deleteAssembly, formatNumber, massOf, newId, renameAssembly, renamePart } from '@helb/core';
import { IconStack2 } from '@tabler/icons-vue';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useFlex } from '../flex/flex-store.ts';
import NameField from '../fields/NameField.vue';
import { colorOfPart } from '../stage/colors.ts';
import { DRAGGED, usePlacing } from '../together/placing.ts';
import { useVerbs } from '../verbs/verbs.ts';
import PartMenu from './PartMenu.vue';
import PartPicture from './PartPicture.vue';

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const flex = useFlex();
const { newPart } = useVerbs();
const { place } = usePlacing();

function newAssembly(): void {
  const id = newId('a');
  session.notice = design.edit(addAssembly(id, 'Assembly'));
  if (session.notice === null) session.openAssembly(id);
}

function dragged(event: DragEvent, of: object): void {
  event.dataTransfer?.setData(DRAGGED, JSON.stringify(of));
}

const assemblies = computed(() =>
  (design.design?.assemblyOrder ?? []).flatMap((id) => {
    const own = design.design?.assemblies?.[id];
    return own ? [{ id, own, count: own.instanceOrder.length }] : [];
  }),
);

/** How often a part stands in the assembly on the stage. */
const counts = computed(() => {
  const found = new Map<string, number>();
  const own = design.design?.assemblies?.[session.activeAssembly ?? ''];
  for (const { of } of Object.values(own?.instances ?? {}))
    if ('part' in of) found.set(of.part, (found.get(of.part) ?? 0) + 1);
  return found;
});

/** How the dials fared when they were last moved. */
const flexed = computed(() => {
  if (!flex.of) return null;
  if (flex.progress) return { text: 'moving', tone: '' };
  if (flex.stale) return { text: 'changed since', tone: '' };
  const failing = flex.dials.filter((f) => f.below || f.above).length;
  if (failing > 0) return { text: `${failing} of ${flex.dials.length} fail`, tone: 'text-bad' };
  if (flex.pairs.length > 0) return { text: 'fails in pairs', tone: 'text-bad' };
  return flex.whole ? { text: `${flex.dials.length} dials stand`, tone: 'text-good' } : { text: 'stopped', tone: '' };
});

function caption(id: string): string {
  const view = evaluation.parts.get(id);
  const material = design.design?.parts[id]?.material;
  if (!view) return 'computing';
  if (view.steps.some((s) => s.status === 'failed')) return 'a step fails';
  if (view.bodies.length === 0) return 'no body yet';
  if (!material) return `${view.bodies.length} bod${view.bodies.length === 1 ? 'y' : 'ies'}`;
  return `${formatNumber(
    massOf(
      view.bodies.reduce((sum, b) => sum + b.volume, 0),
      material,
    ),
    3,
  )} kg`;
}
</script>

<template>
  <section
    aria-label="Parts"
    class="flex items-stretch gap-2 overflow-x-auto border-t border-hairline bg-tray px-3 py-2.5"
  >
    <div
      v-for="id in design.design?.partOrder ?? []"
      :key="id"
      class="relative flex w-32 shrink-0 cursor-pointer flex-col rounded-lg border bg-panel px-2 pt-1.5 pb-1"
      :class="session.activePart === id ? 'border-signal' : 'border-hairline hover:border-quiet'"
      :data-part="design.design!.parts[id]!.name"
      :draggable="session.activeAssembly !== null"
      @dragstart="dragged($event, { part: id })"
      @click="session.activePart === id || session.openPart(id)"
    >
      <button :aria-pressed="session.activePart === id" :aria-label="`Work on ${design.design!.parts[id]!.name}`">
        <PartPicture :view="evaluation.parts.get(id)" :color="colorOfPart(design.design, id)" />
      </button>
      <NameField
        class="mt-0.5 text-xs"
        :name="design.design!.parts[id]!.name"
        label="Name of the part"
        :rename="(name) => design.edit(renamePart(id, name))"
      />
      <span class="number flex text-[11px] text-quiet"
        ><span class="flex-1">{{ caption(id) }}</span
        ><span v-if="counts.has(id)">× {{ counts.get(id) }}</span></span
      >
      <button
        v-if="session.activeAssembly"
        class="absolute top-1 left-1 min-h-6 rounded border border-hairline bg-panel px-1.5 text-[11px] text-link hover:border-link"
        :aria-label="`Place ${design.design!.parts[id]!.name}`"
        @click.stop="place({ part: id })"
      >
        Place
      </button>
      <PartMenu :part="id" />
    </div>
    <div
      v-for="{ id, own, count } in assemblies"
      :key="id"
      class="relative flex w-32 shrink-0 cursor-pointer flex-col rounded-lg border border-double bg-panel px-2 pt-1.5 pb-1"
      :class="session.activeAssembly === id ? 'border-signal' : 'border-hairline hover:border-quiet'"
      :data-assembly="own.name"
      :draggable="session.activeAssembly !== null && session.activeAssembly !== id"
      @dragstart="dragged($event, { assembly: id })"
      @click="session.activeAssembly === id || session.openAssembly(id)"
    >
      <button
        class="grid h-[52px] place-items-center text-quiet"
        :aria-pressed="session.activeAssembly === id"
        :aria-label="`Work on ${own.name}`"
      >
        <IconStack2 :size="28" stroke="1.2" />
      </button>
      <NameField
        class="mt-0.5 text-xs"
        :name="own.name"
        label="Name of the assembly"
        :rename="(name) => design.edit(renameAssembly(id, name))"
      />
      <span class="number text-[11px] text-quiet">{{ count }} part{{ count === 1 ? '' : 's' }}</span>
      <button
        v-if="session.activeAssembly && session.activeAssembly !== id"
        class="absolute top-1 left-1 min-h-6 rounded border border-hairline bg-panel px-1.5 text-[11px] text-link hover:border-link"
        :aria-label="`Place ${own.name}`"
        @click.stop="place({ assembly: id })"
      >
        Place
      </button>
      <button
        v-else-if="session.activeAssembly === id"
        class="absolute top-1 right-1 min-h-6 rounded px-1 text-[11px] text-quiet hover:text-bad"
        :aria-label="`Delete ${own.name}`"
        @click.stop="session.notice = design.edit(deleteAssembly(id))"
      >
        Delete
      </button>
    </div>
    <button
      class="w-24 shrink-0 rounded-lg border border-dashed border-hairline text-quiet hover:border-signal hover:text-signal"
      @click="newAssembly"
    >
      New assembly
    </button>
    <button
      class="w-24 shrink-0 rounded-lg border border-dashed border-hairline text-quiet hover:border-signal hover:text-signal"
      @click="newPart"
    >
      New part
    </button>
    <button
      class="w-24 shrink-0 rounded-lg border border-dashed border-hairline text-quiet hover:border-signal hover:text-signal"
      @click="session.showVariants = true"
    >
      Variants<span v-if="design.kept?.variants?.order.length" class="number block text-[11px]">{{
        design.kept.variants.order.length
      }}</span>
    </button>
    <button
      class="w-24 shrink-0 rounded-lg border border-dashed text-quiet hover:border-signal hover:text-signal"
      :class="session.showFlex ? 'border-signal' : 'border-hairline'"
      :aria-pressed="session.showFlex"
      @click="session.showFlex = !session.showFlex"
    >
      Flex<span v-if="flexed" class="block text-[11px]" :class="flexed.tone">{{ flexed.text }}</span>
    </button>
  </section>
</template>
