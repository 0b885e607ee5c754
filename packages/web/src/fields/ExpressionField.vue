<script setup lang="ts">
/**
 * A number as an expression, edited where it stands: what it comes to is shown
 * and tried while it is typed. Enter keeps it, Escape leaves it as it was.
 */
import { readTyped, suggestNames, type Suggestion } from '@helb/core';
import { useDebounceFn, useEventListener } from '@vueuse/core';
import { computed, nextTick, onBeforeUnmount, onMounted, ref, useId, useTemplateRef } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useDimensionEdit } from '../ledger/dimension-edit.ts';
import { useTrial } from '../trial/trial-store.ts';
import { useOpenField, type OpenField } from './open-field.ts';

const props = defineProps<{
  /** The dimension whose expression this is. */
  reference: string;
  label: string;
  compact?: boolean;
}>();
const emit = defineEmits<{ close: [] }>();

const TRY_AFTER_MS = 250;
const design = useDesign();
const trial = useTrial();
const openField = useOpenField();
const { commit, make } = useDimensionEdit();

const input = useTemplateRef<HTMLInputElement>('input');
const entry = computed(() => design.ledger?.index.byReference(props.reference));
const before = entry.value ? design.ledger!.shown(entry.value) : '';
const typed = ref(before);
const caret = ref(0);
const fault = ref<string | null>(null);
const unknown = ref<string | null>(null);
const listId = useId();
const chosen = ref(-1);
const suggesting = ref(false);
let closed = false;

const own: OpenField = {
  reference: props.reference,
  touched: () => typed.value !== before,
  insert: (text) => void put(text),
};
onMounted(async () => {
  openField.field = own;
  await nextTick();
  input.value?.focus();
  input.value?.select();
});
onBeforeUnmount(() => {
  closed = true;
  if (openField.field === own) openField.field = null;
  trial.dropTyping();
});

const reading = computed(() =>
  entry.value && design.ledger && typed.value.trim() !== before
    ? readTyped(design.ledger, entry.value, typed.value)
    : null,
);
const found = computed(() =>
  suggesting.value && entry.value
    ? suggestNames(design.ledger!, entry.value, typed.value, caret.value)
    : { from: 0, to: 0, list: [] },
);
/** Where the text cannot be read, with what stands before and after. */
const marked = computed(() => {
  const value = reading.value;
  if (!value || value.ok || value.to <= value.from) return null;
  const text = typed.value;
  return [text.slice(0, value.from), text.slice(value.from, value.to), text.slice(value.to)] as const;
});

const tryIt = useDebounceFn(() => {
  // Once refused, or left, it is not tried behind the designer's back.
  const typing = !closed && fault.value === null && document.activeElement === input.value;
  if (typing && reading.value?.ok) trial.type(props.reference, typed.value);
}, TRY_AFTER_MS);

function changed(): void {
  caret.value = input.value?.selectionStart ?? typed.value.length;
  fault.value = null;
  suggesting.value = true;
  chosen.value = -1;
  void tryIt();
}

/** Put a name in place of what is selected, with the caret behind it. */
async function put(text: string, from = input.value!.selectionStart!, to = input.value!.selectionEnd!): Promise<void> {
  typed.value = typed.value.slice(0, from) + text + typed.value.slice(to);
  await nextTick();
  input.value?.focus();
  input.value?.setSelectionRange(from + text.length, from + text.length);
  changed();
  suggesting.value = false;
}

function choose({ text }: Suggestion): void {
  void put(text, found.value.from, found.value.to);
}

function key(event: KeyboardEvent): void {
  event.stopPropagation();
  const { list } = found.value;
  if (event.key === 'Enter') {
    event.preventDefault();
    if (list[chosen.value]) choose(list[chosen.value]!);
    else keep();
  } else if (event.key === 'Escape') {
    event.preventDefault();
    if (list.length > 0) suggesting.value = false;
    else finish();
  } else if (list.length > 0 && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
    event.preventDefault();
    const by = event.key === 'ArrowDown' ? 1 : -1;
    chosen.value = (chosen.value + by + list.length + 1) % (list.length + 1);
    if (chosen.value === list.length) chosen.value = -1;
  } else if (event.key === 'Tab' && list.length > 0 && !event.shiftKey) {
    event.preventDefault();
    choose(list[Math.max(0, chosen.value)]!);
  }
}

