<script setup lang="ts">
/** Only the verbs that fit what is picked; below it, why something could not be done. */
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useModes } from '../modes/mode-stack.ts';
import { useFilling } from '../slots/filling.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { CHANGE_HINTS } from '../sketch/changing.ts';
import { useClashOffer } from '../sketch/clash-offer.ts';
import ClashPanel from '../sketch/ClashPanel.vue';
import DxfForm from '../sketch/DxfForm.vue';
import OutlineForm from '../outline/OutlineForm.vue';
import ChangeForm from '../sketch/ChangeForm.vue';
import type { SketchEditing } from '../sketch/sketch-editing.ts';
import { useSketchVerbs } from './sketch-verbs.ts';
import ToolPalette from './ToolPalette.vue';
import VerbMenu from './VerbMenu.vue';
import { useGuests } from '../guests/guests-store.ts';
import { useCuttingVerbs } from '../cutting/cutting-verbs.ts';
import { useSheetVerbs } from '../sheets/sheet-verbs.ts';
import { useTogether } from '../together/together-store.ts';
import { useTogetherVerbs } from '../together/together-verbs.ts';
import { useVerbs, wordFor, type Verb } from './verbs.ts';

const props = defineProps<{ editing: SketchEditing }>();
const emit = defineEmits<{ list: []; retry: [] }>();
const design = useDesign();
const session = useSession();
const { waiting, give } = useFilling();
const evaluation = useEvaluation();
const clash = useClashOffer();
const modes = useModes();
const { toolVerbs, sketchVerbs, partVerbs, saidFirst, said, keepStep, dropStep } = useVerbs();
const sketchChanges = useSketchVerbs(props.editing);
const together = useTogether();
const guests = useGuests();
const assembling = useTogetherVerbs();
const drafting = useSheetVerbs();
const cutting = useCuttingVerbs();

