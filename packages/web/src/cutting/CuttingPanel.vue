<script setup lang="ts">
/** Beside the boards: what is cut and how often, what is amiss with it, the stock, and how much of it is taken. */
import { asSketch, changeOutlines, displayFactor, formatNumber, lengthOf, newId, putCutPieces, type CutPiece, type OutlinesChange, type PieceToCut } from '@helb/core'; // prettier-ignore
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import LengthField from '../fields/LengthField.vue';
import PlainField from '../fields/PlainField.vue';
import BoardChart from './BoardChart.vue';
import { useCutting } from './cutting-store.ts';

const cutting = useCutting();
const design = useDesign();
const session = useSession();

const change = (to: OutlinesChange): void => void cutting.edit(changeOutlines(session.activeOutlines!, to));
const put = (id: string, piece: CutPiece): void => void cutting.edit(putCutPieces(session.activeOutlines!, [[id, piece]])); // prettier-ignore
const chosen = (event: Event) => (event.target as HTMLSelectElement).value;

const MM2_A_M2 = 1e6;
const ALIKE_MM = 0.01;
/** The commonest thickness: what differs from it cannot come of the same board. */
const thickness = computed(() => {
  const all = [...(cutting.geometry?.pieces.values() ?? [])].flatMap((p) =>
    p.thickness === null ? [] : [p.thickness],
  );
  const alike = (t: number) => all.filter((other) => Math.abs(other - t) < ALIKE_MM).length;
  return all.length === 0 ? null : all.reduce((best, t) => (alike(t) > alike(best) ? t : best));
});
const inUnit = (mm: number) => formatNumber(mm / displayFactor('length', design.design!.units), 2);

const rows = computed(() =>
  (cutting.outlines?.pieceOrder ?? []).map((id) => {
    const piece = cutting.outlines!.pieces[id]!;
    const cut = cutting.geometry?.pieces.get(id);
    const says = (cut?.says ?? []).map((one) => `It ${one}.`);
    if (cut?.thickness && thickness.value && Math.abs(cut.thickness - thickness.value) >= ALIKE_MM)
      says.push(`It is ${inUnit(cut.thickness)} ${design.design!.units.length} thick where most are ${inUnit(thickness.value)}: it is of another board.`); // prettier-ignore
    if (cutting.drawings.get(id)?.nameless) says.push('It has no room for its name.');
    const missing = cutting.faults?.missing.get(id) ?? 0;
    if (missing > 0) says.push(`${missing} of it ${missing === 1 ? 'lies' : 'lie'} on no board.`);
    if (missing < 0) says.push(`${-missing} more of it ${missing === -1 ? 'lies' : 'lie'} there than are to be cut.`);
    const left = cutting.left.find(([key]) => key === id)?.[1] ?? 0;
    if (left > 0) says.push(`${left} of it found no room.`);
    return { id, piece, name: design.design!.parts[piece.part]?.name ?? 'A part that is gone', count: cutting.counts.get(id) ?? 0, size: sizeOf(cut), says, fault: cutting.geometry?.faults.get(id) }; // prettier-ignore
  }),
);
/** As it is cut. */
function sizeOf(cut: PieceToCut | undefined): string | null {
  if (!cut) return null;
  const [width, height] = cut.drawing.size;
  return `${inUnit(width)} × ${inUnit(height)}${cut.thickness === null ? '' : ` × ${inUnit(cut.thickness)}`}`;
}
const notFlat = computed(() => rows.value.filter((r) => r.fault !== undefined).map((r) => r.id));

