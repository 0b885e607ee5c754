<script setup lang="ts">
/** The workplace: ledger, stage, recipe, tray. */
import { useEventListener, watchDebounced } from '@vueuse/core';
import { computed, onBeforeUnmount, provide, ref, useTemplateRef, watch } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { keepShared, showShared } from '../evaluation/shared-pictures.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import FlexFaults from '../flex/FlexFaults.vue';
import FlexPanel from '../flex/FlexPanel.vue';
import { useFlex } from '../flex/flex-store.ts';
import { useOpenField } from '../fields/open-field.ts';
import HistoryPanel from '../history/HistoryPanel.vue';
import LedgerPanel from '../ledger/LedgerPanel.vue';
import { useProjectDimensions } from '../ledger/project-dimensions.ts';
import RecipePanel from '../recipe/RecipePanel.vue';
import KeyList from '../shell/KeyList.vue';
import BriefDock from '../brief/BriefDock.vue';
import BoardStage from '../cutting/BoardStage.vue';
import CuttingPanel from '../cutting/CuttingPanel.vue';
import SheetPanel from '../sheets/SheetPanel.vue';
import SheetStage from '../sheets/SheetStage.vue';
import TopLine from '../shell/TopLine.vue';
import { SKETCH_EDITING } from '../sketch/editing-key.ts';
import { useSketchEditing } from '../sketch/sketch-editing.ts';
import Stage from '../stage/Stage.vue';
import AssemblyStage from '../together/AssemblyStage.vue';
import MotionChart from '../together/MotionChart.vue';
import PartsList from '../together/PartsList.vue';
import { useTogether } from '../together/together-store.ts';
import TogetherPanel from '../together/TogetherPanel.vue';
import TraceGraph from '../trace/TraceGraph.vue';
import TracePanel from '../trace/TracePanel.vue';
import TrayBar from '../tray/TrayBar.vue';
import { useTrial } from '../trial/trial-store.ts';
import VariantTable from '../variants/VariantTable.vue';
import VerbLine from '../verbs/VerbLine.vue';
import VerbList from '../verbs/VerbList.vue';
import { useDesign } from './design-store.ts';
import { signInTo } from '../people/account-store.ts';
import { ServerRefusal } from '../server.ts';
import { useKeys } from './keys.ts';
import { useSession } from './session.ts';

const props = defineProps<{
  design: string;
  /** What kind of thing is open in it, and its id. */
  place?: string;
  open?: string;
}>();
const router = useRouter();
const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const trial = useTrial();
const flex = useFlex();
const openField = useOpenField();
const together = useTogether();
const project = useProjectDimensions();
evaluation.onReadings(trial.read);
const editing = useSketchEditing();
provide(SKETCH_EDITING, editing);

const trouble = ref<string | null>(null);
const listOpen = ref(false);
const helpOpen = ref(false);
const ledgerOpen = ref(true);
const verbLine = useTemplateRef<InstanceType<typeof VerbLine>>('verbLine');
const stage = useTemplateRef<InstanceType<typeof Stage>>('stage');
const boardStage = useTemplateRef<InstanceType<typeof BoardStage>>('boardStage');
const sheetStage = useTemplateRef<InstanceType<typeof SheetStage>>('sheetStage');
const assemblyStage = useTemplateRef<InstanceType<typeof AssemblyStage>>('assemblyStage');

/** The kernel's start takes all of a small machine; it waits until the first picture from before is up. */
const kernelMayStart = ref(false);
const FIRST_PICTURE_MS = 400;

