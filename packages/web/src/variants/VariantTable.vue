<script setup lang="ts">
/** The same design in several sizes: a row a variant, a column a number, a step or a material. */
import { Menu, MenuButton } from '@headlessui/vue';
import {
  addVariant,
  addVariantColumn,
  columnOf,
  columnTitle,
  deleteVariant,
  deleteVariantColumn,
  faultSentence,
  formatNumber,
  MATERIAL_KEYS,
  MATERIALS,
  newId,
  ownCell,
  readTable,
  renameVariant,
  setVariantCell,
  shownCell,
  writeTable,
  type ColumnKey,
  type Edit,
  type ReadTable,
} from '@helb/core';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, ref, shallowRef, useTemplateRef } from 'vue';
import { toast } from 'vue-sonner';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import ActionItems from '../fields/ActionItems.vue';
import NameField from '../fields/NameField.vue';
import { saveFile } from '../shell/save-file.ts';
import { useTrial } from '../trial/trial-store.ts';
import ColumnPicker from './ColumnPicker.vue';
import TakeTable from './TakeTable.vue';
import VariantCell from './VariantCell.vue';
import { useVariantWork } from './variant-work.ts';

const design = useDesign();
const session = useSession();
const trial = useTrial();
const work = useVariantWork();

const table = computed(() => design.kept?.variants);
const order = computed(() => table.value?.order ?? []);
const columns = computed(() => table.value?.columns ?? []);
const titles = computed(() => columns.value.map((key) => columnTitle(design.kept!, key)));
const owns = computed(() => columns.value.map((key) => ownCell(design.kept!, key)));
const choices = (key: ColumnKey): string[] | null => {
  const { kind } = columnOf(key);
  return kind === 'step' ? ['in', 'out'] : kind === 'material' ? MATERIAL_KEYS.map((k) => MATERIALS[k].label) : null;
};
const cellText = (id: string, key: ColumnKey): string => {
  const cell = table.value?.rows[id]?.cells[key];
  return cell === undefined ? '' : shownCell(design.kept!, key, cell);
};
const surveys = work.fresh;
const progress = work.progress;
const standing = (id: string): { text: string; tone: string } => {
  const survey = surveys.value.get(id);
  if (!survey) return { text: '', tone: '' };
  const [first] = survey.faults.filter((f) => f.how !== 'doubt');
  const [doubt] = survey.faults;
  const rest = survey.faults.length - 1;
  const more = rest > 0 ? ` And ${rest} more.` : '';
  if (first) return { text: `does not stand: ${faultSentence(design.kept!, first)}${more}`, tone: 'text-bad' };
  const { mass } = survey.numbers;
  const stands = mass === undefined ? 'stands' : `stands, ${formatNumber(mass, 3)} kg`;
  if (doubt)
    return { text: `${stands}, not for sure: ${faultSentence(design.kept!, doubt)}${more}`, tone: 'text-warn' };
  return { text: stands, tone: 'text-good' };
};

function make(edit: Edit): string | null {
  return (session.notice = design.edit(edit));
}
function add(): void {
  const taken = order.value.map((id) => table.value!.rows[id]!.name);
  let n = order.value.length + 1;
  while (taken.includes(`Variant ${n}`)) n++;
  make(addVariant(newId('v'), `Variant ${n}`));
}
function look(id: string): void {
  session.notice = trial.look(trial.variant === id ? null : id);
}

