/** Trying numbers before they are kept, and looking at a variant: the design on the screen is then not the kept one. */
import { adriftSentence, applyEdit, asVariant, keepReadings, MOST_READING_ROUNDS, setDimensions, tryDimensions, type Design, type Edit } from '@helb/core'; // prettier-ignore
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useProjectDimensions } from '../ledger/project-dimensions.ts';

const LOOKING_BACK = 'You are looking at how the design was; go to the present to change it.';
const KEEP_FIRST = 'You are trying other numbers; keep or drop them first.';
/** Edits of the table itself can be made while one of its variants is looked at. */
const OF_VARIANTS = /variant/;

export const useTrial = defineStore('trial', () => {
  const design = useDesign();
  const session = useSession();
  const project = useProjectDimensions();

  /** Texts tried, by dimension, until they are kept or dropped. */
  const values = shallowRef<ReadonlyMap<string, string>>(new Map());
  /** What is being typed now; it goes with its field. */
  const typing = shallowRef<{ readonly ref: string; readonly text: string } | null>(null);
  /** The variant being looked at. */
  const variant = ref<string | null>(null);
  /** An earlier state of the design being looked at. */
  const past = shallowRef<{ readonly revision: number; readonly design: Design } | null>(null);
  const holds = computed(() => values.value.size > 0);
  const on = computed(() => holds.value || typing.value !== null);

  function tried(): Design | string {
    const all = new Map(values.value);
    if (typing.value) all.set(typing.value.ref, typing.value.text);
    const outcome = applyEdit(design.base!, tryDimensions([...all]));
    return outcome.ok ? outcome.design : outcome.message;
  }

  /** Show what is tried now. Returns why it cannot be, the picture staying as it was. */
  function show(): string | null {
    if (!design.base) return null;
    if (past.value) {
      design.instead = { design: past.value.design, allows: () => false, refusal: LOOKING_BACK };
      return null;
    }
    if (variant.value) {
      const looked = asVariant(design.base, variant.value);
      if ('message' in looked) return looked.message;
      const name = design.base.variants!.rows[variant.value]!.name;
      const refusal = `You are looking at the variant “${name}”; go back to the design to change it.`;
      design.instead = { design: looked.design, allows: ({ command }: Edit) => OF_VARIANTS.test(command), refusal };
      return null;
    }
    if (!on.value) {
      design.instead = null;
      return null;
    }
    const next = tried();
    if (typeof next === 'string') return next;
    design.instead = { design: next, allows: () => false, refusal: KEEP_FIRST };
    return null;
  }

  /** Try a text for a dimension, beside what is tried already. Returns why it cannot be tried. */
  function hold(ref: string, text: string): string | null {
    if (variant.value || past.value) return design.instead?.refusal ?? null;
    const before = values.value;
    values.value = new Map(before).set(ref, text);
    const refusal = show();
    if (refusal !== null) values.value = before;
    return refusal;
  }

  function type(ref: string, text: string): void {
    if (variant.value || past.value) return;
    const before = typing.value;
    typing.value = { ref, text };
    // A text half written shows nothing new.
    if (show() !== null) typing.value = before;
  }

  function dropTyping(): void {
    if (!typing.value) return;
    typing.value = null;
    show();
  }

  function letGo(ref: string): void {
    const rest = new Map(values.value);
    rest.delete(ref);
    values.value = rest;
    session.notice = show();
  }

  function drop(): void {
    values.value = new Map();
    typing.value = null;
    show();
  }

  /** Make what is tried the design's own, as one edit. */
  async function keep(): Promise<void> {
    const all = [...values.value];
    const ledger = design.ledger!;
    const names = all.map(([ref]) => ledger.index.byReference(ref)?.name ?? ref);
    const isShared = (ref: string) => ledger.index.byReference(ref)?.owner.level === 'project';
    const shared = all.filter(([ref]) => isShared(ref));
    const own = all.filter(([ref]) => !isShared(ref));
    if (shared.length > 0) {
      const refusal = await project.change(setDimensions(shared));
      if (refusal !== null) {
        session.notice = refusal;
        return;
      }
    }
    drop();
    if (own.length === 0) return;
    const what = names.length > 3 ? `${names.length} dimensions` : names.join(', ');
    session.notice = design.edit(setDimensions(own, `Set ${what}`));
  }

  function look(id: string | null): string | null {
    values.value = new Map();
    typing.value = null;
    const before = variant.value;
    variant.value = id;
    const refusal = show();
    if (refusal !== null) variant.value = before;
    return refusal;
  }

  /** Show the design as it was; null for as it is. */
  function lookBack(to: { readonly revision: number; readonly design: Design } | null): string | null {
    if (!to && !past.value) return null;
    values.value = new Map();
    typing.value = null;
    variant.value = null;
    past.value = to;
    return show();
  }

  /** How many times in a row readings were taken over, and what came of it last. */
  let rounds = 0;
  let followed: Design | null = null;

  /**
   * What the model now reads; it belongs to the design it was read from. What reads otherwise again and again, as it
   * drives what it is measured on, is left where it is. @returns why readings are not taken over, each by its dimension
   */
  function read(from: Design, readings: ReadonlyMap<string, string>): ReadonlyMap<string, string> | null {
    if (design.design !== from) return null;
    rounds = from === followed ? rounds + 1 : 1;
    if (rounds > MOST_READING_ROUNDS) {
      const why = adriftSentence(from, readings.keys());
      return new Map([...readings.keys()].map((ref) => [ref, why]));
    }
    takeOver(from, readings);
    // While a step is being filled nothing is taken over, and nothing goes round.
    followed = design.design === from ? null : design.design;
    return null;
  }

  function takeOver(from: Design, readings: ReadonlyMap<string, string>): void {
    if (!design.instead) {
      // What a step that is being filled would make the model read is not kept.
      if (!design.attempt) design.follow(keepReadings(readings));
      return;
    }
    const outcome = applyEdit(from, keepReadings(readings));
    if (!outcome.ok) return;
    design.instead = { ...design.instead, design: outcome.design };
    // What was may have been changed again before its readings came, and then holds those of before.
    if (past.value) past.value = { ...past.value, design: outcome.design };
  }

  // An edit made elsewhere goes under what is tried here.
  watch(
    () => design.base,
    (now) => {
      if (!now || !design.instead) {
        values.value = new Map();
        typing.value = null;
        variant.value = null;
        past.value = null;
        return;
      }
      if (variant.value && !now.variants?.rows[variant.value]) variant.value = null;
      const refusal = show();
      if (refusal === null) return;
      session.notice = refusal;
      variant.value = null;
      drop();
    },
    { flush: 'sync' },
  );

  return { values, typing, variant, past, lookBack, holds, on, hold, type, dropTyping, letGo, drop, keep, look, read };
});
