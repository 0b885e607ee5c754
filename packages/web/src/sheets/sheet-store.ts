/** The sheet on the stage: what the kernel says of it, how it is put together, and what of it is picked. */
import {
  changedSince, changeSheetView, composeSheet, drawingOf, issueSheet, newId, nextLetter, putSize, readSizes, removeSheetView, removeSize,
  type Composed, type Edit, type Sheet, type SheetGeometry, type SheetSize, type SizeKind, type ViewSpot,
} from '@helb/core'; // prettier-ignore
import { watchDebounced } from '@vueuse/core';
import * as Comlink from 'comlink';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { saveFile } from '../shell/save-file.ts';
import type { SheetWriter } from './write-sheet.worker.ts';

/** A place in a view at which a size can be taken. */
export interface PickedViewSpot {
  readonly view: string;
  readonly spot: ViewSpot;
}

/** A sheet is drawn anew when the design has stood still for so long, ms. */
const AFTER_MS = 120;
const SHOW_PROGRESS_AFTER_MS = 300;

export type SheetFormat = 'pdf' | 'svg' | 'dxf';
const TYPES: Readonly<Record<SheetFormat, string>> = { pdf: 'application/pdf', svg: 'image/svg+xml', dxf: 'image/vnd.dxf' }; // prettier-ignore

