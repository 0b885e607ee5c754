<script setup lang="ts">
/** The parts of the design; the one worked on is picked here. */
import { addAssembly, addOutlines, addSheet, changeOutlines, changeSheet, deleteAssembly, deleteOutlines, deleteSheet, formatNumber, massOf, newId, newOutlines, newSheet, partsStanding, renameAssembly, renamePart, type Box, type Sheet } from '@helb/core'; // prettier-ignore
import { IconFileText, IconScissors, IconStack2 } from '@tabler/icons-vue';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useFlex } from '../flex/flex-store.ts';
import GuestsDialog from '../guests/GuestsDialog.vue';
import { useGuests } from '../guests/guests-store.ts';
import { colorOfPart } from '../stage/colors.ts';
import { useVerbs } from '../verbs/verbs.ts';
import PartMenu from './PartMenu.vue';
import PartPicture from './PartPicture.vue';
import TrayCard from './TrayCard.vue';

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const flex = useFlex();
const guests = useGuests();
const { newPart } = useVerbs();

function newAssembly(): void {
  const id = newId('a');
  session.notice = design.edit(addAssembly(id, 'Assembly'));
  if (session.notice === null) session.openAssembly(id);
}

const assemblies = computed(() =>
  (design.design?.assemblyOrder ?? []).flatMap((id) => {
    const own = design.design?.assemblies?.[id];
    return own ? [{ id, own, count: own.instanceOrder.length }] : [];
  }),
);

const sheets = computed(() =>
  (design.design?.sheetOrder ?? []).flatMap((id) => {
    const own = design.design?.sheets?.[id];
    if (!own) return [];
    const { of } = own;
    const drawn = 'part' in of ? design.design?.parts[of.part] : design.design?.assemblies?.[of.assembly];
    return [{ id, own, drawn: drawn?.name ?? 'what is gone' }];
  }),
);

/** Of the part or the assembly that is open; its front by the part’s own box. */
function sheetOfOpen(): void {
  const { activePart, activeAssembly } = session;
  const of: Sheet['of'] | null = activePart
    ? { part: activePart }
    : activeAssembly
      ? { assembly: activeAssembly }
      : null;
  if (!of) return;
  const id = newId('h');
  session.notice = design.edit(addSheet(id, newSheet('Sheet', of, activePart ? boxOfPart(activePart) : null)));
  if (session.notice === null) session.openSheet(id);
}

const allOutlines = computed(() =>
  (design.design?.outlinesOrder ?? []).flatMap((id) => {
    const own = design.design?.outlines?.[id];
    return own ? [{ id, own }] : [];
  }),
);

/** Of the part that is open, or of all that stands in the open assembly. */
function outlinesOfOpen(): void {
  const { activePart, activeAssembly } = session;
  const parts = activePart ? [activePart] : activeAssembly ? partsStanding(design.design!, activeAssembly) : [];
  const id = newId('c');
  const pieces = parts.map((part) => [newId('c'), { part }] as const);
  const own = { ...newOutlines('Outlines', activeAssembly ?? undefined), pieces: Object.fromEntries(pieces), pieceOrder: pieces.map(([key]) => key) }; // prettier-ignore
  session.notice = design.edit(addOutlines(id, own));
  if (session.notice === null) session.openOutlines(id);
}

function boxOfPart(id: string): Box | null {
  const boxes = evaluation.parts.get(id)?.bodies.map((b) => b.box) ?? [];
  if (boxes.length === 0) return null;
  const over = (at: 'min' | 'max', of: (...n: number[]) => number) => [0, 1, 2].map((i) => of(...boxes.map((b) => b[at][i]!))) as unknown as Box['min']; // prettier-ignore
  return { min: over('min', Math.min), max: over('max', Math.max) };
}

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