watch(
  () => props.design,
  async (id) => {
    trouble.value = null;
    kernelMayStart.value = false;
    try {
      await design.open(id);
      const wanted = props.place === 'part' ? props.open : undefined;
      const assembly = props.place === 'assembly' ? props.open : undefined;
      const active = wanted && design.design?.parts[wanted] ? wanted : (design.design?.partOrder[0] ?? null);
      const sheet = props.place === 'sheet' ? props.open : undefined;
      if (assembly && design.design?.assemblies?.[assembly]) session.openAssembly(assembly);
      else if (sheet && design.design?.sheets?.[sheet]) session.openSheet(sheet);
      else if (props.place === 'outlines' && props.open && design.design?.outlines?.[props.open])
        session.openOutlines(props.open);
      else session.openPart(active);
      session.traced = null;
      void project.load();
      if (design.design && design.ledger)
        await showShared(id, design.design, design.ledger, session.activePart, evaluation.showEarlier);
      if (evaluation.parts.size > 0) await new Promise((shown) => setTimeout(shown, FIRST_PICTURE_MS));
      kernelMayStart.value = true;
    } catch (error) {
      if (error instanceof ServerRefusal && error.status === 401)
        return void router.replace(signInTo(`/designs/${id}`));
      trouble.value = (error as Error).message;
    }
  },
  { immediate: true },
);

// The address says which part is open, so that it can be shared and gone back to.
const openNow = computed(() =>
  session.activePart
    ? (['part', session.activePart] as const)
    : session.activeAssembly
      ? (['assembly', session.activeAssembly] as const)
      : session.activeSheet
        ? (['sheet', session.activeSheet] as const)
        : session.activeOutlines
          ? (['outlines', session.activeOutlines] as const)
          : null,
);
watch(openNow, (now) => {
  if (now && design.id === props.design && now[1] !== props.open)
    void (props.open ? router.push : router.replace)(`/designs/${props.design}/${now[0]}/${now[1]}`);
});
watch([() => props.place, () => props.open], ([place, open]) => {
  if (!open || open === openNow.value?.[1]) return;
  if (place === 'assembly' && design.design?.assemblies?.[open]) session.openAssembly(open);
  else if (place === 'sheet' && design.design?.sheets?.[open]) session.openSheet(open);
  else if (place === 'outlines' && design.design?.outlines?.[open]) session.openOutlines(open);
  else if (place === 'part' && design.design?.parts[open]) session.openPart(open);
});

function evaluate(): void {
  if (!design.design || !kernelMayStart.value) return;
  const step = session.workedOn;
  const focus = step && session.activePart ? { part: session.activePart, step } : null;
  // In a task of its own: the edit is shown first.
  const wanted = design.design;
  setTimeout(() => design.design === wanted && evaluation.request(wanted, focus, session.activePart));
}
watch([() => design.design, () => session.workedOn, kernelMayStart], evaluate);

/** When work has paused and all is saved, the pictures are left for the next visit. */
const PAUSE_MS = 4000;
watchDebounced(
  [() => evaluation.parts, () => design.saveState, () => evaluation.busy],
  () => {
    const open =
      design.id &&
      design.design &&
      design.ledger &&
      !evaluation.busy &&
      !design.instead &&
      !design.attempt &&
      design.saveState === 'saved' &&
      !session.inSketch;
    if (open && design.mayEdit) void keepShared(design.id!, design.design!, design.ledger!, evaluation.parts);
  },
  { debounce: PAUSE_MS },
);

// A trial is seen and ended in the ledger.
watch(
  () => trial.holds || trial.variant !== null,
  (now) => now && (ledgerOpen.value = true),
);

// Undo may take away what is open.
watch(
  () => design.design,
  (d) => {
    if (!d) return;
    if (session.activePart && !d.parts[session.activePart]) session.openPart(d.partOrder[0] ?? null);
    if (session.activeAssembly && !d.assemblies?.[session.activeAssembly]) session.openPart(d.partOrder[0] ?? null);
    if (session.activeSheet && !d.sheets?.[session.activeSheet]) session.openPart(d.partOrder[0] ?? null);
    if (session.activeOutlines && !d.outlines?.[session.activeOutlines]) session.openPart(d.partOrder[0] ?? null);
    const steps = d.parts[session.activePart ?? '']?.steps ?? {};
    if (session.sketching && !steps[session.sketching]) session.leaveSketch();
    if (session.editing && !steps[session.editing]) session.editing = null;
    if (session.pickingFor && !steps[session.pickingFor.step]) session.pickingFor = null;
    if (session.traced && !design.ledger?.index.byReference(session.traced)) session.traced = null;
    if (editing.geometry.value) {
      const known = editing.geometry.value;
      session.entities = session.entities.filter(
        (e) => e in known.points || e in known.curves || e in known.constraints || /^(origin|[xy]_axis)$/.test(e),
      );
    }
  },
);

