<script setup lang="ts">
/** Every dimension of the design: the dials first, then the design's own, then each part's. */
import { Menu, MenuButton } from '@headlessui/vue';
import { addDimension, influences, linkNumbers, newId, numbersTypedTwice } from '@helb/core';
import { useVirtualizer, type Virtualizer } from '@tanstack/vue-virtual';
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import ActionItems from '../fields/ActionItems.vue';
import { inSlices } from '../shell/slices.ts';
import TrialBar from '../trial/TrialBar.vue';
import LedgerRow from './LedgerRow.vue';
import ManyBar from './ManyBar.vue';
import {
  FILTERS,
  isPlain,
  ledgerLines,
  lineSteps,
  SORTS,
  type Filter,
  type LedgerLine,
  type Sort,
} from './ledger-rows.ts';
import { useMeasuring } from './measuring.ts';
import { useProjectDimensions } from './project-dimensions.ts';

const design = useDesign();
const session = useSession();
const project = useProjectDimensions();
const { measure } = useMeasuring();
const query = ref('');
const sort = ref<Sort>('order');
const filter = ref<Filter>('all');
const picked = ref<string[]>([]);
let lastPicked: string | null = null;

const lines = shallowRef<readonly LedgerLine[]>([]);
/** How many hang on each, while sorted by that. */
const hangs = shallowRef<ReadonlyMap<string, number> | null>(null);
const wanted = computed(() => ({
  query: query.value,
  sort: sort.value,
  filter: filter.value,
  activePart: session.activePart,
}));
let layouts = 0;
watch([() => design.ledger, wanted], () => void layOut(), { immediate: true });

/** Lay the ledger out; what takes longer is done in slices, while the lines from before stay, each as it now reads. */
async function layOut(): Promise<void> {
  const mine = ++layouts;
  const { design: now, ledger } = design;
  const how = wanted.value;
  if (!now || !ledger) lines.value = [];
  else if (isPlain(how)) lines.value = ledgerLines(now, ledger, how);
  else {
    // In a task of its own: the edit is shown first.
    await new Promise((next) => setTimeout(next));
    if (mine !== layouts) return;
    const found = await inSlices(lineSteps(now, ledger, how), () => mine === layouts);
    if (!found || mine !== layouts) return;
    lines.value = found;
  }
  hangs.value = how.sort === 'influence' && ledger ? influences(ledger) : null;
}
/** Numbers that could be one; looked for when asked, as it means reading every expression. */
const twice = computed(() => (filter.value === 'twice' && design.ledger ? numbersTypedTwice(design.ledger) : []));

const scroller = useTemplateRef<HTMLElement>('scroller');
/** As rows are styled, px; what is otherwise, such as a row with its details open, is measured. */
const HEIGHT = { heading: 32, row: 28, text: 16, dial: 24 };
function heightOf(line: LedgerLine): number {
  if (line.kind === 'heading') return HEIGHT.heading;
  const { entry } = line;
  const { length, angle } = design.design!.units;
  const [, unit] = /^-?[\d.]+(?: ([a-z]+))?$/.exec(entry.expression) ?? [];
  const plain = unit === length || unit === angle;
  const texts = Number(entry.measured !== null || !plain) + Number(!!entry.note) + Number(hangs.value !== null);
  return HEIGHT.row + texts * HEIGHT.text + (entry.dial?.min && entry.dial.max ? HEIGHT.dial : 0);
}
const virtual = useVirtualizer(
  computed(() => ({
    count: lines.value.length,
    getScrollElement: () => scroller.value,
    getItemKey: (i: number) => lines.value[i]!.key,
    estimateSize: (i: number) => heightOf(lines.value[i]!),
    overscan: 3,
    // When it has been laid out; asked for at once, the page would be laid out anew for each row.
    measureElement: (
      row: HTMLElement,
      seen: ResizeObserverEntry | undefined,
      { itemSizeCache }: Virtualizer<HTMLElement, HTMLElement>,
    ) => {
      const box = seen?.borderBoxSize[0];
      const line = lines.value[Number(row.dataset.index)]!;
      return box ? Math.round(box.blockSize) : (itemSizeCache.get(line.key) ?? heightOf(line));
    },
  })),
);
const items = computed(() => virtual.value.getVirtualItems());
const measureRow = (el: unknown) => el && virtual.value.measureElement(el as HTMLElement);

