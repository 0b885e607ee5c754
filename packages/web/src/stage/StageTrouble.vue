<script setup lang="ts">
/** Over the stage: why what is open cannot be shown, and what is being worked out, which can be stopped. */
defineProps<{ trouble: string | null; progress: string | null }>();
const emit = defineEmits<{ stop: [] }>();
</script>

<template>
  <p
    v-if="trouble"
    class="absolute inset-x-0 top-6 mx-auto max-w-md rounded-lg border border-hairline bg-panel p-4 text-bad"
    role="alert"
  >
    {{ trouble }}
  </p>
  <p
    v-if="progress"
    class="absolute inset-x-0 bottom-3 mx-auto flex w-fit items-center gap-3 rounded-full border border-hairline bg-panel px-4 py-1 text-quiet"
    role="status"
  >
    {{ progress }}
    <button class="text-link hover:underline" @click="emit('stop')">Stop</button>
  </p>
</template>
