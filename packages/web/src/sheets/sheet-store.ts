/** The sheet on the stage: what the kernel says of it, how it is put together, and what of it is picked. */
import {
  addSheetView, asPitch, axisBetween, breakSheetViews, brokenAlike, changedSince, changeSheet, changeSheetView, composeSheet, drawingOf, isMain, issueSheet, moveBalloon, newId, nextLetter, partOfBalloon, putSize, readSizes, readTemplate, removeSheetView, removeSize, setSheetField, sheetSvg, severalEdits, templateOf, viewOfTemplate,
  type Composed, type Edit, type Sheet, type SheetGeometry, type SheetSize, type SizeKind, type OfferedSpot, type ViewSpot,
} from '@helb/core'; // prettier-ignore
import * as Comlink from 'comlink';
import { defineStore } from 'pinia';
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import { toast } from 'vue-sonner';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useKernelAnswer } from '../evaluation/kernel-answer.ts';
import { saveFile } from '../shell/save-file.ts';
import { printSheet } from './print-sheet.ts';
import { wordsOfBrought } from './words-of-brought.ts';
import { useKeptIssues } from './kept-issues.ts';
import { writtenSheet, type SheetFormat } from './written-sheet.ts';

/** A place in a view at which a size can be taken. */
export interface PickedViewSpot {
  readonly view: string;
  readonly spot: OfferedSpot;
}

const TYPES: Readonly<Record<SheetFormat, string>> = { pdf: 'application/pdf', svg: 'image/svg+xml', dxf: 'image/vnd.dxf' }; // prettier-ignore

