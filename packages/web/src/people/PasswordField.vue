<script setup lang="ts">
/** A password to be given, or a new one to be chosen. */
const password = defineModel<string>({ required: true });
defineProps<{ label: string; chosen?: boolean; autofocus?: boolean }>();
</script>

<template>
  <label class="grid gap-1"
    >{{ label }}{{ chosen ? ', at least 10 characters' : '' }}
    <input
      v-model="password"
      class="field"
      type="password"
      required
      :autocomplete="chosen ? 'new-password' : 'current-password'"
      :minlength="chosen ? 10 : undefined"
      maxlength="200"
      :autofocus="autofocus"
    />
  </label>
</template>
