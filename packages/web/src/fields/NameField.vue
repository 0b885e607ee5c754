<script setup lang="ts">
/** A name that becomes a field when double-clicked, or by F2 or Enter on it. */
import { nextTick, ref, useTemplateRef, watch } from 'vue';

const props = defineProps<{
  name: string;
  label: string;
  rename: (name: string) => string | null;
  fixed?: boolean;
  /** Opens the field at once, for something just made. */
  asked?: boolean;
}>();
const emit = defineEmits<{ begun: [] }>();

const input = useTemplateRef<HTMLInputElement>('input');
const editing = ref(false);
const typed = ref('');
const fault = ref<string | null>(null);

async function begin(): Promise<void> {
  if (props.fixed) return;
  typed.value = props.name;
  fault.value = null;
  editing.value = true;
  await nextTick();
  input.value?.focus();
  input.value?.select();
}

watch(
  () => props.asked,
  (now) => {
    if (!now) return;
    void begin();
    emit('begun');
  },
  { immediate: true },
);

function keep(): void {
  if (!editing.value) return;
  const name = typed.value.trim();
  fault.value = name === props.name ? null : props.rename(name);
  if (!fault.value) editing.value = false;
}

function drop(): void {
  editing.value = false;
  fault.value = null;
}
</script>

<template>
  <span class="relative min-w-0">
    <input
      v-if="editing"
      ref="input"
      v-model="typed"
      :aria-label="label"
      class="w-full rounded border border-signal bg-field px-1 font-medium"
      @keydown.enter.stop.prevent="keep"
      @keydown.escape.stop.prevent="drop"
      @keydown.stop
      @click.stop
      @blur="keep"
    />
    <span
      v-else
      class="block truncate font-medium"
      :title="fixed ? name : `${name}: double-click to rename`"
      :tabindex="fixed ? undefined : 0"
      @dblclick.stop="begin"
      @keydown.f2.stop.prevent="begin"
      @keydown.enter.stop.prevent="begin"
      >{{ name }}</span
    >
    <span
      v-if="fault"
      role="alert"
      class="absolute top-full left-0 z-30 mt-1 block w-56 rounded-md border border-bad/40 bg-panel p-2 text-xs font-normal whitespace-normal text-bad"
      >{{ fault }}</span
    >
  </span>
</template>
