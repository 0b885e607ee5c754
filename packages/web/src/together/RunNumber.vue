<script setup lang="ts">
/** A number of a run, typed where it stands. */
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import ExpressionField from '../fields/ExpressionField.vue';
import { useOpenField } from '../fields/open-field.ts';

const props = defineProps<{ reference: string; label: string }>();
const design = useDesign();
const session = useSession();
const openField = useOpenField();
const open = ref(false);
const entry = computed(() => design.ledger?.index.byReference(props.reference));
const shown = computed(() => (entry.value ? design.ledger!.shown(entry.value) : ''));
const value = computed(() => (entry.value ? design.ledger!.format(design.ledger!.valueOfEntry(entry.value)) : ''));
</script>

<template>
  <template v-if="entry">
    <ExpressionField v-if="open" compact :reference="reference" :label="label" @close="open = false" />
    <button
      v-else
      class="slot number max-w-full leading-5 break-words"
      :aria-label="`${label}: ${shown}`"
      @mousedown="openField.takePointed($event, reference)"
      @click="openField.field || (open = true)"
      @pointerenter="session.hoveredDimension = reference"
      @pointerleave="session.hoveredDimension = null"
    >
      {{ shown }}<span v-if="value !== shown" class="font-normal text-quiet"> = {{ value }}</span>
    </button>
  </template>
</template>
