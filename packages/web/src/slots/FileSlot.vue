<script setup lang="ts">
/** A file that goes with the design; another can be chosen in its place. */
import { useFileDialog } from '@vueuse/core';
import { useSession } from '../design/session.ts';
import { FileRefused, fileToStore, SOLID_FILES } from './file-to-store.ts';
import { useFilling } from './filling.ts';
import type { SlotProps } from './slot-props.ts';

const props = defineProps<SlotProps>();
const session = useSession();
const { fill } = useFilling();
const { open, onChange } = useFileDialog({ accept: SOLID_FILES, multiple: false, reset: true });

onChange(async (files) => {
  const file = files?.[0];
  if (!file) return;
  try {
    fill(props.part, props.stepId, props.piece.slot, await fileToStore(file));
  } catch (error) {
    if (!(error instanceof FileRefused)) throw error;
    session.notice = error.message;
  }
});
</script>

<template>
  <button class="slot leading-5" title="Choose another file" @click="open()">{{ piece.label }}</button>
</template>
