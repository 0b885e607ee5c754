<script setup lang="ts">
import { Menu, MenuButton } from '@headlessui/vue';
import { writeDesign, type SolidFormat } from '@helb/core';
import { useFileDialog } from '@vueuse/core';
import { computed, ref } from 'vue';
import { toast } from 'vue-sonner';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import ActionItems from '../fields/ActionItems.vue';
import { FileRefused, fileToStore, SOLID_FILES } from '../slots/file-to-store.ts';
import { useTrial } from '../trial/trial-store.ts';
import { useVerbs } from '../verbs/verbs.ts';
import { FILE_TYPE, saveFile } from './save-file.ts';

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const trial = useTrial();
const { bringIn } = useVerbs();
const writing = ref(false);
const { open, onChange } = useFileDialog({ accept: SOLID_FILES, multiple: false, reset: true });

onChange(async (files) => {
  const file = files?.[0];
  if (!file) return;
  try {
    bringIn(await fileToStore(file));
  } catch (error) {
    if (!(error instanceof FileRefused)) throw error;
    session.notice = error.message;
  }
});

const NAMES = { step: 'STEP', stl: 'STL', '3mf': '3MF', glb: 'glTF' };
const FORMATS = ['step', 'stl', '3mf', 'glb'] as const;

/** What is written: all parts of the design, the part or the assembly one works on. */
type Written = 'design' | 'part' | 'assembly';

async function exportSolids(format: SolidFormat, what: Written): Promise<void> {
  const d = design.design;
  if (!d) return;
  const own = (what === 'part' ? part.value : what === 'assembly' ? assembly.value : undefined) ?? d.name;
  // What is on the screen is what is written; a variant says so in its file's name.
  const variant = trial.variant ? design.kept?.variants?.rows[trial.variant]?.name : undefined;
  const name = variant ? `${own} - ${variant}` : own;
  writing.value = true;
  try {
    const bytes =
      what === 'assembly'
        ? await evaluation.on(d).exportTogether(format, session.activeAssembly!)
        : await evaluation.on(d).exportDesign(format, what === 'part' ? [session.activePart!] : d.partOrder);
    saveFile(bytes, `${name}.${format}`, FILE_TYPE[format]);
    toast.success(`${name}.${format} is written.`);
  } catch (error) {
    toast.error((error as Error).message);
  } finally {
    writing.value = false;
  }
}

const part = computed(() => (session.activePart ? design.design?.parts[session.activePart]?.name : undefined));
const assembly = computed(() => (session.activeAssembly ? design.design?.assemblies?.[session.activeAssembly]?.name : undefined)); // prettier-ignore
const itemsFor = (label: string, what: Written) =>
  FORMATS.map((format) => ({ label: `${label} as ${NAMES[format]}`, run: () => exportSolids(format, what) }));
const items = computed(() => [
  ...(assembly.value ? itemsFor(`${assembly.value}, put together,`, 'assembly') : []),
  ...itemsFor('All parts', 'design'),
  ...(part.value ? itemsFor(part.value, 'part') : []),
  ...(part.value ? [{ label: 'Bring in a STEP file', run: () => open() }] : []),
  {
    label: 'Design file',
    run: () => {
      design.finishSolving();
      saveFile(new TextEncoder().encode(writeDesign(design.kept!)), `${design.kept!.name}.helb.json`, 'application/json'); // prettier-ignore
    },
  },
]);
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="button py-1" :disabled="writing">{{ writing ? 'Writing' : 'Files' }}</MenuButton>
    <ActionItems :items="items" side="right" />
  </Menu>
</template>
