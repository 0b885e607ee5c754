/** What the part on the stage was given to be: its numbers judged, its drawings, and the one under the open sketch. */
import {
  addGivenDrawing, firstUnderlay, judgeBrief, layDrawingUnder, newId, putGivenNumbers, readGivenNumbers, removeGivenDrawing, removeGivenNumbers,
  type Brief, type Edit, type Finished, type GivenNumber, type GivenVerdict, type Underlay,
} from '@helb/core'; // prettier-ignore
import { useStorage, watchDebounced } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import type { ReadPicture } from './read-drawing.ts';

/** The part is measured anew when the design has stood still for so long, ms. */
const AFTER_MS = 250;

export const useBrief = defineStore('brief', () => {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();

  const shown = useStorage('helb.brief-shown', false);
  const part = computed(() => (session.activePart ? (design.design?.parts[session.activePart] ?? null) : null));
  const brief = computed<Brief | null>(() => part.value?.brief ?? null);

  const measured = shallowRef<{ readonly part: string; readonly finished: Finished | null } | null>(null);
  /** The part could not be measured: numbers are judged by the recipe alone. */
  const unmeasured = ref(false);
  async function measure(): Promise<void> {
    const [id, now] = [session.activePart, design.design];
    if (!id || !now || !brief.value || brief.value.numberOrder.length === 0) return;
    try {
      const finished = await evaluation.on(now).finishedPart(id);
      if (session.activePart === id) measured.value = { part: id, finished };
      unmeasured.value = false;
    } catch {
      unmeasured.value = true;
    }
  }
  watchDebounced([() => session.activePart, () => design.design, () => evaluation.complete], measure, { debounce: AFTER_MS, immediate: true }); // prettier-ignore

  const verdicts = computed<ReadonlyMap<string, GivenVerdict>>(() => {
    const [id, own] = [session.activePart, part.value];
    if (!id || !own?.brief || !design.ledger || !design.design) return new Map();
    const finished = measured.value?.part === id && !unmeasured.value ? measured.value.finished : null;
    return judgeBrief(own.brief, id, own, design.ledger, finished, design.design.units);
  });
  const right = computed(() => [...verdicts.value.values()].filter((v) => v.state === 'right').length);
  const wrong = computed(() => [...verdicts.value.values()].filter((v) => v.state === 'wrong').length);

  const edit = (command: Edit): boolean => {
    session.notice = design.edit(command);
    return session.notice === null;
  };
  const put = (id: string, number: GivenNumber): boolean => edit(putGivenNumbers(session.activePart!, [[id, number]]));
  const remove = (ids: readonly string[]): boolean => edit(removeGivenNumbers(session.activePart!, ids));
  /** Numbers as they were typed, pasted or read from a file. @returns lines that could not be read, as sentences */
  function take(text: string): readonly string[] {
    const { numbers, unread } = readGivenNumbers(text, design.design!.units);
    if (numbers.length > 0 && !edit(putGivenNumbers(session.activePart!, numbers.map((n) => [newId('g'), n] as const)))) return []; // prettier-ignore
    return unread.length === 0 && numbers.length === 0 ? ['Nothing in it says a number.'] : unread;
  }

  const chosen = ref<string | null>(null);
  const drawing = computed(() => {
    const order = brief.value?.drawingOrder ?? [];
    const id = chosen.value !== null && order.includes(chosen.value) ? chosen.value : (order[0] ?? null);
    return id === null ? null : { id, own: brief.value!.drawings[id]! };
  });
  function addDrawing(name: string, picture: ReadPicture): void {
    const id = newId('w');
    const plain = name.replace(/\.[a-z]+$/i, '').trim().slice(0, 80) || 'Drawing'; // prettier-ignore
    if (edit(addGivenDrawing(session.activePart!, id, { name: plain, ...picture }))) chosen.value = id;
  }
  const removeDrawing = (id: string): boolean => edit(removeGivenDrawing(session.activePart!, id));

  /** Under the open sketch. */
  const underlay = computed<{ readonly own: Underlay; readonly picture: string; readonly width: number; readonly height: number } | null>(() => {
    const own = session.sketching ? brief.value?.underlays[session.sketching] : undefined;
    const from = own && brief.value!.drawings[own.drawing];
    return own && from ? { own, picture: from.picture, width: from.width, height: from.height } : null;
  }); // prettier-ignore
  const layUnder = (to: Underlay | null): boolean => edit(layDrawingUnder(session.activePart!, session.sketching!, to));
  function layFirst(): void {
    const it = drawing.value;
    if (it && session.sketching) layUnder(firstUnderlay(it.id, it.own.width, it.own.height, it.own.pixel));
  }

  return {
    shown, brief, verdicts, right, wrong, unmeasured, drawing, chosen, underlay,
    put, remove, take, addDrawing, removeDrawing, layUnder, layFirst,
  }; // prettier-ignore
});
