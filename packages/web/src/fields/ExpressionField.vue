<script setup lang="ts">
/** A number as an expression, edited where it stands. Enter keeps, Escape leaves it as it was. */
import { nextTick, onMounted, ref, useTemplateRef } from 'vue';

const props = defineProps<{
  /** The expression as people read it. */
  text: string;
  label: string;
  /** Takes the typed text; returns why it was refused, or null. */
  commit: (text: string) => string | null;
  /** Makes a dimension of an unknown name; shown as an offer when given. */
  make?: (name: string) => string | null;
  compact?: boolean;
}>();
const emit = defineEmits<{ done: []; cancel: [] }>();

const input = useTemplateRef<HTMLInputElement>('input');
const typed = ref(props.text);
const fault = ref<string | null>(null);
const unknown = ref<string | null>(null);
let closed = false;

onMounted(async () => {
  await nextTick();
  input.value?.focus();
  input.value?.select();
});

function keep(): void {
  if (closed) return;
  if (typed.value.trim() === props.text.trim()) {
    finish('done');
    return;
  }
  fault.value = props.commit(typed.value);
  unknown.value = fault.value?.match(/^No dimension is called “([\p{L}\p{N}_]+)”/u)?.[1] ?? null;
  if (!fault.value) finish('done');
}

function finish(how: 'done' | 'cancel'): void {
  closed = true;
  if (how === 'done') emit('done');
  else emit('cancel');
}

function makeUnknown(): void {
  fault.value = props.make!(unknown.value!);
  if (!fault.value) keep();
}

/** Leaving the field keeps what can be kept; what cannot stays open with its reason. */
function leave(event: FocusEvent): void {
  const to = event.relatedTarget as HTMLElement | null;
  if (to && input.value?.parentElement?.contains(to)) return;
  keep();
}
</script>

<template>
  <span class="relative inline-block" :class="compact ? '' : 'w-full'">
    <input
      ref="input"
      v-model="typed"
      :aria-label="label"
      :aria-invalid="fault !== null"
      autocomplete="off"
      spellcheck="false"
      class="number rounded border border-signal bg-white px-1 py-px text-ink"
      :class="compact ? 'w-36' : 'w-full'"
      @keydown.enter.stop.prevent="keep"
      @keydown.escape.stop.prevent="finish('cancel')"
      @keydown.stop
      @pointerdown.stop
      @blur="leave"
    />
    <span
      v-if="fault"
      role="alert"
      class="absolute top-full left-0 z-30 mt-1 block w-64 rounded-md border border-bad/40 bg-panel p-2 text-left font-sans text-xs font-normal whitespace-normal text-bad shadow-sm"
    >
      {{ fault }}
      <button
        v-if="unknown && make"
        class="mt-1 block font-medium text-link underline"
        @mousedown.prevent
        @click="makeUnknown"
      >
        Make a dimension “{{ unknown }}”
      </button>
    </span>
  </span>
</template>
