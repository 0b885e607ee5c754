<script setup lang="ts">
/** What is still loose in the open sketch, in words; each can be seen moving and be held with one click. */
import {
  describeConstraint, formatQuantity, isDimension, measureDimension, quantityOf, removeFromSketch, type Proposal,
} from '@helb/core'; // prettier-ignore
import { inject, onBeforeUnmount } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { SKETCH_EDITING } from './editing-key.ts';
import { useFreedomList } from './freedom-list.ts';

const editing = inject(SKETCH_EDITING)!;
const design = useDesign();
const session = useSession();
const list = useFreedomList(editing);
onBeforeUnmount(list.stop);

const labelOf = (p: Proposal) => {
  const value = list.expressionFor(p);
  const text = value === undefined ? p.label : `${p.label} ${value}`;
  // What is moved is said, down to what can be seen.
  return p.moves < 0.0005 ? text : `${text}, moves by up to ${formatQuantity(p.moves, 'length', design.design!.units)}`;
};
const sayOf = (id: string) => (editing.step.value ? describeConstraint(editing.step.value, id) : '');
/** What a number that is said twice would read on its own: the same. */
function without(id: string): string {
  const c = editing.step.value?.constraints[id];
  if (!c || !isDimension(c) || !editing.geometry.value || !design.design) return '';
  return formatQuantity(measureDimension(editing.geometry.value, c), quantityOf(c), design.design.units);
}
function remove(id: string): void {
  editing.change('Remove what is said twice', (sketch) => void removeFromSketch(sketch, [id]));
}
const count = () => editing.solution.value?.freedoms ?? 0;
</script>

<template>
  <div v-if="editing.solution.value?.solved" class="mt-1 border-t border-dashed border-hairline pt-1 text-[13px]">
    <button
      v-if="count() > 0 || (editing.solution.value?.redundant.length ?? 0) > 0"
      class="font-medium text-link underline"
      :aria-expanded="list.open.value"
      @click="list.open.value = !list.open.value"
    >
      {{ list.open.value ? 'Hide freedoms' : 'Show freedoms' }}
    </button>
    <div v-if="list.open.value" class="mt-1">
      <ul v-if="!list.plan.value" class="flex flex-col gap-0.5" aria-label="Freedoms">
        <li v-for="(freedom, i) in list.freedoms.value" :key="i">
          <button
            class="w-full rounded px-1.5 py-1 text-left hover:bg-tray"
            :class="list.chosen.value === i ? 'bg-signal-soft text-signal' : ''"
            :aria-expanded="list.chosen.value === i"
            @mouseenter="list.chosen.value === null && list.swing(freedom)"
            @mouseleave="list.chosen.value === null && list.swing(null)"
            @click="list.choose(i)"
          >
            {{ freedom.sentence }}
          </button>
          <div v-if="list.chosen.value === i" class="flex flex-wrap gap-1 py-1 pl-2">
            <span v-if="list.proposals.value === null" class="text-quiet">Looking for what would hold it …</span>
            <span v-else-if="list.proposals.value.length === 0" class="text-quiet"
              >Nothing simple holds it; add a dimension to what moves.</span
            >
            <button
              v-for="(p, k) in list.proposals.value ?? []"
              :key="k"
              class="rounded-full border border-hairline bg-panel px-2 py-0.5 hover:border-signal hover:text-signal"
              @click="list.take(p)"
            >
              {{ labelOf(p) }}
            </button>
          </div>
        </li>
      </ul>
      <div v-else aria-label="Proposed set" role="group">
        <p class="py-1 text-quiet" role="status">
          {{
            !list.plan.value.done
              ? `Looking for a full set, ${list.plan.value.left} ${list.plan.value.left === 1 ? 'freedom' : 'freedoms'} to go …`
              : list.plan.value.left === 0
                ? 'Together these settle the sketch. Take out what you do not want.'
                : `These leave ${list.plan.value.left} freedoms that nothing simple holds.`
          }}
        </p>
        <label
          v-for="(item, i) in list.plan.value.items"
          :key="i"
          class="flex items-center gap-2 rounded px-1.5 py-0.5 hover:bg-tray"
          @mouseenter="session.entities = [...item.proposal.reading.of]"
        >
          <input type="checkbox" class="accent-petrol" :checked="item.kept" @change="list.toggle(i)" />
          {{ labelOf(item.proposal) }}
        </label>
        <div class="mt-1 flex gap-2">
          <button class="button-primary py-0.5" :disabled="!list.plan.value.done" @click="list.takePlan">
            Add these
          </button>
          <button class="button py-0.5" @click="list.stop">{{ list.plan.value.done ? 'Drop' : 'Stop' }}</button>
        </div>
      </div>
      <button v-if="!list.plan.value && count() > 0" class="button mt-1 py-0.5" @click="list.propose">
        Settle all
      </button>
      <div v-if="list.redundant.value.length > 0" class="mt-2">
        <p class="text-warn">Said twice; removing it changes nothing:</p>
        <p
          v-for="id in list.redundant.value"
          :key="id"
          class="flex justify-between gap-2 py-0.5"
          @mouseenter="session.entities = [...(editing.step.value?.constraints[id]?.of ?? [])]"
        >
          <span class="flex-1"
            ><span class="inline-block first-letter:uppercase">{{ sayOf(id) }}</span>
            <span v-if="without(id)" class="text-quiet"
              >, still <span class="number">{{ without(id) }}</span> without it</span
            ></span
          >
          <button class="text-link underline" @click="remove(id)">Remove</button>
        </p>
      </div>
    </div>
  </div>
</template>