// What is looked for is seen from its beginning.
watch([query, sort, filter], () => scroller.value?.scrollTo(0, 0));

// What is gone is not picked any more.
watch(
  () => design.ledger,
  (ledger) => (picked.value = picked.value.filter((r) => ledger?.index.byReference(r))),
);
// Something just made is brought into view, whatever was looked for.
watch(
  [() => session.dimensionToName, lines],
  ([toName], [before]) => {
    if (!toName) return;
    if (toName !== before) {
      query.value = '';
      filter.value = 'all';
    }
    const at = lines.value.findIndex((l) => l.key === toName);
    if (at >= 0) virtual.value.scrollToIndex(at, { align: 'center' });
  },
  { flush: 'post' },
);

function pick(reference: string, extend: boolean): void {
  const has = picked.value.includes(reference);
  const refs = lines.value.flatMap((l) => (l.kind === 'entry' ? [l.key] : []));
  const from = lastPicked === null ? -1 : refs.indexOf(lastPicked);
  const to = refs.indexOf(reference);
  if (extend && from >= 0) {
    const between = refs.slice(Math.min(from, to), Math.max(from, to) + 1);
    picked.value = [...new Set([...picked.value, ...between])];
  } else picked.value = has ? picked.value.filter((r) => r !== reference) : [...picked.value, reference];
  lastPicked = reference;
}

function freeName(base: string, taken: readonly string[]): string {
  for (let n = 1; ; n++) if (!taken.includes(`${base}_${n}`)) return `${base}_${n}`;
}
/** @param value what it begins with: a length, or a plain number, which it then stays */
function add(part: string | null, dial: boolean, value = '10 mm'): void {
  const home = part ? design.design!.parts[part]! : design.design!;
  const name = freeName(dial ? 'dial' : 'number', Object.values(home.dimensions).map((d) => d.name)); // prettier-ignore
  const id = newId('d');
  const made = { name, value, ...(dial ? { dial: {} } : {}) };
  session.notice = design.edit(addDimension(id, made, part ?? undefined));
  if (session.notice === null) session.dimensionToName = id;
}
async function addShared(): Promise<void> {
  const names = Object.values(project.now?.shared.dimensions ?? {}).map((d) => d.name);
  const id = newId('d');
  session.notice = await project.change(addDimension(id, { name: freeName('shared', names), value: '10 mm' }));
  if (session.notice === null) session.dimensionToName = id;
}

const news = computed(() => {
  const part = session.activePart;
  const name = part ? design.design?.parts[part]?.name : undefined;
  return [
    { label: 'Dial', run: () => add(null, true) },
    { label: 'Number of the design', run: () => add(null, false) },
    { label: 'Count of the design', run: () => add(null, false, '1') },
    { label: 'Shared by the project', run: addShared },
    ...(part && name
      ? [
          { label: `Number of ${name}`, run: () => add(part, false) },
          { label: `Mass of ${name}`, run: () => measure({ what: 'mass' }) },
          { label: `Volume of ${name}`, run: () => measure({ what: 'volume' }) },
          { label: `Surface of ${name}`, run: () => measure({ what: 'surface' }) },
          ...(['x', 'y', 'z'] as const).map((along) => ({
            label: `Size of ${name} along ${along}`,
            run: () => measure({ what: 'size', along }),
          })),
        ]
      : []),
  ];
});
/** The dimension of a line as it is now; none when it is gone. */
const entryOf = ({ key }: LedgerLine) => design.ledger?.index.byReference(key);
const link = (refs: readonly string[], to: string) => (session.notice = design.edit(linkNumbers(refs, to)));
const nameOf = (reference: string) => design.ledger?.index.byReference(reference)?.path.join('.') ?? reference;
</script>