export const useSheets = defineStore('sheets', () => {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();

  const sheet = computed<Sheet | null>(() => (session.activeSheet ? (design.design?.sheets?.[session.activeSheet] ?? null) : null)); // prettier-ignore
  const found = shallowRef<{ readonly sheet: string; readonly geometry: SheetGeometry } | null>(null);
  /** Why it cannot be drawn. */
  const trouble = ref<string | null>(null);
  /** What is being drawn, shown when it takes longer than a moment. */
  const progress = ref<string | null>(null);
  const geometry = computed(() => (found.value?.sheet === session.activeSheet ? found.value!.geometry : null));
  const subject = computed(() => {
    const of = sheet.value?.of;
    if (!of) return null;
    return 'part' in of ? (design.design?.parts[of.part] ?? null) : (design.design?.assemblies?.[of.assembly] ?? null);
  });
  const composed = computed<Composed | null>(() =>
    sheet.value && geometry.value && design.design && subject.value
      ? composeSheet(sheet.value, { name: subject.value.name }, geometry.value, design.design.units)
      : null,
  );

  const picked = shallowRef<readonly PickedViewSpot[]>([]);
  /** A size that could be added, pointed at in the audit: what it would be taken at lights up. */
  const offered = shallowRef<SheetSize | null>(null);
  const offeredSpots = computed<readonly PickedViewSpot[]>(() => {
    const { view = '', of = [] } = offered.value ?? {};
    const spots = geometry.value?.views.get(view)?.spots ?? [];
    const wanted = of.map((spot) => JSON.stringify(spot));
    return spots.filter((s) => wanted.includes(JSON.stringify(s.spot))).map((spot) => ({ view, spot }));
  });
  const pickedView = ref<string | null>(null);
  const pickedSize = ref<string | null>(null);
  function letGo(): boolean {
    const some = picked.value.length > 0 || pickedView.value !== null || pickedSize.value !== null;
    picked.value = [];
    pickedView.value = null;
    pickedSize.value = null;
    return some;
  }
  watch(
    () => session.activeSheet,
    () => {
      letGo();
      trouble.value = null;
    },
  );

  async function draw(): Promise<void> {
    const [id, d] = [session.activeSheet, design.design];
    if (!id || !d?.sheets?.[id]) return;
    const begun = performance.now();
    const listener = Comlink.proxy({
      progress(done: number, total: number, what: string) {
        evaluation.sign();
        if (performance.now() - begun > SHOW_PROGRESS_AFTER_MS)
          progress.value = `Drawing ${what}, ${done + 1} of ${total}`;
      },
    });
    try {
      const answer = await evaluation.on(d).drawSheet(id, listener);
      if (answer === null || session.activeSheet !== id) return;
      if (typeof answer === 'string') trouble.value = answer;
      else {
        trouble.value = null;
        found.value = { sheet: id, geometry: answer };
      }
    } catch {
      trouble.value =
        'The geometry kernel failed at this sheet and was started again; change something to try once more.';
    } finally {
      progress.value = null;
    }
  }
  watchDebounced([() => session.activeSheet, () => design.design, () => evaluation.complete], draw, { debounce: AFTER_MS, immediate: true }); // prettier-ignore

  const edit = (command: Edit): boolean => {
    session.notice = design.edit(command);
    return session.notice === null;
  };

  function stop(): void {
    void evaluation.on(design.design!).stopSheet();
    progress.value = null;
    trouble.value = 'Stopped; change something, or open the sheet again, to draw it.';
  }

  /** Put a size on what is picked. */
  function take(kind: SizeKind): void {
    const [first] = picked.value;
    if (!first || !session.activeSheet) return;
    const id = newId('z');
    const size: SheetSize = { kind, view: first.view, of: picked.value.map((p) => p.spot.spot) };
    if (!edit(putSize(session.activeSheet, [[id, size]]))) return;
    letGo();
    pickedSize.value = id;
  }
  const place = (id: string, at: readonly [number, number]): void => {
    const size = sheet.value?.sizes[id];
    if (size) edit(putSize(session.activeSheet!, [[id, { ...size, place: [at[0], at[1]] }]]));
  };
  const shiftView = (view: string, by: readonly [number, number]): void => {
    const [x, y] = sheet.value?.views[view]?.shift ?? [0, 0];
    edit(changeSheetView(session.activeSheet!, view, { shift: [x + by[0], y + by[1]] }));
  };
  function remove(): void {
    const own = session.activeSheet;
    if (!own) return;
    if (pickedSize.value) edit(removeSize(own, pickedSize.value));
    else if (pickedView.value) edit(removeSheetView(own, pickedView.value));
    letGo();
  }

  const reads = computed(() => (sheet.value && geometry.value && design.design ? readSizes(sheet.value, geometry.value, design.design.units) : null)); // prettier-ignore
  const lastIssue = computed(() => sheet.value?.issues?.at(-1) ?? null);
  /** What reads otherwise since the sheet was last given away. */
  const changed = computed(() => (lastIssue.value && reads.value ? changedSince(lastIssue.value, reads.value) : []));
  function issue(note: string): void {
    if (!sheet.value) return;
    if (!reads.value || trouble.value) return void (session.notice = trouble.value ?? 'The sheet is still being drawn; wait a moment.'); // prettier-ignore
    const date = new Date().toISOString().slice(0, 10);
    const told = note.trim() ? { note: note.trim().slice(0, 120) } : {};
    edit(issueSheet(session.activeSheet!, { letter: nextLetter(sheet.value), revision: design.revision, date, ...told, sizes: reads.value })); // prettier-ignore
  }

  const writing = ref(false);
  async function write(format: SheetFormat): Promise<void> {
    if (!sheet.value || writing.value) return;
    // What is seen while it cannot be drawn is from before.
    if (!composed.value || trouble.value) return void (session.notice = trouble.value ?? 'The sheet is still being drawn; wait a moment.'); // prettier-ignore
    writing.value = true;
    const worker = new Worker(new URL('./write-sheet.worker.ts', import.meta.url), { type: 'module', name: 'sheet-writer' }); // prettier-ignore
    const failed = new Promise<never>((_, reject) => {
      worker.onerror = (event) => {
        event.preventDefault();
        reject(new Error('The sheet could not be written; try again.'));
      };
    });
    try {
      const writer = Comlink.wrap<SheetWriter>(worker);
      const bytes = await Promise.race([writer.write(drawingOf(sheet.value, composed.value), format, new Date()), failed]); // prettier-ignore
      saveFile(bytes, `${subject.value?.name ?? ''} ${sheet.value.name}.${format}`, TYPES[format]);
    } catch (error) {
      session.notice = (error as Error).message;
    } finally {
      worker.terminate();
      writing.value = false;
    }
  }

  return {
    sheet, geometry, composed, subject, trouble, progress, picked, offered, offeredSpots, pickedView, pickedSize, writing,
    letGo, edit, stop, lastIssue, changed, issue, take, place, shiftView, remove, write,
  }; // prettier-ignore
});