const taking = shallowRef<{ table: ReadTable; from: string } | null>(null);
function bring(text: string, from: string): void {
  taking.value = { table: readTable(design.kept!, text), from };
}
/** A table pasted anywhere here, as a spreadsheet copies it. */
function paste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (!/[\t\n]/.test(text.trim())) return;
  event.preventDefault();
  bring(text, 'were pasted');
}
async function copy(): Promise<void> {
  try {
    await navigator.clipboard.writeText(writeTable(design.kept!, '\t'));
    toast.success('The table is copied; paste it into a spreadsheet.');
  } catch {
    toast.error('This browser does not let the page copy; write a CSV file instead.');
  }
}
async function pasteByButton(): Promise<void> {
  try {
    bring(await navigator.clipboard.readText(), 'were pasted');
  } catch {
    toast.error('This browser does not let the page look at what was copied; click into the table and press Ctrl V.');
  }
}
const MOST_BYTES = 4 * 1024 * 1024;
const fileInput = useTemplateRef<HTMLInputElement>('fileInput');
async function readFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  if (file.size > MOST_BYTES) toast.error(`${file.name} is larger than 4 MB, the most a table can be.`);
  else bring(await file.text(), `stand in ${file.name}`);
}
function writeCsv(): void {
  const text = `\uFEFF${writeTable(design.kept!, ',')}`;
  saveFile(new TextEncoder().encode(text), `${design.kept!.name} - variants.csv`, 'text/csv');
}

const exports = computed(() => [
  { label: 'Each as STEP', run: () => work.exportEach(order.value, 'step') },
  { label: 'Each as STL', run: () => work.exportEach(order.value, 'stl') },
  { label: 'Each as 3MF', run: () => work.exportEach(order.value, '3mf') },
]);
const tables = [
  { label: 'Copy the table', run: copy },
  { label: 'Paste a table', run: pasteByButton },
  { label: 'Write a CSV file', run: writeCsv },
  { label: 'Read a CSV file', run: () => fileInput.value?.click() },
];
const rowItems = (id: string) => [
  { label: 'Write as STEP', run: () => work.exportEach([id], 'step') },
  { label: 'Write as STL', run: () => work.exportEach([id], 'stl') },
  { label: 'Delete', run: () => make(deleteVariant(id)) },
];

const choosing = ref(false);
const scroller = useTemplateRef<HTMLElement>('scroller');
const ROW = 33;
const virtual = useVirtualizer(
  computed(() => ({
    count: order.value.length,
    getScrollElement: () => scroller.value,
    getItemKey: (i: number) => order.value[i]!,
    estimateSize: () => ROW,
    overscan: 8,
  })),
);
const rows = computed(() => virtual.value.getVirtualItems());
const above = computed(() => rows.value[0]?.start ?? 0);
const below = computed(() => virtual.value.getTotalSize() - (rows.value.at(-1)?.end ?? 0));
</script>