function setCount(id: string, piece: CutPiece, typed: string): void {
  const text = typed.trim();
  const { count: _, ...rest } = piece;
  const count = Number(text);
  if (text === '') put(id, rest);
  else if (!Number.isInteger(count) || count < 0 || count > 500)
    session.notice = 'How many are cut is a whole number from 0 to 500, or nothing.'; // prettier-ignore
  else put(id, { ...rest, count });
}
const sketchesOf = ({ part }: CutPiece) => {
  const own = design.design?.parts[part];
  return (own?.stepOrder ?? []).filter((id) => asSketch(own!.steps[id])).map((id) => ({ id, name: own!.steps[id]!.name })); // prettier-ignore
};
function setSketch(id: string, piece: CutPiece, event: Event): void {
  const { sketch: _, ...rest } = piece;
  const [as, sketch] = chosen(event).split(' ') as ['engraving' | 'mark', string | undefined];
  put(id, sketch ? { ...rest, sketch: { id: sketch, as } } : rest);
}

const others = computed(() => (design.design?.partOrder ?? []).filter((id) => !Object.values(cutting.outlines?.pieces ?? {}).some((p) => p.part === id))); // prettier-ignore
function add(event: Event): void {
  const select = event.target as HTMLSelectElement;
  if (select.value) put(newId('c'), { part: select.value });
  select.value = '';
}

/** m, of all that is cut. */
const cutLength = computed(() => {
  const each = new Map([...cutting.drawings].map(([id, { runs }]) => [id, runs.filter((r: { layer: string }) => r.layer === 'outline' || r.layer === 'holes').reduce((sum: number, r: { run: Parameters<typeof lengthOf>[0] }) => sum + lengthOf(r.run), 0)])); // prettier-ignore
  return cutting.laid.reduce((sum, { piece }) => sum + (each.get(piece) ?? 0), 0) / 1000;
});
const taken = computed(() => {
  const { filled = [] } = cutting.totals ?? {};
  return filled.length === 0 ? 0 : filled.reduce((a, b) => a + b, 0) / filled.length;
});
</script>

