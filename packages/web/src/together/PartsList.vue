<script setup lang="ts">
/** The parts of the assembly, counted and weighed, over the lower stage. */
import { cutList, cutsCsv, formatNumber, formatQuantity, MATERIALS, newId, partsCsv, partsList, setCell, setColumn, weighed, type Edit } from '@helb/core'; // prettier-ignore
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import HeldInput from '../fields/HeldInput.vue';
import { saveFile } from '../shell/save-file.ts';
import { useBulkOfPart } from './bulk-of-part.ts';
import { useTogether } from './together-store.ts';

const design = useDesign();
const session = useSession();
const together = useTogether();
const bulkOf = useBulkOfPart();

const rows = computed(() =>
  together.it && design.design ? partsList(design.design, together.it.members, bulkOf) : [],
);
const whole = computed(() =>
  together.it && design.design ? weighed(design.design, together.it.members, together.poses, bulkOf) : null,
);
const length = (mm: number) => formatQuantity(mm, 'length', design.design!.units);

/** Listed by part, or by what is cut from boards, sheets and bars. */
const listed = ref<'parts' | 'cuts'>('parts');
const cuts = computed(() => cutList(rows.value));

const columns = computed(() => design.design?.columns ?? []);
function edit(made: Edit): boolean {
  session.notice = design.edit(made);
  return session.notice === null;
}
function freshName(): string {
  let n = 1;
  while (columns.value.some((c) => c.name === `Column ${n}`)) n++;
  return `Column ${n}`;
}

function write(): void {
  const csv = listed.value === 'parts' ? partsCsv(rows.value, design.design!) : cutsCsv(cuts.value);
  saveFile(new TextEncoder().encode(csv), `${together.assembly!.name}, ${listed.value}.csv`, 'text/csv');
}
</script>

<template>
  <section
    aria-label="Parts list"
    class="max-h-[45%] overflow-y-auto border-t border-hairline bg-panel/95 px-4 py-2 text-xs"
  >
    <header class="flex items-baseline gap-3 pb-1">
      <h3 class="font-semibold">Parts list</h3>
      <select v-model="listed" class="rounded border border-hairline bg-field px-1" aria-label="Listed by">
        <option value="parts">by part</option>
        <option value="cuts">by what is cut</option>
      </select>
      <span v-if="whole" class="number text-quiet" data-testid="whole-mass"
        >{{ formatNumber(whole.mass, 4) }} kg<template v-if="whole.center"
          >, centre {{ whole.center.map(length).join(', ') }}</template
        ></span
      >
      <span v-if="whole && whole.without.length > 0" class="text-warn"
        >{{ whole.without.slice(0, 3).join(', ') }} without a material, left out</span
      >
      <!-- prettier-ignore -->
      <span class="flex-1" />
      <button class="text-link underline" @click="write">Write CSV</button>
      <button class="text-link underline" @click="session.showParts = false">Close</button>
    </header>
    <table v-if="listed === 'cuts'" class="w-full text-left">
      <thead class="text-quiet">
        <tr>
          <th class="font-normal">Material</th>
          <th class="font-normal">Thick</th>
          <th class="font-normal">Wide</th>
          <th class="font-normal">Long</th>
          <th class="font-normal">Count</th>
          <th class="font-normal">For</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(cut, i) in cuts" :key="i" class="border-t border-hairline">
          <td>{{ cut.material ? MATERIALS[cut.material].label : '' }}</td>
          <td class="number">{{ length(cut.thickness) }}</td>
          <td class="number">{{ length(cut.width) }}</td>
          <td class="number">{{ length(cut.length) }}</td>
          <td class="number">{{ cut.count }}</td>
          <td>{{ cut.names.join(', ') }}</td>
        </tr>
      </tbody>
    </table>
    <table v-else class="w-full text-left">
      <thead class="text-quiet">
        <tr>
          <th class="font-normal">Part</th>
          <th class="font-normal">Count</th>
          <th class="font-normal">Material</th>
          <th class="font-normal">Each</th>
          <th class="font-normal">All</th>
          <th class="font-normal">Size</th>
          <th v-for="column in columns" :key="column.id" class="font-normal">
            <HeldInput
              class="w-24 rounded border border-transparent bg-transparent px-1 hover:border-hairline focus:border-signal"
              :aria-label="`Name of the column ${column.name}`"
              :value="column.name"
              :set="(typed) => edit(setColumn(column.id, typed))"
              @keydown.stop
            />
            <button
              class="text-quiet hover:text-bad"
              :aria-label="`Take away the column ${column.name}`"
              @click="edit(setColumn(column.id, null))"
            >
              ×
            </button>
          </th>
          <th class="font-normal">
            <button class="text-link underline" @click="edit(setColumn(newId('c'), freshName()))">Add a column</button>
          </th>
        </tr>
        <!-- prettier-ignore -->
      </thead>
      <tbody>
        <tr v-for="(row, i) in rows" :key="i" class="border-t border-hairline">
          <td>{{ row.name }}</td>
          <td class="number">{{ row.count }}</td>
          <td>{{ row.material ? MATERIALS[row.material].label : '' }}</td>
          <td class="number">{{ row.each === null ? '' : `${formatNumber(row.each, 4)} kg` }}</td>
          <td class="number">{{ row.each === null ? '' : `${formatNumber(row.each * row.count, 4)} kg` }}</td>
          <td class="number">{{ row.size ? row.size.map(length).join(' × ') : '' }}</td>
          <td v-for="column in columns" :key="column.id">
            <HeldInput
              class="w-28 rounded border border-transparent bg-transparent px-1 hover:border-hairline focus:border-signal"
              :aria-label="`${column.name} of ${row.name}`"
              :value="design.design!.parts[row.part]?.cells?.[column.id] ?? ''"
              :set="(typed) => edit(setCell(row.part, column.id, typed))"
              @keydown.stop
            />
          </td>
          <td />
        </tr>
      </tbody>
    </table>
    <p v-if="listed === 'cuts'" class="pt-1 text-quiet">
      Boxes round the parts as drawn, without what the cut takes or is planed off.
    </p>
  </section>
</template>
