<script setup lang="ts">
import { Menu, MenuButton } from '@headlessui/vue';
import { writeDesign, type SolidFormat } from '@helb/core';
import { computed, ref } from 'vue';
import { toast } from 'vue-sonner';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import ActionItems from '../fields/ActionItems.vue';
import { useTrial } from '../trial/trial-store.ts';
import { FILE_TYPE, saveFile } from './save-file.ts';

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const trial = useTrial();
const writing = ref(false);
const FORMATS = ['step', 'stl', '3mf'] as const;

async function exportParts(format: SolidFormat, whole: boolean): Promise<void> {
  const d = design.design;
  if (!d) return;
  const parts = whole ? d.partOrder : session.activePart ? [session.activePart] : [];
  const own = whole ? d.name : (d.parts[parts[0]!]?.name ?? d.name);
  // What is on the screen is what is written; a variant says so in its file's name.
  const variant = trial.variant ? design.kept?.variants?.rows[trial.variant]?.name : undefined;
  const name = variant ? `${own} - ${variant}` : own;
  writing.value = true;
  try {
    const bytes = await evaluation.on(d).exportDesign(format, parts);
    saveFile(bytes, `${name}.${format}`, FILE_TYPE[format]);
    toast.success(`${name}.${format} is written.`);
  } catch (error) {
    toast.error((error as Error).message);
  } finally {
    writing.value = false;
  }
}

const part = computed(() => (session.activePart ? design.design?.parts[session.activePart]?.name : undefined));
const items = computed(() => [
  ...FORMATS.map((format) => ({
    label: `Whole design as ${format.toUpperCase()}`,
    run: () => exportParts(format, true),
  })),
  ...(part.value
    ? FORMATS.map((format) => ({
        label: `${part.value} as ${format.toUpperCase()}`,
        run: () => exportParts(format, false),
      }))
    : []),
  {
    label: 'Design file',
    run: () =>
      saveFile(
        new TextEncoder().encode(writeDesign(design.kept!)),
        `${design.kept!.name}.helb.json`,
        'application/json',
      ),
  },
]);
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="button py-1" :disabled="writing">{{ writing ? 'Writing' : 'Files' }}</MenuButton>
    <ActionItems :items="items" side="right" />
  </Menu>
</template>