<template>
  <aside
    v-if="cutting.outlines"
    aria-label="Outlines"
    role="region"
    class="flex min-h-0 flex-col gap-4 overflow-y-auto border-l border-hairline bg-panel p-4"
  >
    <section aria-label="Use of the boards">
      <h2><strong>Outlines</strong> <span class="text-quiet">at 1:1, ready to cut</span></h2>
      <template v-if="cutting.totals && cutting.totals.pieces > 0">
        <p class="mt-1" data-testid="totals">
          <span class="number">{{ cutting.totals.pieces }}</span> pieces on
          <span class="number">{{ cutting.totals.boards }}</span> board{{ cutting.totals.boards === 1 ? '' : 's' }},
          <span class="number">{{ formatNumber(taken * 100, 1) }}</span> % taken,
          <span class="number">{{
            formatNumber(
              (cutting.totals.boards * cutting.outlines.board.width * cutting.outlines.board.height -
                cutting.totals.area) /
                MM2_A_M2,
              3,
            )
          }}</span>
          m² waste; <span class="number">{{ formatNumber(cutLength, 2) }}</span> m to cut.
        </p>
        <BoardChart class="mt-2" :filled="cutting.totals.filled" />
        <p v-if="cutting.searching" class="text-quiet" role="status">
          Looking for a better layout; the best so far is shown.
        </p>
        <p v-else-if="cutting.kept" class="text-quiet">This layout is kept as it is.</p>
      </template>
      <p v-if="typeof cutting.ask === 'string'" class="text-bad" role="alert">{{ cutting.ask }}</p>
      <p v-if="cutting.faults && cutting.faults.bad.size > 0" class="text-bad" role="alert">
        {{ cutting.faults.bad.size }} pieces lie over each other, too near, or off their board.
      </p>
    </section>

    <section aria-label="Pieces" class="flex flex-col gap-2">
      <h3 class="font-semibold">Pieces</h3>
      <article v-for="row in rows" :key="row.id" :aria-label="row.name" class="rounded border border-hairline p-2">
        <div class="flex items-center gap-2">
          <span class="min-w-0 flex-1 truncate">{{ row.name }}</span>
          <span class="text-quiet" aria-hidden="true">×</span>
          <PlainField
            class="number w-14"
            hidden
            :label="`How many of ${row.name}`"
            :value="row.piece.count === undefined ? '' : String(row.piece.count)"
            :placeholder="String(row.count)"
            @set="setCount(row.id, row.piece, $event)"
          />
          <button
            class="min-h-6 px-1 text-quiet hover:text-bad"
            :aria-label="`Take ${row.name} off`"
            @click="cutting.takeOff([row.id])"
          >
            Off
          </button>
        </div>
        <p v-if="row.size" class="number text-xs text-quiet">{{ row.size }}</p>
        <label v-if="sketchesOf(row.piece).length > 0" class="mt-1 flex items-center gap-2 text-quiet"
          >Sketch on it
          <select
            class="field min-w-0 flex-1"
            :value="row.piece.sketch ? `${row.piece.sketch.as} ${row.piece.sketch.id}` : ''"
            @change="setSketch(row.id, row.piece, $event)"
          >
            <option value="">none</option>
            <template v-for="s in sketchesOf(row.piece)" :key="s.id">
              <option :value="`engraving ${s.id}`">engrave {{ s.name }}</option>
              <option :value="`mark ${s.id}`">mark {{ s.name }}</option>
            </template>
          </select>
        </label>
        <p v-if="row.fault" class="text-bad" role="alert">{{ row.fault }}</p>
        <p v-for="says in row.says" :key="says" class="text-warn">{{ says }}</p>
      </article>
      <button v-if="notFlat.length > 1" class="button self-start" @click="cutting.takeOff(notFlat)">
        Take the {{ notFlat.length }} off that cannot be cut
      </button>
      <select v-if="others.length > 0" class="field" aria-label="Add a part" @change="add">
        <option value="">Add a part</option>
        <option v-for="id in others" :key="id" :value="id">{{ design.design!.parts[id]!.name }}</option>
      </select>
    </section>

    <section aria-label="Boards">
      <h3 class="mb-1 font-semibold">Boards</h3>
      <div class="grid grid-cols-2 gap-2">
        <LengthField
          label="Width"
          :value="cutting.outlines.board.width"
          :least="10"
          :most="10000"
          @set="change({ board: { width: $event } })"
        />
        <LengthField
          label="Height"
          :value="cutting.outlines.board.height"
          :least="10"
          :most="10000"
          @set="change({ board: { height: $event } })"
        />
        <LengthField
          label="Between pieces"
          :value="cutting.outlines.gap"
          :least="0"
          :most="200"
          @set="change({ gap: $event })"
        />
        <LengthField
          label="From the edge"
          :value="cutting.outlines.margin"
          :least="0"
          :most="500"
          @set="change({ margin: $event })"
        />
        <LengthField
          label="Width of the cut"
          :value="cutting.outlines.cut"
          :least="0"
          :most="20"
          @set="change({ cut: $event })"
        />
        <label class="text-quiet"
          >May be turned
          <select
            class="field mt-1 w-full"
            :value="cutting.outlines.turns"
            @change="change({ turns: chosen($event) as never })"
          >
            <option value="none">not at all (grain)</option>
            <option value="half">by half</option>
            <option value="quarter">by quarters</option>
            <option value="eighth">by eighths</option>
          </select>
        </label>
        <label class="text-quiet"
          >Names on them
          <select
            class="field mt-1 w-full"
            :value="cutting.outlines.names"
            @change="change({ names: chosen($event) as never })"
          >
            <option value="none">none</option>
            <option value="engraving">engraved</option>
            <option value="mark">marked</option>
          </select>
        </label>
        <label class="text-quiet"
          >As many as in
          <select
            class="field mt-1 w-full"
            :value="cutting.outlines.of ?? ''"
            @change="change({ of: chosen($event) || null })"
          >
            <option value="">no assembly</option>
            <option v-for="id in design.design!.assemblyOrder ?? []" :key="id" :value="id">
              {{ design.design!.assemblies![id]!.name }}
            </option>
          </select>
        </label>
      </div>
    </section>
    <p class="text-xs text-quiet">
      Outlines are geometry only. Which width a cut has, what fumes and fire it brings, and how stock is held, is for
      your machine’s rules and whoever runs it.
    </p>
  </aside>
</template>
