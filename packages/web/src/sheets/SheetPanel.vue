<script setup lang="ts">
/** Beside the sheet: what of it is amiss, its paper and views, and what stands in its title block. */
import { changeSheet, PAPER_KEYS, putSize, SCALES, SIDES, setSheetField, type SheetChange } from '@helb/core';
import { computed, ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import AuditList from './AuditList.vue';
import { useSheets } from './sheet-store.ts';

const sheets = useSheets();
const session = useSession();
const design = useDesign();

const note = ref('');
function issue(): void {
  sheets.issue(note.value);
  note.value = '';
}

const change = (to: SheetChange): void => void sheets.edit(changeSheet(session.activeSheet!, to));
const chosen = (event: Event) => (event.target as HTMLSelectElement).value;

const scale = computed(() => sheets.sheet?.scale?.join(':') ?? 'auto');
function setScale(event: Event): void {
  const value = chosen(event);
  change({ scale: value === 'auto' ? null : (value.split(':').map(Number) as [number, number]) });
}

const FIELDS = [
  ['title', 'Title'],
  ['number', 'Number'],
  ['drawn', 'Drawn by'],
  ['checked', 'Checked by'],
  ['tolerances', 'Tolerances'],
] as const;
const write = (field: (typeof FIELDS)[number][0], event: Event): void => void sheets.edit(setSheetField(session.activeSheet!, field, (event.target as HTMLInputElement).value)); // prettier-ignore

const size = computed(() => (sheets.pickedSize ? sheets.sheet?.sizes[sheets.pickedSize] : undefined));
function setText(event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim();
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
      <h3 class="mb-1 font-semibold">{{ size.kind === 'note' ? 'This note' : 'This size' }}</h3>
      <label class="block text-quiet"
        >{{ size.kind === 'note' ? 'Its words' : 'Words round its number, which stands where <> does' }}
        <input
          class="field mt-1 w-full"
          :value="size.text ?? ''"
          :placeholder="size.kind === 'note' ? 'Break sharp edges' : '4× <> THRU'"
          @change="setText"
        />
      </label>
    </section>

    <section aria-label="Issues">
      <h3 class="mb-1 font-semibold">Issues</h3>
      <p v-if="!sheets.lastIssue" class="text-quiet">Not yet issued.</p>
      <template v-else>
        <p class="text-quiet">
          Issue {{ sheets.lastIssue.letter }} of {{ sheets.lastIssue.date }}, the design’s state
          {{ sheets.lastIssue.revision }}
          in its history.
        </p>
        <p v-if="sheets.changed.length > 0" class="text-warn" data-testid="changed">
          Since issue {{ sheets.lastIssue.letter }}: {{ sheets.changed.slice(0, 6).join('; ')
          }}{{ sheets.changed.length > 6 ? `; and ${sheets.changed.length - 6} more` : '' }}.
        </p>
      </template>
      <form class="mt-1 flex gap-2" @submit.prevent="issue">
        <input
          v-model="note"
          class="field min-w-0 flex-1"
          aria-label="What the issue is for"
          placeholder="What it is for"
        />
        <button class="button" :disabled="design.saveState !== 'saved'">Issue</button>
      </form>
    </section>

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
        <label class="text-quiet"
          >Scale
          <select class="field mt-1 w-full" :value="scale" @change="setScale">
            <option value="auto">as it fits</option>
            <option v-for="[on, truth] in SCALES" :key="`${on}:${truth}`" :value="`${on}:${truth}`">
              {{ on }} : {{ truth }}
            </option>
          </select>
        </label>
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
    </section>

    <section aria-label="Title block">
      <h3 class="mb-1 font-semibold">Title block</h3>
      <label v-for="[field, label] in FIELDS" :key="field" class="mb-2 block text-quiet"
        >{{ label }}
        <input
          class="field mt-1 w-full"
          :value="sheets.sheet.fields[field] ?? ''"
          :placeholder="
            field === 'title' ? sheets.subject?.name : field === 'tolerances' ? 'General tolerances ISO 2768-m' : ''
          "
          @change="write(field, $event)"
        />
      </label>
    </section>
  </aside>
</template>