function keep(): void {
  if (closed) return;
  if (typed.value.trim() === before.trim()) {
    finish();
    return;
  }
  suggesting.value = false;
  fault.value = commit(props.reference, typed.value);
  unknown.value = fault.value?.match(/^No dimension is called “([\p{L}\p{N}_]+)”/u)?.[1] ?? null;
  if (!fault.value) finish();
}

/** What is being clicked must not move away from under the pointer: the field goes when the click is done. */
let pressed = false;
function finish(): void {
  closed = true;
  trial.dropTyping();
  if (openField.field === own) openField.field = null;
  if (!pressed) emit('close');
}
useEventListener(window, 'pointerdown', () => (pressed = true), { capture: true });
useEventListener(window, ['pointerup', 'pointercancel'], () => {
  pressed = false;
  if (closed) setTimeout(() => emit('close'));
});

function makeUnknown(): void {
  fault.value = make(props.reference, unknown.value!);
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
      role="combobox"
      aria-autocomplete="list"
      :aria-expanded="found.list.length > 0"
      :aria-controls="found.list.length > 0 ? listId : undefined"
      :aria-activedescendant="chosen >= 0 ? `${listId}-${chosen}` : undefined"
      autocomplete="off"
      spellcheck="false"
      class="number rounded border border-signal bg-field px-1 py-px text-ink"
      :class="compact ? 'w-36' : 'w-full'"
      @input="changed"
      @keydown="key"
      @pointerdown.stop
      @blur="leave"
    />
    <span
      v-if="fault"
      role="alert"
      class="absolute top-full left-0 z-30 mt-1 block w-64 rounded-md border border-bad/40 bg-panel p-2 text-left font-sans text-xs font-normal whitespace-normal text-bad shadow-sm"
    >
      <span v-if="marked" class="number block text-ink" aria-hidden="true"
        >{{ marked[0] }}<span class="bg-bad/15 text-bad underline decoration-wavy">{{ marked[1] }}</span
        >{{ marked[2] }}</span
      >
      {{ fault }}
      <button v-if="unknown" class="mt-1 block font-medium text-link underline" @mousedown.prevent @click="makeUnknown">
        Make a dimension “{{ unknown }}”
      </button>
    </span>
    <span
      v-else-if="reading || found.list.length > 0"
      class="absolute top-full left-0 z-30 mt-1 block w-60 rounded-md border border-hairline bg-panel text-left font-sans text-xs font-normal whitespace-normal shadow-sm"
      @mousedown.prevent
    >
      <span v-if="reading?.ok" class="number block px-2 py-1 text-quiet" data-testid="comes-to"
        >= {{ design.ledger!.format(reading) }}</span
      >
      <span v-else-if="reading" class="block px-2 py-1 text-quiet">
        <span v-if="marked" class="number block text-ink" aria-hidden="true"
          >{{ marked[0] }}<span class="bg-warn/15 underline decoration-wavy">{{ marked[1] }}</span
          >{{ marked[2] }}</span
        >
        {{ reading.message }}
      </span>
      <span v-if="found.list.length > 0" :id="listId" role="listbox" aria-label="Names that fit" class="block p-1">
        <button
          v-for="(s, i) in found.list"
          :id="`${listId}-${i}`"
          :key="s.text"
          type="button"
          role="option"
          tabindex="-1"
          :aria-selected="i === chosen"
          class="flex min-h-6 w-full items-baseline gap-2 rounded px-1.5 py-0.5 text-left"
          :class="i === chosen ? 'bg-signal-soft text-signal' : 'hover:bg-tray'"
          @click="choose(s)"
        >
          <span class="number min-w-0 flex-1 truncate">{{ s.text }}</span>
          <span class="number shrink-0 text-quiet">{{ s.about }}</span>
        </button>
      </span>
    </span>
  </span>
</template>
