<script setup lang="ts">
/** A field of its own: what is being typed in it stays, whatever is drawn anew round it meanwhile. */
defineProps<{ label: string; value: string; placeholder?: string | undefined; hidden?: boolean; fixed?: boolean }>();
const emit = defineEmits<{ set: [text: string] }>();
</script>

<template>
  <label class="block text-quiet"
    ><span :class="{ 'sr-only': hidden }">{{ label }}</span>
    <input
      class="field w-full"
      :class="{ 'mt-1': !hidden }"
      :value="value"
      :placeholder="placeholder"
      :readonly="fixed"
      @change="emit('set', ($event.target as HTMLInputElement).value)"
    />
  </label>
</template>
