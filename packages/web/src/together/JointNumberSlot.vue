<script setup lang="ts">
/** A number in a joint’s sentence, typed where it stands. */
import { setJointNumber, type JointNumber, type JointState } from '@helb/core';
import { computed, ref, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import ExpressionField from '../fields/ExpressionField.vue';
import { useOpenField } from '../fields/open-field.ts';

const props = defineProps<{ state: Pick<JointState, 'id' | 'assembly'>; number: JointNumber | 'first' | 'second' | 'lead'; begin: boolean }>(); // prettier-ignore
const emit = defineEmits<{ done: [] }>();
const design = useDesign();
const session = useSession();
const openField = useOpenField();
const open = ref(false);

const reference = computed(() => `${props.state.id}.${props.number}`);
const entry = computed(() => design.ledger?.index.byReference(reference.value));
const shown = computed(() => (entry.value ? design.ledger!.shown(entry.value) : ''));
const value = computed(() => (entry.value ? design.ledger!.format(design.ledger!.valueOfEntry(entry.value)) : ''));
watch(
  () => props.begin,
  (now) => now && (open.value = true),
  { immediate: true },
);

function close(): void {
  open.value = false;
  emit('done');
}

function clear(): void {
  session.notice = design.edit(setJointNumber(props.state.assembly, props.state.id, props.number, null));
}
</script>

<template>
  <span v-if="entry"
    >{{ number.replace('_', ' ') }}
    <ExpressionField v-if="open" compact :reference="reference" :label="number.replace('_', ' ')" @close="close" />
    <template v-else>
      <button
        class="slot number max-w-full leading-5 break-words"
        :aria-label="`${number.replace('_', ' ')}: ${shown}`"
        @mousedown="openField.takePointed($event, reference)"
        @click="openField.field || (open = true)"
        @pointerenter="session.hoveredDimension = reference"
        @pointerleave="session.hoveredDimension = null"
      >
        {{ shown }}<span v-if="value !== shown" class="font-normal text-quiet"> = {{ value }}</span>
      </button>
      <button
        class="ml-0.5 text-quiet opacity-0 group-hover:opacity-100 focus:opacity-100"
        :aria-label="`Take away ${number.replace('_', ' ')}`"
        @click="clear"
      >
        ×
      </button>
    </template>
  </span>
</template>
