<script setup lang="ts">
/** What must hold of the design: written here, judged as one works. */
import { addRequirement, changeRequirement, deleteRequirement, judgeRequirements, newId, shownValue } from '@helb/core';
import { IconX } from '@tabler/icons-vue';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import NameField from '../fields/NameField.vue';
import { useFlex } from './flex-store.ts';

const design = useDesign();
const session = useSession();
const flex = useFlex();

const judged = computed(() => (design.design ? judgeRequirements(design.design) : []));

/** Where in the dials' ranges it is first not kept, by the last flex. */
function failsAt(id: string): string {
  if (flex.stale) return '';
  for (const { dial, below, above } of flex.dials)
    for (const [limit, word] of [
      [below, 'up to'],
      [above, 'from'],
    ] as const)
      if (limit?.faults.some((f) => f.requirement === id))
        return `, not kept ${word} ${dial.name} = ${shownValue(dial, limit.fails, design.kept!.units)}`;
  return '';
}

const typed = ref('');
const fault = ref<string | null>(null);
function add(): void {
  if (typed.value.trim() === '') return;
  fault.value = design.edit(addRequirement(newId('r'), typed.value));
  if (fault.value === null) typed.value = '';
}
function remove(id: string): void {
  session.notice = design.edit(deleteRequirement(id));
}
</script>

<template>
  <section aria-label="Requirements" class="mt-6">
    <h3 class="font-semibold">Requirements</h3>
    <ul class="mt-2 flex flex-col gap-2">
      <li
        v-for="{ id, says, holds, because } in judged"
        :key="id"
        class="flex items-baseline gap-2 rounded-md border border-hairline bg-card px-3 py-1.5"
        :data-holds="holds"
      >
        <span
          class="font-bold"
          :class="holds ? 'text-good' : 'text-bad'"
          role="img"
          :aria-label="holds === null ? 'cannot be told' : holds ? 'kept' : 'not kept'"
          >{{ holds === null ? '?' : holds ? '✓' : '✗' }}</span
        >
        <NameField
          class="number min-w-0"
          :name="says"
          label="Requirement"
          :rename="(text) => design.edit(changeRequirement(id, text))"
        />
        <span class="min-w-0 flex-1 truncate text-[13px]" :class="holds ? 'text-quiet' : 'text-bad'"
          ><span class="number">{{ because }}</span
          >{{ failsAt(id) }}</span
        >
        <button
          class="grid h-6 w-6 place-items-center text-quiet hover:text-bad"
          :aria-label="`Delete ${says}`"
          @click="remove(id)"
        >
          <IconX :size="14" />
        </button>
      </li>
    </ul>
    <form class="mt-2 flex items-baseline gap-2" @submit.prevent="add">
      <input
        v-model="typed"
        class="number min-w-0 flex-1 rounded-md border border-hairline bg-field px-2 py-1"
        placeholder="wall >= 2 mm, or 0.1 mm <= slot.width - tab.width <= 0.3 mm"
        aria-label="New requirement"
        @input="fault = null"
        @keydown.stop
      />
      <button class="button px-2 py-0.5">Require</button>
    </form>
    <p v-if="fault" role="alert" class="mt-1 text-bad">{{ fault }}</p>
  </section>
</template>
