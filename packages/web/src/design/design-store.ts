/** The open design: its document, its edits, its history, and whether all is saved. */
import { frozen, Ledger, shownLabel, withTouches, type Change, type Design, type Edit } from '@helb/core';
import { nanoid } from 'nanoid';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { toast } from 'vue-sonner';
import { server, ServerAway, ServerRefusal, type OpenedDesign, type Role, type Told } from '../server.ts';
import { outbox } from './outbox.ts';
import { useShownLog } from './shown-log.ts';
import { useTrying } from './trying.ts';
import { useUnsolved, type Refused } from './unsolved.ts';
import { runWaiting, turn, type Known, type Waiting } from './waiting.ts';

/** A design shown in place of the kept one. */
export interface Shown {
  readonly design: Design;
  /** Edits that can be made all the same. */
  readonly allows: (edit: Edit) => boolean;
  /** Said of the others. */
  readonly refusal: string;
}

/** `refused`: the server will not have the waiting edits, nor show the design; they stay in this browser. */
export type SaveState = 'saved' | 'saving' | 'offline' | 'refused';

const LOOK_ONLY = 'You may look at this design, not change it; ask an owner of its project.';
const RETRY_FIRST_MS = 500;
const RETRY_MOST_MS = 8000;

export const useDesign = defineStore('design', () => {
  const id = ref<string | null>(null);
  const project = ref<{ id: string; name: string } | null>(null);
  /** The document with all edits made. */
  const kept = shallowRef<Design | null>(null);
  /** Shown instead of it: values being tried, or a variant being looked at. */
  const instead = shallowRef<Shown | null>(null);
  const unsolved = useUnsolved({
    kept,
    keep({ command, args, label }, kind, next, touches) {
      const shown = shownLabel(label, kept.value!);
      keep({ change: { id: nanoid(), kind, command, args }, label: shown }, next, touches);
    },
    done: () => void flush(),
  });
  const { attempt, base, tryAlso, keepAttempt, dropAttempt, redoAttempt } = useTrying(unsolved.front, (edit) =>
    make(edit, 'edit'),
  );
  /** What is on the screen. */
  const design = computed(() => instead.value?.design ?? base.value);
  const revision = ref(0);
  const saveState = ref<SaveState>('saved');
  const pending = shallowRef<Waiting[]>([]);
  const { log, hasEarlier, you, undoCount, nextOf, nextLabel, loadEarlier, named, readNames } = useShownLog(
    id,
    pending,
  );
  const role = ref<Role>('owns');
  const mayEdit = computed(() => role.value !== 'reads');

  /** Whose edits these are, where they are a person's rather than the browser's. */
  let author: string | undefined;
  /** The document as the server has it. */
  let acknowledged: Design | null = null;
  /** What undo and redo need of changes made here. */
  const known = new Map<string, Known>();
  let sending = false;
  let retry = 0;

  const ledger = computed(() => (design.value ? Ledger.of(design.value) : null));
  const canUndo = computed(() => mayEdit.value && (attempt.value !== null || undoCount.value > 0 || hasEarlier.value));
  const canRedo = computed(() => mayEdit.value && attempt.value === null && nextOf('redo') !== undefined);

  async function open(designId: string): Promise<void> {
    close();
    const opened = await server.open(designId);
    const { waiting: all, unreadable } = await outbox.of(designId).catch(() => ({ waiting: [], unreadable: 0 }));
    const waiting = all.filter((w) => w.by === undefined || !opened.signedIn || w.by === opened.you);
    if (waiting.length < all.length) toast.info('Edits of someone who signed in here before wait in this browser until they do again.'); // prettier-ignore
    if (unreadable > 0) toast.error('Edits that an earlier version of Helb left unsent cannot be read any more.');
    id.value = designId;
    project.value = opened.project;
    takeOver(opened);
    const logged = new Set(opened.log.map((c) => c.id));
    for (const { change } of waiting) if (logged.has(change.id)) void outbox.remove(designId, change.id);
    pending.value = waiting.filter(({ change }) => !logged.has(change.id));
    replay();
    saveState.value = pending.value.length > 0 ? 'saving' : 'saved';
    void flush();
  }

  function takeOver({ document, revision: now, log: logged, more, you: who, signedIn, role: may }: OpenedDesign): void {
    acknowledged = frozen(document);
    revision.value = now;
    log.value = logged;
    hasEarlier.value = more;
    you.value = who;
    role.value = may;
    author = signedIn ? who : undefined;
  }

  function close(): void {
    unsolved.finishHere();
    id.value = null;
    attempt.value = null;
    kept.value = null;
    instead.value = null;
    acknowledged = null;
    pending.value = [];
    known.clear();
  }

  /** The shown document is what the server has, and what waits to be sent. */
  function replay(): void {
    let current = acknowledged!;
    const still: Waiting[] = [];
    for (const waiting of pending.value) {
      const outcome = runWaiting(current, waiting);
      if (outcome.ok) {
        current = outcome.design;
        known.set(waiting.change.id, { label: waiting.label, touches: outcome.touches });
        still.push(waiting);
      } else {
        if (waiting.change.kind !== 'follow') notKept(outcome.message, waiting.label);
        void outbox.remove(id.value!, waiting.change.id);
      }
    }
    pending.value = still;
    show(current);
  }

  /** Take in what the log has come to hold since, from wherever it is heard. */
  function hear(changes: readonly Told[]): void {
    let heard = 0;
    let others = false;
    for (const { touches, ...listed } of changes) {
      if (listed.revision !== revision.value + 1) continue;
      acknowledged = withTouches(acknowledged!, touches, false);
      revision.value = listed.revision;
      log.value = [...log.value, listed];
      heard++;
      if (pending.value.some((w) => w.change.id === listed.id)) {
        known.set(listed.id, { label: listed.label, touches });
        others ||= pending.value[0]!.change.id !== listed.id;
        pending.value = pending.value.filter((w) => w.change.id !== listed.id);
        void outbox.remove(id.value!, listed.id);
      } else others = true;
    }
    // One's own edits alone lead to what is shown already.
    if (heard > 0 && others) replay();
  }

  /** Ask for what was missed. */
  async function catchUp(): Promise<void> {
    const designId = id.value;
    if (!designId) return;
    try {
      const { changes } = await server.since(designId, revision.value);
      if (id.value === designId) hear(changes);
    } catch (error) {
      if (!(error instanceof ServerRefusal) || id.value !== designId) return;
      if (error.status === 410) await open(designId);
      else shutOut(error);
      // Away: the next answer brings it.
    }
  }

  /** Signed out, or let in no longer: what is on the screen stays, and nothing more is sent or heard. */
  function shutOut(error: ServerRefusal): void {
    if (saveState.value !== 'refused') toast.error(error.message, { duration: 10_000 });
    saveState.value = 'refused';
  }

  /** The kept design is another now; what is tried goes on upon it. */
  function show(next: Design): void {
    kept.value = next;
    unsolved.renew();
    redoAttempt();
  }

  /**
   * Make an edit. Returns null, or the sentence that says why it was refused. Of a sketch too large to be solved at once
   * that comes later.
   */
  function edit(command: Edit, refusedLater?: Refused): string | null {
    if (instead.value && !instead.value.allows(command)) return instead.value.refusal;
    if (!mayEdit.value) return LOOK_ONLY;
    return attempt.value ? tryAlso(command) : make(command, 'edit', refusedLater);
  }

  /** Begin to try edits, with this one first. Returns null, or why it cannot be made. */
  function tryOut(command: Edit): string | null {
    if (instead.value) return instead.value.refusal;
    if (!mayEdit.value) return LOOK_ONLY;
    if (attempt.value) return 'Another step is being filled; keep or drop it first.';
    return tryAlso(command);
  }

  /** Take over what follows from an edit made already, here or in the project; undo passes it by. */
  const follow = (command: Edit): string | null => (mayEdit.value ? make(command, 'follow', () => undefined) : null);

  function make(command: Edit, kind: 'edit' | 'follow', refused: Refused = notKept): string | null {
    const refusal = unsolved.make(command, kind, refused);
    if (unsolved.waits.value && saveState.value === 'saved') saveState.value = 'saving';
    return refusal;
  }

  function notKept(sentence: string, label: string): void {
    toast.error(`“${label}” could not be kept: ${sentence}`, { duration: 10_000 });
  }

  function keep(made: Omit<Waiting, 'base' | 'own' | 'by'>, next: Design, touches: Known['touches']): void {
    const waiting: Waiting = {
      ...made,
      base: revision.value,
      own: pending.value.map((w) => w.change.id),
      ...(author ? { by: author } : {}),
    };
    show(next);
    known.set(waiting.change.id, { label: waiting.label, touches });
    pending.value = [...pending.value, waiting];
    if (saveState.value !== 'offline') saveState.value = 'saving';
    const designId = id.value!;
    // In the browser first: if the tab closes now, the next visit sends it.
    void outbox
      .add(designId, waiting)
      .catch(() =>
        toast.error('This browser’s storage is full or closed; changes are kept only once the server has them.'),
      )
      .then(() => flush());
  }

  async function flush(): Promise<void> {
    if (sending) return;
    sending = true;
    const designId = id.value;
    let asked: string | null = null;
    try {
      for (let first = pending.value[0]; first && id.value === designId && designId; first = pending.value[0]) {
        const { change } = first;
        asked = change.id;
        const { missed, kept: made } = await server.append(designId, first.base, first.own, first.by, change);
        if (id.value !== designId) return;
        retry = 0;
        hear(made ? [...missed, made] : missed);
        // Heard of already, or without effect on what has become of the design.
        if (pending.value.some((w) => w.change.id === change.id)) drop(change.id);
        // Last, as another design may be opened meanwhile; one left behind is known by its id.
        await outbox.remove(designId, change.id);
      }
      if (id.value === designId && !unsolved.waits.value) saveState.value = 'saved';
    } catch (error) {
      if (error instanceof ServerAway) await later(designId);
      else if (error instanceof ServerRefusal) await refused(error, designId, asked);
      else throw error;
    } finally {
      sending = false;
    }
  }

  function drop(changeId: string): void {
    pending.value = pending.value.filter((w) => w.change.id !== changeId);
    replay();
  }

  async function later(designId: string | null): Promise<void> {
    saveState.value = 'offline';
    const wait = Math.min(RETRY_MOST_MS, RETRY_FIRST_MS * 2 ** retry++);
    setTimeout(() => id.value === designId && void flush(), wait);
  }

  /**
   * The server will not have a waiting change: go back to what it has, and say so.
   * The change is dropped only once that is known; until then it waits with the others.
   */
  async function refused(error: ServerRefusal, designId: string | null, changeId: string | null): Promise<void> {
    if (!designId || id.value !== designId) return;
    // Signed out, or another signed in: it waits until they come back.
    if (error.status === 401) return shutOut(error);
    let fresh: OpenedDesign;
    try {
      fresh = await server.open(designId);
    } catch (reason) {
      if (id.value !== designId) return;
      if (reason instanceof ServerAway) return later(designId);
      return shutOut(reason as ServerRefusal);
    }
    if (id.value !== designId) return;
    // By its id: what was heard meanwhile may have taken it out already.
    const first = pending.value.find((w) => w.change.id === changeId);
    pending.value = pending.value.filter((w) => w !== first);
    const heardOf = revision.value;
    takeOver(fresh);
    // What follows the model or the project is found again by itself.
    if (first && first.change.kind !== 'follow') toast.error(error.message, { duration: 10_000 });
    replay();
    if (first) await outbox.remove(designId, first.change.id);
    // What was heard while the answer was under way is not told twice.
    if (fresh.revision < heardOf) void catchUp();
    setTimeout(() => void flush());
  }

  async function revert(kind: 'undo' | 'redo'): Promise<string | null> {
    if (attempt.value) {
      if (kind === 'undo') redoAttempt(true);
      return null;
    }
    await unsolved.settled();
    if (kind === 'undo' && undoCount.value === 0 && hasEarlier.value) await loadEarlier();
    const target = nextOf(kind);
    if (!target || !kept.value || !id.value) return null;
    let of = known.get(target);
    if (!of) {
      try {
        of = await server.change(id.value, target);
      } catch (error) {
        return (error as Error).message;
      }
    }
    const outcome = turn(kept.value, kind, of);
    if (!outcome.ok) return outcome.message;
    const { label, touches } = of;
    keep(
      { change: { id: nanoid(), kind, of: target }, label, of: { label, touches } },
      outcome.design,
      outcome.touches,
    );
    return null;
  }

  /** Go back to an earlier state, as a new edit. The server alone knows that state. */
  async function restore(to: number): Promise<string | null> {
    const designId = id.value;
    if (!designId) return 'No design is open.';
    if (!mayEdit.value) return LOOK_ONLY;
    if (pending.value.length > 0 || unsolved.waits.value || attempt.value)
      return 'Wait until all is saved, then go back.';
    try {
      const change: Change = { id: nanoid(), kind: 'restore', to };
      const { missed, kept: made } = await server.append(designId, revision.value, [], author, change);
      if (id.value === designId) hear(made ? [...missed, made] : missed);
      return null;
    } catch (error) {
      return (error as Error).message;
    }
  }

  const undo = () => revert('undo');
  const redo = () => revert('redo');
  const undoLabel = computed(() => attempt.value?.edits.at(-1)?.label ?? nextLabel('undo'));
  const redoLabel = computed(() => nextLabel('redo'));

  return {
    id,
    project,
    kept,
    instead,
    attempt,
    base,
    design,
    ledger,
    revision,
    saveState,
    log,
    hasEarlier,
    you,
    role,
    mayEdit,
    undoCount,
    canUndo,
    canRedo,
    undoLabel,
    redoLabel,
    open,
    close,
    edit,
    tryOut,
    keepAttempt,
    dropAttempt,
    follow,
    undo,
    redo,
    restore,
    finishSolving: unsolved.finishHere,
    loadEarlier,
    named,
    readNames,
    hear,
    catchUp,
  };
});
