/** The open design: its document, its edits, its history, and whether all is saved. */
import {
  applyAccepted,
  applyChange,
  applyEdit,
  frozen,
  Ledger,
  undoState,
  type Change,
  type Design,
  type Edit,
  type LoggedChange,
} from '@helb/core';
import { nanoid } from 'nanoid';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { toast } from 'vue-sonner';
import { server, ServerAway, ServerRefusal, type Acknowledged, type OpenedDesign } from '../server.ts';
import { outbox } from './outbox.ts';

type Patches = Change['patches'];
/** A design shown in place of the kept one. */
export interface Shown {
  readonly design: Design;
  /** Edits that can be made all the same. */
  readonly allows: (edit: Edit) => boolean;
  /** Said of the others. */
  readonly refusal: string;
}
/** Edits tried together, and the design with them made. */
interface Attempt {
  readonly edits: readonly Edit[];
  readonly design: Design;
}

/** `refused`: the server will not have the waiting edits, nor show the design; they stay in this browser. */
export type SaveState = 'saved' | 'saving' | 'offline' | 'refused';

const RETRY_FIRST_MS = 500;
const RETRY_MOST_MS = 8000;

export const useDesign = defineStore('design', () => {
  const id = ref<string | null>(null);
  const project = ref<{ id: string; name: string } | null>(null);
  /** The document with all edits made. */
  const kept = shallowRef<Design | null>(null);
  /** Shown instead of it: values being tried, or a variant being looked at. */
  const instead = shallowRef<Shown | null>(null);
  /** Edits that are only tried, such as a step whose sentence is being filled: not saved, and not in the history. */
  const attempt = shallowRef<Attempt | null>(null);
  /** What edits are made on. */
  const base = computed(() => attempt.value?.design ?? kept.value);
  /** What is on the screen. */
  const design = computed(() => instead.value?.design ?? base.value);
  const revision = ref(0);
  const saveState = ref<SaveState>('saved');
  const log = shallowRef<LoggedChange[]>([]);

  /** The document as the server has it. */
  let acknowledged: Design | null = null;
  let pending: Change[] = [];
  /** What undo and redo need, for changes made here. */
  const known = new Map<string, { label: string; patches: Patches; inverse: Patches }>();
  let sending = false;
  let retry = 0;

  const ledger = computed(() => (design.value ? Ledger.of(design.value) : null));
  const undoable = computed(() => undoState(log.value));
  const undoCount = computed(() => undoable.value.undo.length);
  const canUndo = computed(() => attempt.value !== null || undoCount.value > 0);
  const canRedo = computed(() => attempt.value === null && undoable.value.redo.length > 0);

  async function open(designId: string): Promise<void> {
    close();
    const opened = await server.open(designId);
    const waiting = await outbox.of(designId).catch(() => []);
    id.value = designId;
    project.value = opened.project;
    revision.value = opened.revision;
    acknowledged = frozen(opened.document);
    log.value = opened.log;
    const logged = new Set(opened.log.map((c) => c.id));
    pending = [];
    for (const change of waiting) {
      if (logged.has(change.id)) void outbox.remove(designId, change.id);
      else pending.push(change);
    }
    replay();
    saveState.value = pending.length > 0 ? 'saving' : 'saved';
    void flush();
  }

  function close(): void {
    id.value = null;
    attempt.value = null;
    kept.value = null;
    instead.value = null;
    acknowledged = null;
    pending = [];
    known.clear();
  }

  /** The shown document is what the server has, and what waits to be sent. */
  function replay(): void {
    let current = acknowledged!;
    const still: Change[] = [];
    for (const change of pending) {
      const outcome = applyChange(current, change.patches as Patches & Parameters<typeof applyChange>[1]);
      if (outcome.ok) {
        current = outcome.design;
        known.set(change.id, { label: change.label, patches: change.patches, inverse: outcome.inverse as Patches });
        still.push(change);
      } else {
        toast.error(`“${change.label}” could not be kept: ${outcome.message}`);
        void outbox.remove(id.value!, change.id);
      }
    }
    pending = still;
    const sent = new Set(still.map((c) => c.id));
    log.value = [...log.value.filter((c) => !sent.has(c.id)), ...still];
    show(current);
  }

  /** The kept design is another now; what is tried goes on upon it. */
  function show(next: Design): void {
    kept.value = next;
    if (attempt.value) redoAttempt(attempt.value.edits);
  }

  /** Make an edit. Returns null, or the sentence that says why it was refused. */
  function edit(command: Edit): string | null {
    if (instead.value && !instead.value.allows(command)) return instead.value.refusal;
    return attempt.value ? tryAlso(command) : make(command, 'edit');
  }

  /** Begin to try edits, with this one first. Returns null, or why it cannot be made. */
  function tryOut(command: Edit): string | null {
    if (instead.value) return instead.value.refusal;
    if (attempt.value) return 'Another step is being filled; keep or drop it first.';
    return tryAlso(command);
  }

  function tryAlso(command: Edit): string | null {
    if (!base.value) return 'No design is open.';
    const outcome = applyEdit(base.value, command);
    if (!outcome.ok) return outcome.message;
    attempt.value = { edits: [...(attempt.value?.edits ?? []), command], design: outcome.design };
    return null;
  }

  /** Make what is tried the design's own, as one edit that bears the first one's name. */
  function keepAttempt(): string | null {
    const tried = attempt.value;
    const [first, ...rest] = tried?.edits ?? [];
    if (!first) return null;
    const whole: Edit = { ...first, run: (draft) => [first, ...rest].forEach((e) => e.run(draft)) };
    // Its arguments tell of the first alone.
    if (rest.length > 0) delete (whole as { args?: unknown }).args;
    attempt.value = null;
    const refusal = make(whole, 'edit');
    if (refusal !== null) attempt.value = tried;
    return refusal;
  }

  function dropAttempt(): void {
    attempt.value = null;
  }

  /** The same edits on what the design has become; without the last few, if so wanted. */
  function redoAttempt(edits: readonly Edit[]): void {
    const tried = attempt.value;
    attempt.value = null;
    for (const command of tried ? edits : []) {
      const refusal = tryAlso(command);
      if (refusal === null) continue;
      attempt.value = null;
      toast.error(`What you were filling cannot go on: ${refusal}`);
      return;
    }
  }

  /** Take over what follows from an edit made already, here or in the project; undo passes it by. */
  const follow = (command: Edit): string | null => make(command, 'follow');

  function make(command: Edit, kind: 'edit' | 'follow'): string | null {
    if (!kept.value) return 'No design is open.';
    const outcome = applyEdit(kept.value, command);
    if (!outcome.ok) return outcome.message;
    if (outcome.patches.length === 0) return null;
    keep(
      {
        id: nanoid(),
        kind,
        command: command.command,
        label: command.label,
        ...(command.args === undefined ? {} : { args: command.args }),
        patches: outcome.patches as Patches,
      },
      outcome.design,
      outcome.inverse as Patches,
    );
    return null;
  }

  function keep(change: Change, next: Design, inverse: Patches): void {
    show(next);
    known.set(change.id, { label: change.label, patches: change.patches, inverse });
    log.value = [...log.value, change];
    pending.push(change);
    if (saveState.value !== 'offline') saveState.value = 'saving';
    const designId = id.value!;
    // In the browser first: if the tab closes now, the next visit sends it.
    void outbox
      .add(designId, change)
      .catch(() =>
        toast.error('This browser’s storage is full or closed; changes are kept only once the server has them.'),
      )
      .then(() => flush());
  }

  async function flush(): Promise<void> {
    if (sending) return;
    sending = true;
    const designId = id.value;
    try {
      while (pending.length > 0 && id.value === designId && designId) {
        const change = pending[0]!;
        const answer = await server.append(designId, revision.value, change);
        if (id.value !== designId) return;
        pending.shift();
        retry = 0;
        settle(change, answer);
        // Last, as another design may be opened meanwhile; one left behind is known by its id.
        await outbox.remove(designId, change.id);
      }
      if (id.value === designId) saveState.value = 'saved';
    } catch (error) {
      if (error instanceof ServerAway) await later(designId);
      else if (error instanceof ServerRefusal) await refused(error, designId);
      else throw error;
    } finally {
      sending = false;
    }
  }

  function settle(change: Change, answer: Acknowledged): void {
    let current = acknowledged!;
    for (const patches of [...answer.missed.map((m) => m.patches), change.patches])
      current = applyAccepted(current, patches as Parameters<typeof applyAccepted>[1]);
    acknowledged = current;
    revision.value = answer.revision;
    if (answer.missed.length > 0) {
      const own = new Set([change.id, ...pending.map((c) => c.id)]);
      const others = answer.missed.map(({ id, kind, of, label }) => ({ id, kind, of, label }));
      log.value = [...log.value.filter((c) => !own.has(c.id)), ...others, change];
      replay();
    }
  }

  async function later(designId: string | null): Promise<void> {
    saveState.value = 'offline';
    const wait = Math.min(RETRY_MOST_MS, RETRY_FIRST_MS * 2 ** retry++);
    setTimeout(() => id.value === designId && void flush(), wait);
  }

  /**
   * The server will not have the first waiting change: go back to what it has, and say so.
   * The change is dropped only once that is known; until then it waits with the others.
   */
  async function refused(error: ServerRefusal, designId: string | null): Promise<void> {
    if (!designId || id.value !== designId) return;
    let fresh: OpenedDesign;
    try {
      fresh = await server.open(designId);
    } catch (reason) {
      if (id.value !== designId) return;
      if (reason instanceof ServerAway) return later(designId);
      saveState.value = 'refused';
      toast.error((reason as Error).message, { duration: 10_000 });
      return;
    }
    if (id.value !== designId) return;
    const change = pending.shift();
    acknowledged = fresh.document;
    revision.value = fresh.revision;
    log.value = fresh.log;
    // What follows the model or the project is found again by itself.
    if (change?.kind !== 'follow') toast.error(error.message, { duration: 10_000 });
    replay();
    if (change) await outbox.remove(designId, change.id);
    setTimeout(() => void flush());
  }

  async function revert(kind: 'undo' | 'redo'): Promise<string | null> {
    if (attempt.value) {
      if (kind === 'undo') redoAttempt(attempt.value.edits.slice(0, -1));
      return null;
    }
    const target = undoable.value[kind].at(-1);
    if (!target || !kept.value || !id.value) return null;
    let entry = known.get(target);
    if (!entry) {
      try {
        entry = await server.change(id.value, target);
      } catch (error) {
        return (error as Error).message;
      }
    }
    const patches = kind === 'undo' ? entry.inverse : entry.patches;
    const outcome = applyChange(kept.value, patches as Parameters<typeof applyChange>[1]);
    if (!outcome.ok)
      return `This cannot be ${kind === 'undo' ? 'taken back' : 'made again'} any more: ${outcome.message}`;
    known.set(target, entry);
    keep(
      { id: nanoid(), kind, of: target, command: kind, label: entry.label, patches },
      outcome.design,
      outcome.inverse as Patches,
    );
    return null;
  }

  const undo = () => revert('undo');
  const redo = () => revert('redo');
  const undoLabel = computed(
    () => attempt.value?.edits.at(-1)?.label ?? log.value.find((c) => c.id === undoable.value.undo.at(-1))?.label ?? '',
  );
  const redoLabel = computed(() => log.value.find((c) => c.id === undoable.value.redo.at(-1))?.label ?? '');

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
  };
});