<template>
  <section
    aria-label="Variants"
    class="flex h-64 min-h-0 flex-col border-t border-hairline bg-panel"
    tabindex="-1"
    @paste="paste"
  >
    <header class="flex h-10 items-center gap-2 px-3">
      <h2 class="font-semibold">Variants</h2>
      <span class="text-xs text-quiet">{{ order.length }}</span>
      <button class="button px-2 py-0.5" @click="add">New variant</button>
      <button class="button px-2 py-0.5" :aria-expanded="choosing" @click="choosing = !choosing">New column</button>
      <Menu as="div" class="relative">
        <MenuButton class="button px-2 py-0.5">Table</MenuButton>
        <ActionItems :items="tables" side="left" />
      </Menu>
      <template v-if="order.length > 0">
        <button class="button px-2 py-0.5" :disabled="progress !== null" @click="work.computeAll">Compute all</button>
        <Menu as="div" class="relative">
          <MenuButton class="button px-2 py-0.5" :disabled="progress !== null">Write each</MenuButton>
          <ActionItems :items="exports" side="left" />
        </Menu>
      </template>
      <span v-if="progress" role="status" class="flex items-center gap-2 text-quiet">
        {{ progress.doing }}, {{ progress.done }} of {{ progress.total }}
        <progress class="h-1.5 w-24" :value="progress.done" :max="progress.total" />
        <button class="font-medium text-link underline" @click="work.stop">Stop</button>
      </span>
      <span class="flex-1" />
      <button class="font-medium text-link underline" @click="session.showVariants = false">Back to the parts</button>
    </header>
    <input
      ref="fileInput"
      type="file"
      accept=".csv,text/csv,text/plain"
      class="hidden"
      aria-label="CSV file"
      @change="readFile"
    />
    <div ref="scroller" class="min-h-0 flex-1 overflow-auto px-3 pb-3">
      <TakeTable v-if="taking" :table="taking.table" :from="taking.from" @close="taking = null" />
      <ColumnPicker v-else-if="choosing" @close="choosing = false" @choose="(key) => make(addVariantColumn(key))" />
      <p v-if="order.length === 0 && !taking && !choosing" class="max-w-xl py-2 text-quiet">
        A variant is this design with other numbers, with steps left out, or of other materials. Add one and give it
        columns, or paste a table from a spreadsheet: its first line “variant” and the names of dimensions.
      </p>
      <table v-else-if="!taking" class="border-collapse text-[13px]">
        <thead class="sticky top-0 z-20 bg-panel text-left text-xs text-quiet">
          <tr>
            <th class="pr-3 font-normal">variant</th>
            <th v-for="(key, i) in columns" :key="key" class="pr-3 pb-1 font-normal">
              <span class="flex items-center gap-1 whitespace-nowrap"
                >{{ titles[i]
                }}<button
                  class="h-6 w-5 rounded hover:text-bad"
                  :aria-label="`Delete the column ${titles[i]}`"
                  @click="make(deleteVariantColumn(key))"
                >
                  ×
                </button></span
              >
            </th>
            <th class="font-normal">computed</th>
          </tr>
        </thead>
        <tbody>
          <tr v-if="above > 0" :style="{ height: `${above}px` }" />
          <tr
            v-for="row in rows"
            :key="row.key as string"
            class="border-t border-hairline"
            :class="trial.variant === row.key ? 'bg-signal-soft' : ''"
            :style="{ height: `${ROW}px` }"
            :data-variant="table!.rows[row.key as string]!.name"
          >
            <td class="pr-3">
              <span class="flex items-center gap-1 whitespace-nowrap">
                <button
                  class="rounded border px-1.5 text-xs leading-5"
                  :class="
                    trial.variant === row.key
                      ? 'border-signal bg-signal text-on-signal'
                      : 'border-hairline hover:border-quiet'
                  "
                  :aria-pressed="trial.variant === row.key"
                  :aria-label="`Look at ${table!.rows[row.key as string]!.name}`"
                  @click="look(row.key as string)"
                >
                  look
                </button>
                <NameField
                  :name="table!.rows[row.key as string]!.name"
                  label="Name of the variant"
                  :rename="(name) => design.edit(renameVariant(row.key as string, name))"
                />
                <Menu as="div" class="relative">
                  <MenuButton
                    class="h-6 w-6 rounded text-quiet hover:bg-tray"
                    :aria-label="`More for ${table!.rows[row.key as string]!.name}`"
                    >…</MenuButton
                  >
                  <ActionItems :items="rowItems(row.key as string)" side="left" />
                </Menu>
              </span>
            </td>
            <td v-for="(key, i) in columns" :key="key" class="pr-3">
              <VariantCell
                :label="`${table!.rows[row.key as string]!.name}, ${titles[i]}`"
                :text="cellText(row.key as string, key)"
                :own="owns[i]!"
                :choices="choices(key)"
                :set="(typed) => design.edit(setVariantCell(row.key as string, key, typed))"
              />
            </td>
            <td
              class="max-w-96 truncate"
              :class="standing(row.key as string).tone"
              :title="standing(row.key as string).text"
            >
              {{ standing(row.key as string).text }}
            </td>
          </tr>
          <tr v-if="below > 0" :style="{ height: `${below}px` }" />
        </tbody>
      </table>
    </div>
  </section>
</template>
