<script setup lang="ts">
/** A small page of one form: what it is for, its fields, what went wrong. */
import PageFrame from '../projects/PageFrame.vue';

defineProps<{ title: string; trouble?: string | null; busy?: boolean; does: string }>();
defineEmits<{ done: [] }>();
</script>

<template>
  <PageFrame>
    <form class="mx-auto mt-10 grid max-w-sm gap-3" @submit.prevent="$emit('done')">
      <h1 class="text-xl font-semibold">{{ title }}</h1>
      <slot />
      <p v-if="trouble" role="alert" class="text-bad">{{ trouble }}</p>
      <div class="flex items-center gap-4">
        <button class="button-primary" :disabled="busy">{{ does }}</button>
        <slot name="beside" />
      </div>
    </form>
  </PageFrame>
</template>
