<script setup lang="ts">
/** What was cut loose: there is nothing to choose any more. */
import type { SlotProps } from './slot-props.ts';

defineProps<SlotProps>();
</script>

<template>
  <span class="font-medium leading-5" title="It follows no part; to link it again, remove this step and borrow anew">{{
    piece.label
  }}</span>
</template>