export const useSheets = defineStore('sheets', () => {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const kept = useKeptIssues();

  const sheet = computed<Sheet | null>(() => (session.activeSheet ? (design.design?.sheets?.[session.activeSheet] ?? null) : null)); // prettier-ignore
  const {
    answer: geometry,
    trouble,
    progress: drawing,
    stop: stopDrawing,
  } = useKernelAnswer<SheetGeometry>({
    open: () => session.activeSheet,
    isThere: (d, id) => d.sheets?.[id] !== undefined,
    ask: (kernel, id, listener) => kernel.drawSheet(id, listener),
    stop: (kernel) => kernel.stopSheet(),
    says: (what) => `Drawing ${what}`,
    word: 'this sheet',
  });
  const subject = computed(() => {
    const of = sheet.value?.of;
    if (!of) return null;
    return 'part' in of ? (design.design?.parts[of.part] ?? null) : (design.design?.assemblies?.[of.assembly] ?? null);
  });
  const composed = computed<Composed | null>(() =>
    sheet.value && geometry.value && design.design && subject.value
      ? composeSheet(
          sheet.value,
          { name: subject.value.name, titleBlock: design.design.shared?.titleBlock },
          geometry.value,
          design.design.units,
        )
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
  watch(() => session.activeSheet, letGo);

  const edit = (command: Edit): boolean => {
    session.notice = design.edit(command);
    return session.notice === null;
  };

  /** Put a size on what is picked. */
  function take(kind: SizeKind): void {
    const [first] = picked.value;
    if (!first || !session.activeSheet) return;
    const id = newId('z');
    const [one, other] = picked.value.map((p) => p.spot);
    const spots = kind === 'pitch' && other ? asPitch(one!, other, geometry.value?.views.get(first.view)?.spots ?? []) : picked.value.map((p) => p.spot); // prettier-ignore
    const size: SheetSize = { kind, view: first.view, of: spots.map((s) => s.spot) };
    if (!edit(putSize(session.activeSheet, [[id, size]]))) return;
    letGo();
    pickedSize.value = id;
  }

  /** Leave out most of what lies between two places of a view, and of those that stand in line with it. */
  function breakOff(view: string, ends: readonly [ViewSpot, ViewSpot]): boolean {
    if (!session.activeSheet || !sheet.value || !geometry.value) return false;
    const axis = axisBetween(ends);
    const alike = brokenAlike(sheet.value, geometry.value.views, view, axis);
    return edit(breakSheetViews(session.activeSheet, alike, { from: ends[0].spot, to: ends[1].spot, axis }));
  }

  /** What of the model’s own dimensions is being looked for. */
  const bringing = ref<string | null>(null);
  /** Put the dimensions of sketches and steps where they are seen true. */
  async function bring(): Promise<void> {
    const [now, id] = [design.design, session.activeSheet];
    if (!now || !id || bringing.value !== null) return;
    bringing.value = 'Looking where the model’s dimensions are seen';
    const listener = Comlink.proxy({ progress: () => evaluation.sign() });
    try {
      const found = await evaluation.on(now).bringSizes(id, listener);
      if (found === null || session.activeSheet !== id) return;
      if (typeof found === 'string') return void (session.notice = found);
      if (found.sizes.length === 0 || edit(putSize(id, found.sizes)))
        toast.info(wordsOfBrought(found), { duration: 12_000 });
    } catch (error) {
      session.notice = `The model’s dimensions could not be brought: ${(error as Error).message.split('\n')[0]}`;
    } finally {
      bringing.value = null;
    }
  }
  const progress = computed(() => bringing.value ?? drawing.value);
  function stop(): void {
    if (bringing.value !== null) void evaluation.on(design.design!).stopBringing();
    else stopDrawing();
  }

  const place = (id: string, at: readonly [number, number]): void => {
    const balloon = partOfBalloon(id);
    if (balloon !== null) return void edit(moveBalloon(session.activeSheet!, balloon, at));
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
    if (pickedSize.value && partOfBalloon(pickedSize.value) === null) edit(removeSize(own, pickedSize.value));
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
    const id = session.activeSheet!;
    const own = { letter: nextLetter(sheet.value), revision: design.revision, date, ...told, sizes: reads.value };
    // With its own row above the title block, as the sheet is drawn in a moment.
    if (edit(issueSheet(id, own))) void nextTick(() => composed.value && sheet.value && kept.keep(id, own, drawingOf(sheet.value, composed.value))); // prettier-ignore
  }

  function writeTemplate(): void {
    if (sheet.value) saveFile(new TextEncoder().encode(templateOf(sheet.value)), `${sheet.value.name}, template.json`, 'application/json'); // prettier-ignore
  }
  /** Paper, projection, fields, and views that are missing; what stands on the sheet stays. */
  function useTemplate(text: string): void {
    const id = session.activeSheet;
    const own = sheet.value;
    const read = readTemplate(text);
    if (typeof read === 'string') return void (session.notice = read);
    if (!id || !own) return;
    const { paper, upright, angle, scale, views, fields } = read;
    const standing = new Set(Object.values(own.views).flatMap((v) => (isMain(v) ? [v.look] : [])));
    const edits = [
      changeSheet(id, { paper, upright: upright ?? false, angle, scale: scale ?? null }),
      ...views.filter((v) => !standing.has(v.look)).map((v) => addSheetView(id, newId('v'), viewOfTemplate(v))),
      ...Object.entries(fields).map(([field, text]) => setSheetField(id, field as 'number', text ?? '')),
    ];
    edit(severalEdits('Use a template for a sheet', edits));
  }

  const writing = ref(false);
  async function write(format: SheetFormat): Promise<void> {
    if (!sheet.value || writing.value) return;
    // What is seen while it cannot be drawn is from before.
    if (!composed.value || trouble.value) return void (session.notice = trouble.value ?? 'The sheet is still being drawn; wait a moment.'); // prettier-ignore
    writing.value = true;
    try {
      const bytes = await writtenSheet(drawingOf(sheet.value, composed.value), format);
      saveFile(bytes, `${subject.value?.name ?? ''} ${sheet.value.name}.${format}`, TYPES[format]);
    } catch (error) {
      session.notice = (error as Error).message;
    } finally {
      writing.value = false;
    }
  }

  function print(): void {
    if (!sheet.value || !composed.value || trouble.value) return void (session.notice = trouble.value ?? 'The sheet is still being drawn; wait a moment.'); // prettier-ignore
    const drawing = drawingOf(sheet.value, composed.value);
    printSheet(new TextDecoder().decode(sheetSvg(drawing)), drawing.size);
  }

  return {
    sheet, geometry, composed, subject, trouble, progress, picked, offered, offeredSpots, pickedView, pickedSize, writing,
    letGo, edit, stop, breakOff, bring, lastIssue, changed, issue, take, place, shiftView, remove, write, print, writeTemplate, useTemplate,
  }; // prettier-ignore
});
