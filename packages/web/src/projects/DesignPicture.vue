<script setup lang="ts">
/** A design in the list: its first part as it was last seen. */
import { unpack, type PartView } from '@helb/core';
import { onMounted, shallowRef } from 'vue';
import { colorOfPart } from '../stage/colors.ts';
import { server, type DesignSummary } from '../server.ts';
import PartPicture from '../tray/PartPicture.vue';

const props = defineProps<{ design: DesignSummary }>();
const view = shallowRef<PartView>();

onMounted(async () => {
  const { picture, id } = props.design;
  if (!picture) return;
  try {
    view.value = unpack(await server.picture(id, picture.part, picture.key)) as PartView;
  } catch {
    // The list is as good without it.
  }
});
</script>

<template>
  <PartPicture class="h-13 w-24 shrink-0" :view="view" :color="colorOfPart(null, null)" />
</template>