<template>
  <section aria-label="Ledger" class="flex min-h-0 flex-col border-r border-hairline bg-panel">
    <header class="flex items-baseline gap-2 px-3.5 pt-2.5 pb-2">
      <h2 class="font-semibold">Ledger</h2>
      <span class="text-xs text-quiet"
        >{{ design.ledger?.entries.length ?? 0 }} dimension{{ design.ledger?.entries.length === 1 ? '' : 's' }}</span
      >
      <span class="flex-1" />
      <Menu as="div" class="relative">
        <MenuButton class="rounded px-1.5 text-xs leading-6 font-medium text-link hover:bg-tray">New</MenuButton>
        <ActionItems :items="news" side="right" />
      </Menu>
    </header>
    <div class="grid gap-1 px-3 pb-1.5">
      <input
        v-model="query"
        class="field"
        placeholder="Find a name, or a value in any unit"
        aria-label="Find a name or a value"
        @keydown.stop
      />
      <div class="flex gap-1 text-xs" @keydown.stop>
        <select v-model="sort" class="field min-w-0 flex-1 !py-0.5" aria-label="Order">
          <option v-for="(title, key) in SORTS" :key="key" :value="key">{{ title }}</option>
        </select>
        <select v-model="filter" class="field min-w-0 flex-1 !py-0.5" aria-label="Show">
          <option v-for="(title, key) in FILTERS" :key="key" :value="key">{{ title }}</option>
        </select>
      </div>
    </div>
    <ManyBar v-if="picked.length > 0" :picked="picked" @clear="picked = []" />
    <ul v-if="twice.length > 0" class="mx-3 mb-1 max-h-40 overflow-y-auto rounded-md border border-hairline text-xs">
      <li
        v-for="same in twice"
        :key="same.keep"
        class="flex items-baseline gap-2 border-b border-hairline px-2 py-1 last:border-0"
      >
        <span class="min-w-0 flex-1"
          ><span class="number">{{ design.ledger!.format(design.ledger!.valueOf(same.keep)) }}</span> stands
          {{ same.refs.length }} times; <span class="break-all">{{ nameOf(same.keep) }}</span> could be the one</span
        >
        <button class="shrink-0 font-medium text-link underline" @click="link(same.refs, same.keep)">Link them</button>
      </li>
    </ul>
    <div
      ref="scroller"
      class="min-h-0 flex-1 [contain:strict] overflow-y-auto bg-panel pb-3 will-change-transform"
      data-testid="ledger-list"
    >
      <div class="relative w-full" :style="{ height: `${virtual.getTotalSize()}px` }">
        <div
          v-for="item in items"
          :key="item.key as string"
          :ref="measureRow"
          :data-index="item.index"
          class="absolute left-0 w-full"
          :style="{ top: `${item.start}px` }"
        >
          <h3
            v-if="lines[item.index]!.kind === 'heading'"
            class="h-8 px-3.5 pt-3.5 text-xs leading-4 font-medium text-quiet"
          >
            {{ (lines[item.index] as { title: string }).title }}
          </h3>
          <LedgerRow
            v-else-if="entryOf(lines[item.index]!)"
            :entry="entryOf(lines[item.index]!)!"
            :picked="picked.includes(lines[item.index]!.key)"
            :picking="picked.length > 0"
            :hangs="hangs ? (hangs.get(lines[item.index]!.key) ?? 0) : null"
            @pick="(extend) => pick(lines[item.index]!.key, extend)"
          />
        </div>
      </div>
      <p v-if="lines.length === 0" class="px-3.5 py-3 text-quiet">
        {{
          query
            ? 'No dimension has that name or value.'
            : filter !== 'all'
              ? 'No dimension is like that.'
              : 'Numbers appear here as they are made. A dial is a number you mean to change later.'
        }}
      </p>
    </div>
    <TrialBar />
  </section>
</template>
