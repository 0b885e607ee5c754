<script setup lang="ts">
/** A flat face's outline as a file to cut by: in which format, and how wide the cut is. */
import { addOutlines, asSketch, displayFactor, newId, newOutlines, putCutPieces, severalEdits, type CutPiece, type DrawingFormat } from '@helb/core'; // prettier-ignore
import { useStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import { toast } from 'vue-sonner';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { FILE_TYPE, saveFile } from '../shell/save-file.ts';

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();

const format = useStorage<DrawingFormat>('helb.outline-format', 'dxf');
/** mm */
const cut = useStorage('helb.cut-width', 0);
/** A sketch on the face, of which what is drawn is engraved. */
const engraving = ref<string | null>(null);
const sketches = computed(() => {
  const home = design.design?.parts[session.activePart ?? ''];
  return (
    home?.stepOrder.filter((id) => asSketch(home.steps[id])).map((id) => ({ id, name: home.steps[id]!.name })) ?? []
  );
});
const fault = ref<string | null>(null);
const writing = ref(false);
const unit = computed(() => design.design!.units.length);
const shown = computed({
  get: () => Number((cut.value / displayFactor('length', design.design!.units)).toPrecision(9)),
  set: (value: number) => (cut.value = (Number(value) || 0) * displayFactor('length', design.design!.units)),
});

const boards = computed(() => (design.design?.outlinesOrder ?? []).map((id) => ({ id, name: design.design!.outlines![id]!.name }))); // prettier-ignore
/** Among the outlines of these boards, or of new ones, which are then shown. */
function layOn(event: Event): void {
  const chosen = (event.target as HTMLSelectElement).value;
  const [part, face] = [session.activePart, session.outlining];
  if (!chosen || !part || !face) return;
  const piece: CutPiece = { part, face, ...(engraving.value === null ? {} : { sketch: { id: engraving.value, as: 'engraving' } }) }; // prettier-ignore
  const id = chosen === 'new' ? newId('c') : chosen;
  const put = putCutPieces(id, [[newId('c'), piece]]);
  const edit = chosen === 'new' ? severalEdits('Lay a face on new boards', [addOutlines(id, newOutlines('Outlines')), put]) : put; // prettier-ignore
  fault.value = design.edit(edit);
  if (fault.value === null) session.openOutlines(id);
}

async function write(): Promise<void> {
  const [now, part, face] = [design.design, session.activePart, session.outlining];
  if (!now || !part || !face) return;
  writing.value = true;
  fault.value = null;
  try {
    const written = await evaluation.on(now).exportOutline(part, face, format.value, cut.value / 2, engraving.value);
    if (typeof written === 'string') {
      fault.value = written;
      return;
    }
    const name = `${now.parts[part]!.name}.${format.value}`;
    saveFile(written.bytes, name, FILE_TYPE[format.value]);
    toast.success(`${name} is written.`);
    if (written.closed > 0)
      toast.warning(`${written.closed} ${written.closed === 1 ? 'hole is' : 'holes are'} narrower than the cut, and missing in ${name}.`); // prettier-ignore
    if (written.free > 0)
      toast.warning(`${written.free} free curves in ${name} are drawn through places on them, not exactly.`);
    session.outlining = null;
  } catch (error) {
    fault.value = (error as Error).message;
  } finally {
    writing.value = false;
  }
}
</script>

<template>
  <form
    class="flex flex-wrap items-center gap-3 border-b border-hairline bg-panel/95 px-3 py-1.5"
    aria-label="Write the outline of this face"
    @submit.prevent="write"
    @keydown.escape.stop="session.outlining = null"
  >
    <label class="flex items-center gap-1.5 text-quiet"
      >Outline as
      <select v-model="format" class="rounded border border-hairline bg-field px-1 text-ink">
        <option value="dxf">DXF</option>
        <option value="svg">SVG</option>
      </select>
    </label>
    <label class="flex items-center gap-1.5 text-quiet"
      >for a cut
      <input
        v-model.number="shown"
        type="number"
        min="0"
        step="any"
        class="number w-20 rounded border border-hairline bg-field px-1 text-ink"
        @keydown.stop="$event.key === 'Escape' && (session.outlining = null)"
      />
      {{ unit }} wide
    </label>
    <label class="flex items-center gap-1.5 text-quiet"
      >engraving
      <select v-model="engraving" class="max-w-32 rounded border border-hairline bg-field px-1 text-ink">
        <option :value="null">nothing</option>
        <option v-for="{ id, name } in sketches" :key="id" :value="id">{{ name }}</option>
      </select>
    </label>
    <span class="text-xs text-quiet">each on a layer of its own; mind your machine’s rules</span>
    <span v-if="fault" role="alert" class="text-bad">{{ fault }}</span>
    <span class="flex-1" />
    <select class="rounded border border-hairline bg-field px-1 text-ink" aria-label="Lay it on boards" @change="layOn">
      <option value="">lay on boards</option>
      <option v-for="{ id, name } in boards" :key="id" :value="id">{{ name }}</option>
      <option value="new">new boards</option>
    </select>
    <button class="button-primary py-0.5" type="submit" :disabled="writing">{{ writing ? 'Writing' : 'Write' }}</button>
    <button class="button py-0.5" type="button" @click="session.outlining = null">Drop</button>
  </form>
</template>
