<script setup lang="ts">
/** The numbers of a change that is under way, in a strip below the verbs. */
import { nextTick, ref, watch } from 'vue';
import { useSession } from '../design/session.ts';
import type { SketchEditing } from './sketch-editing.ts';

const props = defineProps<{ editing: SketchEditing }>();
const session = useSession();
const changing = props.editing.changing;
const inputs = ref<HTMLInputElement[]>([]);

watch(
  () => session.changing,
  () =>
    void nextTick(() => {
      inputs.value[0]?.focus();
      inputs.value[0]?.select();
    }),
  { immediate: true },
);

const keep = () => (changing.atClick.value ? (document.activeElement as HTMLElement | null)?.blur() : changing.keep());
</script>

<template>
  <form
    class="flex items-center gap-3 border-b border-hairline bg-panel/95 px-3 py-1.5"
    :aria-label="session.changing ?? ''"
    @submit.prevent="keep"
  >
    <label
      v-for="field in changing.fields.value"
      :key="field.name"
      class="relative flex items-center gap-1.5 text-quiet"
    >
      <span class="first-letter:uppercase">{{ field.name }}</span>
      <input
        ref="inputs"
        v-model="changing.texts.value[field.name]"
        :aria-label="field.name"
        :aria-invalid="!!changing.numbers.value.faults[field.name]"
        :title="changing.numbers.value.faults[field.name]"
        :placeholder="field.name === 'step' ? 'whole turn' : ''"
        class="number w-20 rounded border bg-field px-1 text-[13px] text-ink"
        :class="changing.numbers.value.faults[field.name] ? 'border-bad' : 'border-hairline'"
        autocomplete="off"
        @keydown.escape.stop.prevent="session.changing = null"
        @keydown.stop
      />
    </label>
    <label v-if="session.changing === 'offset'" class="flex items-center gap-1.5 text-quiet">
      <input v-model="changing.reversed.value" type="checkbox" class="accent-petrol" /> Other side
    </label>
    <span v-if="changing.support.value" class="text-quiet">
      {{ session.changing === 'circular pattern' ? 'about' : 'along' }}
      <span class="number text-ink">{{
        /^(origin|x_axis|y_axis)$/.test(changing.support.value)
          ? changing.support.value.replace('_', ' ')
          : session.changing === 'circular pattern'
            ? 'the picked point'
            : 'the picked line'
      }}</span>
    </span>
    <span class="flex-1" />
    <button v-if="!changing.atClick.value && session.changing !== 'mirror'" class="button-primary py-0.5" type="submit">
      Keep
    </button>
    <button class="button py-0.5" type="button" @click="session.changing = null">
      {{ changing.atClick.value ? 'Done' : 'Drop' }}
    </button>
  </form>
</template>
