<script setup lang="ts">
/** The same verbs as a list to search, opened with Space anywhere. */
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogPanel } from '@headlessui/vue';
import { computed, ref, watch } from 'vue';
import type { Verb } from './verbs.ts';

const props = defineProps<{ open: boolean; verbs: readonly Verb[] }>();
const emit = defineEmits<{ close: [] }>();

const query = ref('');
const found = computed(() =>
  props.verbs.filter((v) => v.label.toLowerCase().includes(query.value.trim().toLowerCase())),
);
watch(
  () => props.open,
  () => (query.value = ''),
);

function run(verb: Verb | null): void {
  emit('close');
  verb?.run();
}
</script>

<template>
  <Dialog :open="open" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/10" aria-hidden="true" />
    <div class="fixed inset-x-0 top-28 flex justify-center">
      <DialogPanel class="w-96 overflow-hidden rounded-lg border border-hairline bg-panel shadow-lg">
        <Combobox :model-value="null" @update:model-value="run">
          <ComboboxInput
            class="w-full border-b border-hairline bg-field px-3 py-2 text-sm outline-none"
            placeholder="Say what to do"
            aria-label="Find a verb"
            @change="query = $event.target.value"
          />
          <ComboboxOptions static class="max-h-80 overflow-y-auto p-1">
            <ComboboxOption v-for="verb in found" :key="verb.id" v-slot="{ active }" :value="verb">
              <div class="flex justify-between rounded px-2 py-1.5" :class="active ? 'bg-signal-soft text-signal' : ''">
                <span class="font-medium">{{ verb.label }}</span>
                <kbd class="number text-quiet">{{ verb.key }}</kbd>
              </div>
            </ComboboxOption>
            <p v-if="found.length === 0" class="px-2 py-3 text-quiet">
              Nothing here is called that. What can be done depends on what is picked.
            </p>
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>
