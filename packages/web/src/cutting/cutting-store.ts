/** The outlines on the stage: what is to be cut, how it lies on boards, and what of that is kept. */
import {
  boardDrawings, cutCounts, cutTotals, keepLaid, nestAsk, pieceDrawings, removeCutPieces,
  type BoardFormat, type CutGeometry, type Edit, type LaidFaults, type LaidPlace, type Nest, type Outlines,
} from '@helb/core'; // prettier-ignore
import * as Comlink from 'comlink';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useKernelAnswer } from '../evaluation/kernel-answer.ts';
import { oneOff } from '../shell/one-off.ts';
import { FILE_TYPE, saveFile } from '../shell/save-file.ts';
import type { NestWork } from './nest.worker.ts';
import type { BoardsWriter } from './write-boards.worker.ts';

/** A layout is looked for by itself for so long, ms, and on demand until it is stopped. */
const BY_ITSELF_MS = 3000;
const ON_DEMAND_MS = 10 * 60_000;

const TYPES = { ...FILE_TYPE, pdf: 'application/pdf', zip: 'application/zip' } as const;

export const useCutting = defineStore('cutting', () => {
  const design = useDesign();
  const session = useSession();

  const outlines = computed<Outlines | null>(() => (session.activeOutlines ? (design.design?.outlines?.[session.activeOutlines] ?? null) : null)); // prettier-ignore
  const {
    answer: geometry,
    trouble,
    progress,
    stop: stopDrawing,
  } = useKernelAnswer<CutGeometry>({
    open: () => session.activeOutlines,
    isThere: (d, id) => d.outlines?.[id] !== undefined,
    ask: (kernel, id, listener) => kernel.cutOutlines(id, listener),
    stop: (kernel) => kernel.stopCutting(),
    says: (what) => `Taking the outline of ${what}`,
    word: 'these outlines',
  });
  const counts = computed(() => (outlines.value && design.design ? cutCounts(design.design, outlines.value) : new Map<string, number>())); // prettier-ignore

  /** The question the worker last began with. */
  let asked: string | null = null;
  let worker: { readonly thread: Worker; readonly work: Comlink.Remote<NestWork> } | null = null;
  function nestWork(): Comlink.Remote<NestWork> {
    if (worker) return worker.work;
    const thread = new Worker(new URL('./nest.worker.ts', import.meta.url), { type: 'module', name: 'nesting' });
    thread.onerror = (event) => {
      event.preventDefault();
      thread.terminate();
      worker = null;
      asked = null;
      searching.value = false;
      trouble.value = 'The pieces could not be laid; change something to try once more.';
    };
    worker = { thread, work: Comlink.wrap<NestWork>(thread) };
    return worker.work;
  }

  const ask = computed(() => (outlines.value && geometry.value ? nestAsk(outlines.value, geometry.value, counts.value) : null)); // prettier-ignore
  /** What is asked, as a text: the same question is not asked again. */
  const askKey = computed(() =>
    typeof ask.value === 'string' || ask.value === null ? null : JSON.stringify(ask.value),
  );
  const found = shallowRef<{ readonly key: string; readonly nest: Nest } | null>(null);
  const searching = ref(false);
  let run = 0;
  async function search(ms: number): Promise<void> {
    const key = askKey.value;
    if (!key || !ask.value || typeof ask.value === 'string') return;
    const own = ++run;
    searching.value = true;
    // What the worker holds already is gone on with.
    const question = asked === key ? null : ask.value;
    asked = key;
    const listener = Comlink.proxy({
      found(nest: Nest) {
        if (own === run) found.value = { key, nest };
      },
    });
    try {
      await nestWork().search(question, ms, listener);
    } catch {
      trouble.value = 'The pieces could not be laid; change something to try once more.';
    } finally {
      if (own === run) searching.value = false;
    }
  }
  function stop(): void {
    run++;
    searching.value = false;
    void worker?.work.stop();
  }
  const kept = computed(() => outlines.value?.laid ?? null);
  watch([askKey, kept], ([key, laid], before) => {
    if (key === null || laid) return stop();
    if (found.value?.key !== key || before[1]) void search(BY_ITSELF_MS);
  });
  const searchOn = (): void => void search(ON_DEMAND_MS);

  const laid = computed<readonly LaidPlace[]>(() => kept.value ?? (found.value?.key === askKey.value ? (found.value?.nest.laid ?? []) : [])); // prettier-ignore
  /** Of what is kept. */
  const faults = shallowRef<LaidFaults | null>(null);
  watch(
    [kept, geometry, counts, outlines],
    async ([own, drawn, many, whole]) => {
      if (!own || !drawn || !whole) return void (faults.value = null);
      const answer = await nestWork().check(whole, drawn, many, own);
      if (kept.value === own && geometry.value === drawn) faults.value = answer;
    },
    { immediate: true },
  );
  /** What found no room on the boards there are. */
  const left = computed(() => (kept.value ? [] : [...(found.value?.key === askKey.value ? (found.value?.nest.left ?? []) : [])])); // prettier-ignore

  const drawings = computed(() => (outlines.value && geometry.value ? pieceDrawings(outlines.value, geometry.value) : new Map())); // prettier-ignore
  const totals = computed(() => (outlines.value && geometry.value ? cutTotals(outlines.value, geometry.value, laid.value) : null)); // prettier-ignore

  const picked = ref<number | null>(null);
  watch([() => session.activeOutlines, () => laid.value.length], () => (picked.value = null));

  const edit = (command: Edit): boolean => {
    session.notice = design.edit(command);
    return session.notice === null;
  };
  const keep = (as: readonly LaidPlace[] | null): void => void edit(keepLaid(session.activeOutlines!, as));
  /** Laid otherwise by hand, which keeps it. */
  function move(at: number, to: Partial<LaidPlace>): void {
    stop();
    keep(laid.value.map((place, i) => (i === at ? { ...place, ...to } : place)));
  }
  function takeOff(ids: readonly string[]): void {
    edit(removeCutPieces(session.activeOutlines!, ids));
  }

  const writing = ref(false);
  /** Why what lies there is not written as it is; null where it may be. */
  const unready = computed(() => {
    if (trouble.value) return trouble.value;
    if (!geometry.value || (laid.value.length === 0 && searching.value)) return 'The pieces are still being laid; wait a moment.'; // prettier-ignore
    if (laid.value.length === 0) return 'Nothing lies on the boards; add a flat part first.';
    if (kept.value && !faults.value) return 'What is kept is still being looked over; wait a moment.';
    if (faults.value && faults.value.bad.size > 0) return 'Pieces lie over each other or off their board; move them apart, or lay all anew.'; // prettier-ignore
    if (faults.value && faults.value.missing.size > 0) return 'What is kept does not hold as many as are to be cut; lay all anew.'; // prettier-ignore
    return null;
  });
  async function write(format: BoardFormat): Promise<void> {
    if (writing.value || !outlines.value) return;
    if (unready.value) return void (session.notice = unready.value);
    writing.value = true;
    const thread = new Worker(new URL('./write-boards.worker.ts', import.meta.url), { type: 'module', name: 'boards-writer' }); // prettier-ignore
    try {
      const { name } = outlines.value;
      const boards = boardDrawings(outlines.value, drawings.value, laid.value);
      const { bytes, ending } = await oneOff<BoardsWriter, Awaited<ReturnType<BoardsWriter['write']>>>(thread, 'The boards could not be written; try again.', (writer) => writer.write(boards, name, format, new Date())); // prettier-ignore
      saveFile(bytes, `${name}${ending === 'zip' ? ` ${format}` : ''}.${ending}`, TYPES[ending]);
      const roomless = left.value.reduce((sum, [, n]) => sum + n, 0);
      const told = [
        ...(roomless > 0 ? [`${roomless} pieces found no room`] : []),
        ...(geometry.value!.faults.size > 0 ? [`${geometry.value!.faults.size} parts cannot be cut`] : []),
      ];
      if (told.length > 0) session.notice = `${told.join(', and ')}; they are not in the file.`;
    } catch (error) {
      session.notice = (error as Error).message;
    } finally {
      writing.value = false;
    }
  }

  return {
    outlines, geometry, trouble, progress, stopDrawing, counts, ask, searching, kept, laid, faults, left, drawings, totals,
    picked, edit, keep, move, takeOff, searchOn, stop, write,
  }; // prettier-ignore
});