useKeys({
  editing,
  verbs: () => verbLine.value?.verbs ?? [],
  openList: () => (listOpen.value = true),
  openHelp: () => (helpOpen.value = true),
  fit: () => (stage.value ?? assemblyStage.value ?? sheetStage.value ?? boardStage.value)?.fit(),
  openStack: () => (stage.value ?? assemblyStage.value)?.openStack(),
});

// What is still being solved is kept before the tab closes.
useEventListener(window, 'pagehide', () => design.finishSolving());

onBeforeUnmount(() => {
  trial.drop();
  evaluation.clear();
  session.traced = null;
  session.showVariants = false;
  session.showFlex = false;
  session.showHistory = false;
  flex.clear();
  design.dropAttempt();
  design.close();
  session.openPart(null);
});
</script>

<template>
  <main v-if="trouble" class="mx-auto max-w-md p-10">
    <h1 class="text-lg font-semibold">This design cannot be opened</h1>
    <p class="mt-2 text-bad" role="alert">{{ trouble }}</p>
    <RouterLink to="/" class="button mt-4 inline-block">All projects</RouterLink>
  </main>
  <div v-else class="grid h-full min-w-[1000px] grid-rows-[auto_minmax(0,1fr)_auto]">
    <TopLine @help="helpOpen = true" />
    <div class="grid min-h-0" :style="{ gridTemplateColumns: `${ledgerOpen ? '272px' : '28px'} minmax(0,1fr) 316px` }">
      <div class="relative grid min-h-0">
        <LedgerPanel v-if="ledgerOpen" />
        <div v-else class="border-r border-hairline bg-panel" />
        <button
          class="absolute top-1/2 -right-2.5 z-10 grid h-10 w-5 -translate-y-1/2 place-items-center rounded-full border border-hairline bg-panel text-quiet hover:text-signal"
          :aria-label="ledgerOpen ? 'Fold the ledger away' : 'Open the ledger'"
          @click="ledgerOpen = !ledgerOpen"
        >
          {{ ledgerOpen ? '‹' : '›' }}
        </button>
      </div>
      <div class="relative grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto]">
        <VerbLine ref="verbLine" :editing="editing" @list="listOpen = true" @retry="evaluate" />
        <div class="relative grid min-h-0 min-w-0">
          <AssemblyStage v-if="session.activeAssembly" ref="assemblyStage" />
          <SheetStage v-else-if="session.activeSheet" ref="sheetStage" />
          <BoardStage v-else-if="session.activeOutlines" ref="boardStage" />
          <Stage v-else ref="stage" :editing="editing" />
          <TraceGraph v-if="session.traced && session.showTraceGraph && !openField.field" :reference="session.traced" />
        </div>
        <BriefDock v-if="session.activePart && !session.showFlex" />
        <FlexPanel v-if="session.showFlex" />
        <template v-if="session.activeAssembly">
          <MotionChart v-if="together.charted" class="absolute inset-x-0 bottom-0 z-10" :of="together.charted" />
          <PartsList v-else-if="session.showParts" class="absolute inset-x-0 bottom-0 z-10" />
        </template>
      </div>
      <FlexFaults v-if="session.showFlex" />
      <HistoryPanel v-else-if="session.showHistory" />
      <TracePanel v-else-if="session.traced" :reference="session.traced" />
      <TogetherPanel v-else-if="session.activeAssembly" />
      <SheetPanel v-else-if="session.activeSheet" />
      <CuttingPanel v-else-if="session.activeOutlines" />
      <RecipePanel v-else />
    </div>
    <VariantTable v-if="session.showVariants" />
    <TrayBar v-else />
    <VerbList :open="listOpen" :verbs="verbLine?.verbs ?? []" @close="listOpen = false" />
    <KeyList :open="helpOpen" @close="helpOpen = false" />
  </div>
</template>
