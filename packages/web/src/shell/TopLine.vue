<script setup lang="ts">
/** Where I am, whether all is saved, undo and redo, files. */
import { renameDesign } from '@helb/core';
import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-vue';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import NameField from '../fields/NameField.vue';
import PeopleHere from '../people/PeopleHere.vue';
import ThemeButton from '../theme/ThemeButton.vue';
import { useTrial } from '../trial/trial-store.ts';
import { useAccount } from '../people/account-store.ts';
import FileMenu from './FileMenu.vue';
import FindingsMenu from './FindingsMenu.vue';
import ShareMenu from './ShareMenu.vue';
import UnitsMenu from './UnitsMenu.vue';

const design = useDesign();
const session = useSession();
const trial = useTrial();
const account = useAccount();
const emit = defineEmits<{ help: [] }>();

const partName = computed(() => (session.activePart ? design.design?.parts[session.activePart]?.name : undefined));
const saved = computed(() => {
  if (trial.past) return { text: `As it was: state ${trial.past.revision}`, tone: 'bg-warn' };
  if (design.saveState === 'offline') return { text: 'Offline, kept here', tone: 'bg-warn' };
  if (design.saveState === 'refused') return { text: 'Not saved, kept here', tone: 'bg-bad' };
  if (!design.mayEdit) return { text: 'To look at only', tone: 'bg-link' };
  if (design.saveState === 'saving') return { text: 'Saving', tone: 'bg-link' };
  return { text: 'Saved', tone: 'bg-good' };
});

async function undo(): Promise<void> {
  session.notice = await design.undo();
}
async function redo(): Promise<void> {
  session.notice = await design.redo();
}
</script>

<template>
  <header class="flex h-11 items-center gap-3 border-b border-hairline bg-panel px-4">
    <RouterLink to="/" class="text-base font-bold tracking-tight" aria-label="Helb, all projects"
      >helb<span class="text-signal">.</span></RouterLink
    >
    <nav aria-label="Where I am" class="flex min-w-0 items-center gap-1 text-quiet">
      <RouterLink
        v-if="design.project"
        :to="`/projects/${design.project.id}`"
        class="truncate hover:text-ink hover:underline"
        >{{ design.project.name }}</RouterLink
      >
      <span>/</span>
      <NameField
        class="text-ink"
        :name="design.design?.name ?? ''"
        label="Name of the design"
        :rename="(name) => design.edit(renameDesign(name))"
        :fixed="!design.mayEdit"
      />
      <template v-if="partName"
        ><span>/</span><span class="truncate">{{ partName }}</span></template
      >
    </nav>
    <div class="flex">
      <button
        class="grid h-7 w-7 place-items-center rounded hover:bg-tray disabled:opacity-30"
        :disabled="!design.canUndo"
        :title="design.canUndo ? `Undo: ${design.undoLabel}` : 'Nothing to undo'"
        aria-label="Undo"
        @click="undo"
      >
        <IconArrowBackUp :size="17" />
      </button>
      <button
        class="grid h-7 w-7 place-items-center rounded hover:bg-tray disabled:opacity-30"
        :disabled="!design.canRedo"
        :title="design.canRedo ? `Redo: ${design.redoLabel}` : 'Nothing to redo'"
        aria-label="Redo"
        @click="redo"
      >
        <IconArrowForwardUp :size="17" />
      </button>
    </div>
    <span class="flex-1" />
    <span role="status" data-testid="saved" class="flex items-center gap-1.5 text-quiet"
      ><span class="h-2 w-2 rounded-full" :class="saved.tone" aria-hidden="true" />{{ saved.text }}</span
    >
    <PeopleHere />
    <button
      class="button h-7 px-2"
      :aria-pressed="session.showHistory"
      :class="session.showHistory ? 'border-signal' : ''"
      title="What was done, by whom and when"
      @click="session.showHistory = !session.showHistory"
    >
      History
    </button>
    <FindingsMenu />
    <ShareMenu v-if="account.accounts && design.role === 'owns'" />
    <UnitsMenu />
    <FileMenu />
    <ThemeButton />
    <button class="button h-7 w-7 !p-0" title="Keys (?)" aria-label="Keys" @click="emit('help')">?</button>
  </header>
</template>
