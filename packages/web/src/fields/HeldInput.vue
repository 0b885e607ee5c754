<script setup lang="ts">
/** A bare field: what is being typed in it stays, whatever is drawn anew round it meanwhile; a refused text is put back. */
const props = defineProps<{
  value: string;
  /** Told what was typed when the field is left; false where that was refused. */
  set: (text: string) => boolean | Promise<boolean>;
}>();

async function change(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  if (!(await props.set(field.value))) field.value = props.value;
}
</script>

<template>
  <input :value="value" @change="change" />
</template>