/** Of which other design it is. */
function guestOf(id: string): string | undefined {
  const key = design.design?.parts[id]?.guest;
  return key === undefined ? undefined : `of ${design.design?.guests?.[key]?.name ?? 'another design'}`;
}

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
    <TrayCard
      v-for="id in design.design?.partOrder ?? []"
      :key="id"
      :name="design.design!.parts[id]!.name"
      what="part"
      :open="session.activePart === id"
      :of="{ part: id }"
      :rename="(name) => design.edit(renamePart(id, name))"
      :data-part="design.design!.parts[id]!.name"
      @open="session.openPart(id)"
    >
      <PartPicture :view="evaluation.parts.get(id)" :color="colorOfPart(design.design, id)" />
      <template #caption>
        <span class="flex-1 truncate" :title="guestOf(id)">{{ guestOf(id) ?? caption(id) }}</span><span
          v-if="counts.has(id)"
          >× {{ counts.get(id) }}</span
        >
      </template>
      <template #menu><PartMenu :part="id" /></template>
    </TrayCard>
    <TrayCard
      v-for="{ id, own, count } in assemblies"
      :key="id"
      :name="own.name"
      what="assembly"
      :open="session.activeAssembly === id"
      :remove="() => design.edit(deleteAssembly(id))"
      :of="{ assembly: id }"
      :rename="(name) => design.edit(renameAssembly(id, name))"
      :data-assembly="own.name"
      @open="session.openAssembly(id)"
    >
      <IconStack2 class="mx-auto my-3 text-quiet" :size="28" stroke="1.2" />
      <template #caption>{{ count }} part{{ count === 1 ? '' : 's' }}</template>
    </TrayCard>
    <TrayCard
      v-for="{ id, own, drawn } in sheets"
      :key="id"
      :name="own.name"
      what="sheet"
      :open="session.activeSheet === id"
      :remove="() => design.edit(deleteSheet(id))"
      :of="null"
      :rename="(name) => design.edit(changeSheet(id, { name }))"
      :data-sheet="own.name"
      @open="session.openSheet(id)"
    >
      <IconFileText class="mx-auto my-3 text-quiet" :size="28" stroke="1.2" />
      <template #caption
        ><span class="truncate">{{ drawn }}, {{ own.paper }}</span></template
      >
    </TrayCard>
    <TrayCard
      v-for="{ id, own } in allOutlines"
      :key="id"
      :name="own.name"
      what="outlines"
      :open="session.activeOutlines === id"
      :remove="() => design.edit(deleteOutlines(id))"
      :of="null"
      :rename="(name) => design.edit(changeOutlines(id, { name }))"
      :data-outlines="own.name"
      @open="session.openOutlines(id)"
    >
      <IconScissors class="mx-auto my-3 text-quiet" :size="28" stroke="1.2" />
      <template #caption>{{ own.pieceOrder.length }} to cut</template>
    </TrayCard>
    <button v-if="session.activePart || session.activeAssembly" class="tray-button" @click="outlinesOfOpen">
      New outlines
    </button>
    <button v-if="session.activePart || session.activeAssembly" class="tray-button" @click="sheetOfOpen">
      New sheet
    </button>
    <button class="tray-button" @click="newAssembly">New assembly</button>
    <button class="tray-button" @click="newPart">New part</button>
    <button class="tray-button" @click="guests.open()">
      From other designs<span v-if="guests.newer > 0" class="block text-[11px] text-warn"
        >{{ guests.newer }} changed there</span
      ><span v-if="guests.outOfReach > 0" class="block text-[11px] text-warn"
        >{{ guests.outOfReach }} out of reach</span
      >
    </button>
    <GuestsDialog />
    <button class="tray-button" @click="session.showVariants = true">
      Variants<span v-if="design.kept?.variants?.order.length" class="number block text-[11px]">{{
        design.kept.variants.order.length
      }}</span>
    </button>
    <button
      class="tray-button"
      :class="{ 'border-signal': session.showFlex }"
      :aria-pressed="session.showFlex"
      @click="session.showFlex = !session.showFlex"
    >
      Flex<span v-if="flexed" class="block text-[11px]" :class="flexed.tone">{{ flexed.text }}</span>
    </button>
  </section>
</template>