const count = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`;

const subject = computed(() => {
  if (guests.trying !== null)
    return `With the newest of ${design.kept?.guests?.[guests.trying]?.name ?? 'another design'}`;
  if (session.activeAssembly) return assembling.subject.value;
  if (session.activeSheet) return drafting.subject.value;
  if (session.activeOutlines) return cutting.subject.value;
  if (said.value) return `${said.value.label}:`;
  if (waiting.value) return waiting.value.picker?.hint ?? '';
  if (session.inSketch) {
    const { drawing } = props.editing;
    if (session.tool) return drawing.tool.value?.name ?? session.tool;
    if (session.changing) return session.changing;
    return session.entities.length > 0 ? count(session.entities.length, 'picked').replace('pickeds', 'picked') : '';
  }
  const [first] = session.picks;
  if (!first) return '';
  if (session.picks.length > 1)
    return session.picks.every((p) => p.kind === first.kind)
      ? count(session.picks.length, wordFor(first))
      : `${session.picks.length} picked`;
  return first.kind === 'face' || first.kind === 'edge' ? first.label : `1 ${wordFor(first)}`;
});

/** Said while a tool or a change waits for its next click. */
const hint = computed(() => {
  if (guests.trying !== null) return 'Look what comes of it; Enter keeps it, Escape leaves it as it was.';
  if (session.activeAssembly) return assembling.hint.value;
  if (session.activeSheet) return drafting.hint.value;
  if (session.activeOutlines) return cutting.hint.value;
  if (said.value) {
    const { says } = said.value;
    return `Pick, with Shift for more: ${says.charAt(0).toLowerCase()}${says.slice(1)}`;
  }
  if (!session.inSketch) return '';
  if (session.tool) return props.editing.drawing.hint.value;
  return session.changing ? CHANGE_HINTS[session.changing] : '';
});
const drawingNow = computed(() => session.inSketch && session.tool !== null);
const plainSketch = computed(() => session.inSketch && session.entities.length === 0);

const shown = computed<Verb[]>(() => {
  if (guests.trying !== null) return [];
  if (session.activeAssembly) return assembling.shown.value;
  if (session.activeSheet) return drafting.verbs.value;
  if (session.activeOutlines) return cutting.verbs.value;
  if (said.value) return [{ id: 'drop', label: 'Drop', key: 'Esc', run: () => void modes.escape() }];
  if (waiting.value)
    return [
      ...(waiting.value.picker?.offers ?? []).map(({ label, pick }) => ({
        id: label,
        label,
        run: () => void give(pick),
      })),
      { id: 'done', label: 'Done', key: 'Enter', run: () => (session.pickingFor = null) },
    ];
  if (!session.inSketch) return partVerbs.value;
  if (session.tool || session.changing) return [];
  return session.entities.length === 0 ? sketchVerbs.value : sketchChanges.picked.value;
});

/** All that the keys and the list reach, shown or not. */
const verbs = computed<Verb[]>(() => {
  if (session.activeAssembly) return assembling.verbs.value;
  if (session.activeSheet) return drafting.verbs.value;
  if (session.activeOutlines) return cutting.verbs.value;
  if (!session.inSketch || session.pickingFor)
    return session.picks.length > 0 || waiting.value || said.value ? shown.value : [...shown.value, ...saidFirst.value];
  if (session.entities.length > 0 && !session.tool)
    return [...shown.value, ...sketchChanges.dimensions.value, ...sketchChanges.changesOfPicked.value];
  return [...toolVerbs.value, ...sketchChanges.plain.value, ...sketchVerbs.value];
});

const keep = (): void => {
  if (guests.trying !== null) guests.keepNewest();
  else if (together.joining === null) keepStep();
  else together.keepJoint();
};
const drop = (): void => {
  if (guests.trying !== null) guests.dropNewest();
  else if (together.joining === null) dropStep();
  else together.dropJoint();
};

function closeNotice(): void {
  session.notice = null;
  clash.drop();
}

defineExpose({ verbs });
</script>

<template>
  <div class="relative border-b border-hairline bg-panel">
    <div class="flex h-10 items-center gap-1 px-3" role="toolbar" aria-label="Verbs">
      <span v-if="subject" class="mr-1 shrink-0 font-semibold text-signal first-letter:uppercase">{{ subject }}</span>
      <ToolPalette v-if="plainSketch || drawingNow" />
      <span v-if="hint" class="ml-1 min-w-0 flex-1 truncate text-quiet" role="status" :title="hint">{{ hint }}</span>
      <!-- What has no room is in the list that Space opens; nothing is shown by half. -->
      <div v-if="shown.length > 0" class="flex h-8 min-w-0 flex-wrap gap-1 overflow-hidden">
        <button
          v-for="verb in shown"
          :key="verb.id"
          class="h-8 shrink-0 rounded-md px-1.5 font-medium hover:bg-tray"
          :class="{ 'bg-tray': verb.active }"
          :aria-pressed="verb.active"
          @click="verb.run()"
        >
          {{ verb.label }}<kbd v-if="verb.key" class="number ml-1.5 text-[11px] text-quiet">{{ verb.key }}</kbd>
        </button>
      </div>
      <VerbMenu
        v-if="session.activeAssembly && assembling.mates.value.length > 0"
        label="Mates"
        :verbs="assembling.mates.value"
      />
      <template v-if="session.inSketch && !session.tool && !session.changing">
        <VerbMenu v-if="plainSketch" label="Change" :verbs="sketchChanges.plain.value" />
        <template v-else>
          <VerbMenu
            v-if="sketchChanges.dimensions.value.length > 0"
            label="Measure"
            :verbs="sketchChanges.dimensions.value"
          />
          <VerbMenu label="Change" :verbs="sketchChanges.changesOfPicked.value" />
        </template>
      </template>
      <button
        v-if="!hint"
        class="number ml-1 shrink-0 rounded border border-hairline px-1.5 text-[11px] leading-5 text-quiet hover:text-ink"
        title="All verbs that fit, to search"
        @click="emit('list')"
      >
        Space
      </button>
      <template v-if="design.attempt !== null">
        <span class="flex-1" />
        <button class="button-primary shrink-0 py-1" @click="keep">Keep <kbd class="text-[11px]">Enter</kbd></button>
        <button class="button shrink-0 py-1" @click="drop">Drop <kbd class="text-[11px] text-quiet">Esc</kbd></button>
      </template>
    </div>
    <DxfForm v-if="session.readingDxf" :editing="editing" class="absolute inset-x-0 top-full z-20" />
    <OutlineForm v-if="session.outlining" class="absolute inset-x-0 top-full z-20" />
    <ChangeForm v-if="session.changing" :editing="editing" class="absolute inset-x-0 top-full z-20" />
    <div
      v-if="session.notice || clash.rows.length > 0 || evaluation.trouble || evaluation.progress"
      class="absolute inset-x-0 top-full z-20 flex flex-col gap-px"
    >
      <p
        v-if="session.notice"
        role="alert"
        class="flex items-start gap-2 border-b border-bad/30 bg-signal-soft px-3 py-1.5 text-bad"
      >
        <span class="flex-1">{{ session.notice }}</span>
        <button class="shrink-0 font-medium underline" @click="closeNotice">Close</button>
      </p>
      <ClashPanel v-if="clash.rows.length > 0" />
      <p
        v-if="evaluation.trouble"
        role="alert"
        class="flex items-start gap-2 border-b border-bad/30 bg-signal-soft px-3 py-1.5 text-bad"
      >
        <span class="flex-1">{{ evaluation.trouble }}</span>
        <button class="shrink-0 font-medium underline" @click="emit('retry')">Try again</button>
      </p>
      <p
        v-if="evaluation.progress"
        role="status"
        class="flex items-center gap-3 border-b border-hairline bg-panel/95 px-3 py-1.5 text-quiet"
      >
        <span
          >Computing {{ evaluation.progress.step }} of {{ evaluation.progress.part }},
          {{ evaluation.progress.done + 1 }} of {{ evaluation.progress.total }}</span
        >
        <progress class="h-1.5 w-32" :value="evaluation.progress.done" :max="evaluation.progress.total" />
        <button class="font-medium text-link underline" @click="evaluation.stop">Stop</button>
      </p>
    </div>
  </div>
</template>
