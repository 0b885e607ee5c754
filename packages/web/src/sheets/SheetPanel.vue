<script setup lang="ts">
/** Beside the sheet: what of it is amiss, its paper and views, and what stands in its title block. */
import {
  changeSheet,
  changeSheetView,
  limitsTyped,
  PAPER_KEYS,
  readLimits,
  putSize,
  SIDES,
  setSheetField,
  TOLERANCES,
  type SheetChange,
} from '@helb/core';
import { useFileDialog } from '@vueuse/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import LengthField from '../fields/LengthField.vue';
import PlainField from '../fields/PlainField.vue';
import AuditList from './AuditList.vue';
import ScaleField from './ScaleField.vue';
import SheetIssues from './SheetIssues.vue';
import WhatIsShown from './WhatIsShown.vue';
import { useSheets } from './sheet-store.ts';

const sheets = useSheets();
const session = useSession();
const design = useDesign();

const { open, onChange } = useFileDialog({ accept: '.json,application/json', multiple: false, reset: true });
onChange(async (files) => files?.[0] && sheets.useTemplate(await files[0].text()));

const change = (to: SheetChange): void => void sheets.edit(changeSheet(session.activeSheet!, to));
const chosen = (event: Event) => (event.target as HTMLSelectElement).value;

const FIELDS = [
  ['title', 'Title'],
  ['number', 'Number'],
  ['drawn', 'Drawn by'],
  ['checked', 'Checked by'],
  ['tolerances', 'Tolerances'],
] as const;
/** Stands where the sheet itself says nothing. */
const ofProject = computed(() => design.design?.shared?.titleBlock ?? {});
const write = (field: (typeof FIELDS)[number][0], text: string): void => void sheets.edit(setSheetField(session.activeSheet!, field, text)); // prettier-ignore

const size = computed(() => (sheets.pickedSize ? sheets.sheet?.sizes[sheets.pickedSize] : undefined));
/** All of it is written by hand. */
const isWords = computed(() => size.value?.kind === 'note' || size.value?.kind === 'surface');
const detail = computed(() => (sheets.pickedView ? sheets.sheet?.views[sheets.pickedView]?.detail : undefined));
const changeDetail = (to: NonNullable<typeof detail.value>): void => void sheets.edit(changeSheetView(session.activeSheet!, sheets.pickedView!, { detail: to })); // prettier-ignore
function setDetailScale(scale: [number, number] | null): void {
  const { scale: _, ...rest } = detail.value!;
  changeDetail(scale ? { ...rest, scale } : rest);
}
const limits = computed(() => (size.value ? limitsTyped(size.value, design.design!.units) : ''));
/** ±0.1, +0.2/-0.1 or H7, in the design’s unit; nothing takes it off. */
function setLimits(typed: string): void {
  const { limits: _, ...rest } = size.value!;
  const read = readLimits(typed, size.value!, design.design!.units);
  if (read === null) session.notice = `“${typed}” is no tolerance; type ±0.1, +0.2/-0.1 or a class such as H7.`;
  else sheets.edit(putSize(session.activeSheet!, [[sheets.pickedSize!, read === 'none' ? rest : { ...rest, limits: read }]])); // prettier-ignore
}
function setText(typed: string): void {
  const text = typed.trim();
  const { text: _, ...rest } = size.value!;
  sheets.edit(putSize(session.activeSheet!, [[sheets.pickedSize!, text ? { ...rest, text } : rest]]));
}
</script>

<template>
  <aside
    v-if="sheets.sheet"
    aria-label="Audit"
    role="region"
    class="flex min-h-0 flex-col gap-4 overflow-y-auto border-l border-hairline bg-panel p-4"
  >
    <AuditList />

    <section v-if="size" aria-label="Size">
      <h3 class="mb-1 font-semibold">
        {{ isWords ? (size.kind === 'note' ? 'This note' : 'This surface mark') : 'This size' }}
      </h3>
      <PlainField
        :key="sheets.pickedSize ?? ''"
        :label="isWords ? 'Its words' : 'Words round its number, which stands where <> does'"
        :value="size.text ?? ''"
        :placeholder="size.kind === 'note' ? 'Break sharp edges' : size.kind === 'surface' ? 'Ra 3.2' : '4× <> THRU'"
        @set="setText"
      />
      <PlainField
        v-if="!isWords && size.kind !== 'chamfer'"
        :key="`limits ${sheets.pickedSize}`"
        class="mt-2"
        label="Tolerance or fit"
        :value="limits"
        placeholder="±0.1, +0.2/-0.1, H7"
        @set="setLimits"
      />
    </section>

    <section v-if="detail" aria-label="Detail">
      <h3 class="mb-1 font-semibold">This detail</h3>
      <div class="grid grid-cols-2 gap-2">
        <LengthField
          :key="sheets.pickedView ?? ''"
          label="Shows round it"
          :value="detail.radius"
          :least="0.01"
          :most="10000"
          @set="changeDetail({ ...detail, radius: $event })"
        />
        <ScaleField :value="detail.scale" @set="setDetailScale" />
      </div>
    </section>

    <SheetIssues />

    <WhatIsShown />

    <section aria-label="Paper">
      <h3 class="mb-1 font-semibold">Paper</h3>
      <div class="grid grid-cols-2 gap-2">
        <label class="text-quiet"
          >Size
          <select
            class="field mt-1 w-full"
            :value="sheets.sheet.paper"
            @change="change({ paper: chosen($event) as never })"
          >
            <option v-for="key in PAPER_KEYS" :key="key">{{ key }}</option>
          </select>
        </label>
        <label class="text-quiet"
          >Lies
          <select
            class="field mt-1 w-full"
            :value="sheets.sheet.upright ? 'upright' : 'across'"
            @change="change({ upright: chosen($event) === 'upright' })"
          >
            <option>across</option>
            <option>upright</option>
          </select>
        </label>
        <label class="text-quiet"
          >Projection
          <select
            class="field mt-1 w-full"
            :value="sheets.sheet.angle"
            @change="change({ angle: chosen($event) as never })"
          >
            <option value="first">first angle</option>
            <option value="third">third angle</option>
          </select>
        </label>
        <ScaleField :value="sheets.sheet.scale" @set="change({ scale: $event })" />
        <label class="text-quiet"
          >Its front
          <select
            class="field mt-1 w-full"
            :value="sheets.sheet.front"
            @change="change({ front: chosen($event) as never })"
          >
            <option v-for="side in SIDES" :key="side">{{ side }}</option>
          </select>
        </label>
      </div>
      <p v-if="sheets.composed?.laidOut.crowded" class="mt-2 text-warn">
        The views have no room at this scale; take a smaller one, or larger paper.
      </p>
      <p class="mt-2 flex gap-3">
        <button class="text-link underline" @click="open()">Use a template</button>
        <button class="text-link underline" @click="sheets.writeTemplate()">Write as template</button>
      </p>
    </section>

    <section aria-label="Title block">
      <h3 class="mb-1 font-semibold">Title block</h3>
      <PlainField
        v-for="[field, label] in FIELDS"
        :key="field"
        class="mb-2"
        :label="label"
        :value="sheets.sheet.fields[field] ?? ''"
        :placeholder="
          field === 'title'
            ? sheets.subject?.name
            : field === 'number'
              ? ''
              : (ofProject[field] ?? (field === 'tolerances' ? TOLERANCES : ''))
        "
        @set="write(field, $event)"
      />
    </section>
  </aside>
</template>
