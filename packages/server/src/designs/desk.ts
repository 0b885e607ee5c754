/**
 * Where changes are worked out, apart from what answers requests: it holds the designs that are being worked on, runs
 * commands on them, and touches no database.
 */
import {
  Change, faultOfShared, firstIssue, inverted, Ledger, MAX_FILE_BYTES, pictureKey, readDesign, readsOf, Shared, take, touchesBetween, unpack, withTouches,
  type Asked, type Design, type Earlier, type Taken, type Touch,
} from '@helb/core'; // prettier-ignore
import { createHash } from 'node:crypto';
import { z } from 'zod';

/** A change of the log, as it is kept. */
export interface LoggedRow {
  readonly label: string;
  readonly by: string;
  readonly touches: string;
  readonly command: string;
  readonly args: string | null;
}

/** A design as it is stored: a state of it, and what was done since. */
export interface Stored {
  /** Not sent where the desk holds that state. */
  readonly document?: string;
  readonly revision: number;
  readonly touches: readonly string[];
}

/** A state of a design, told from others by the change that led to it. */
export interface Held {
  readonly revision: number;
  readonly newest: string | null;
}

interface OfDesign {
  readonly design: string;
  /** The newest there is, and the id of the change that led to it. */
  readonly revision: number;
  readonly newest: string | null;
  readonly stored?: Stored;
}

export type Task =
  | { readonly kind: 'head'; readonly text: string }
  | ({
      readonly kind: 'take';
      readonly text: string;
      readonly since: readonly LoggedRow[];
      readonly earlier?: LoggedRow;
      /** Of a restoring: the state wanted is reached by taking these back, the newest first. */
      readonly back?: readonly string[];
    } & OfDesign)
  | ({ readonly kind: 'document'; readonly back?: readonly string[] } & OfDesign)
  | ({ readonly kind: 'picture'; readonly part: string; readonly key: string; readonly data: Uint8Array } & OfDesign)
  | { readonly kind: 'read' | 'shared'; readonly text: string };

/** What stands at the head of a change that was sent: enough to look up what it needs. */
export interface Head {
  readonly base: number;
  readonly own: readonly string[];
  /** Whose it is, as the page knows; not said where nobody signs in. */
  readonly by?: string;
  readonly id: string;
  readonly kind: 'edit' | 'follow' | 'undo' | 'redo' | 'restore';
  /** The change that is taken back or made again. */
  readonly of?: string;
  /** The revision that is wanted again. */
  readonly to?: number;
  /** Tells it from another change of the same id. */
  readonly digest: string;
}

export interface Worked {
  readonly touches: string;
  readonly label: string;
  readonly command: string;
  readonly args: string | null;
  readonly name: string;
  readonly firstPart: string | null;
  /** It changes nothing. */
  readonly idle: boolean;
}

export type Answer =
  | { readonly is: 'head'; readonly head: Head }
  | { readonly is: 'worked'; readonly worked: Worked }
  | { readonly is: 'text'; readonly text: string; readonly name: string; readonly firstPart: string | null }
  | { readonly is: 'done' }
  /** The design is not held here as it is now; send along what is lacking. */
  | { readonly is: 'wanting'; readonly holds: Held | null }
  | { readonly is: 'refused'; readonly status: number; readonly message: string };

/** Of all designs held, in characters as stored; in memory they take several times as much. */
const HELD_BYTES = 32 * 1024 * 1024;

const Sent = z.strictObject({
  base: z.number().int().min(0),
  /** Changes of the sender's own since then, which they had before them. */
  own: z.array(z.string().max(40)).max(5000).default([]),
  by: z.string().max(40).optional(),
  change: Change,
});

const stateIn = (document: string, revision: number): Pick<State, 'revision' | 'design' | 'bytes'> => ({
  revision,
  design: JSON.parse(document) as Design,
  bytes: document.length,
});

interface State {
  readonly revision: number;
  readonly newest: string | null;
  readonly design: Design;
  readonly bytes: number;
}

const refused = (status: number, message: string): Answer => ({ is: 'refused', status, message });

export class Desk {
  /** The newest used last. */
  private readonly held = new Map<string, { readonly now: State; next?: State }>();

  do(task: Task): Answer {
    switch (task.kind) {
      case 'head':
        return headOf(task.text);
      case 'take':
        return this.take(task);
      case 'document':
        return this.document(task);
      case 'picture':
        return this.picture(task);
      case 'read':
        return this.read(task.text);
      case 'shared':
        return sharedIn(task.text);
    }
  }

  /** The newest state, when it is held or can be made of what was sent. */
  private state({ design: id, revision, newest, stored }: OfDesign): State | null {
    const own = this.held.get(id);
    // What was worked out last has become the newest only if it was kept.
    for (const state of own ? [own.now, own.next] : []) {
      if (state?.revision !== revision || state.newest !== newest) continue;
      this.hold(id, state);
      return state;
    }
    if (!stored) return null;
    const begun = stored.document === undefined ? own?.now : stateIn(stored.document, stored.revision);
    if (begun?.revision !== stored.revision) return null;
    const touches = stored.touches.flatMap((t) => JSON.parse(t) as Touch[]);
    const design = touches.length > 0 ? withTouches(begun.design, touches, false) : begun.design;
    if (stored.document === undefined) this.followed(begun.design, design);
    const bytes = begun.bytes + stored.touches.reduce((sum, t) => sum + t.length, 0);
    const state = { revision, newest, design, bytes };
    this.hold(id, state);
    return state;
  }

  /** What was computed of the one serves the other, where little lies between them. */
  private followed(before: Design, after: Design): void {
    Ledger.of(before);
    Ledger.of(after);
  }

  private wanting(id: string): Answer {
    const now = this.held.get(id)?.now;
    return { is: 'wanting', holds: now ? { revision: now.revision, newest: now.newest } : null };
  }

  private hold(id: string, now: State): void {
    this.held.delete(id);
    this.held.set(id, { now });
    let total = 0;
    for (const { now: own } of this.held.values()) total += own.bytes;
    for (const [other, { now: own }] of this.held) {
      if (total <= HELD_BYTES || other === id) break;
      total -= own.bytes;
      this.held.delete(other);
    }
  }

  private take(task: Task & { kind: 'take' }): Answer {
    const sent = read(task.text);
    if (!sent) return refused(422, UNREADABLE);
    const state = this.state(task);
    if (!state) return this.wanting(task.design);
    const { change } = sent;
    const taken =
      change.kind === 'restore'
        ? restored(state.design, task.back ?? [], change.to)
        : take(state.design, askedOf(change, task.earlier), task.since.map(earlierOf));
    if (!taken.ok) return refused(409, taken.message);
    const touches = JSON.stringify(taken.touches);
    const bytes = state.bytes + touches.length - JSON.stringify(taken.touches.map((t) => t.was)).length;
    if (bytes > MAX_FILE_BYTES && taken.touches.length > 0)
      return refused(422, `This would make the design larger than ${MAX_FILE_BYTES / 1024 / 1024} MB, the most there can be.`); // prettier-ignore
    this.held.get(task.design)!.next = { revision: task.revision + 1, newest: change.id, design: taken.design, bytes };
    return {
      is: 'worked',
      worked: {
        touches,
        label: taken.label,
        command: 'command' in change ? change.command : change.kind,
        args: 'args' in change ? JSON.stringify(change.args ?? null) : null,
        name: taken.design.name,
        firstPart: taken.design.partOrder[0] ?? null,
        idle: taken.touches.length === 0,
      },
    };
  }

  private document(task: Task & { kind: 'document' }): Answer {
    const state = this.state(task);
    if (!state) return this.wanting(task.design);
    const design = task.back ? before(state.design, task.back) : state.design;
    return { is: 'text', text: JSON.stringify(design), name: design.name, firstPart: design.partOrder[0] ?? null };
  }

  /** A picture is kept only of what the design is now, and only when it can be read. */
  private picture(task: Task & { kind: 'picture' }): Answer {
    const state = this.state(task);
    if (!state) return this.wanting(task.design);
    const { design } = state;
    const known = Object.hasOwn(design.parts, task.part);
    if (!known || pictureKey(design, Ledger.of(design), task.part) !== task.key)
      return refused(409, 'This picture is of no part of the design as it is now.');
    try {
      unpack(task.data);
    } catch {
      return refused(422, 'This picture cannot be read.');
    }
    return { is: 'done' };
  }

  private read(text: string): Answer {
    const file = readDesign(text);
    if (!file.ok) return refused(422, file.message);
    const { design } = file;
    return { is: 'text', text: JSON.stringify(design), name: design.name, firstPart: design.partOrder[0] ?? null };
  }
}

/** A project's dimensions, checked. */
function sharedIn(text: string): Answer {
  const parsed = Shared.safeParse(JSON.parse(text));
  if (!parsed.success) return refused(422, `These dimensions do not follow the format: ${firstIssue(parsed.error)}`);
  const fault = faultOfShared(parsed.data);
  return fault ? refused(422, fault) : { is: 'done' };
}

/** What pages do by themselves; anything else is somebody's edit, and can be taken back. */
const FOLLOWING: ReadonlySet<string> = new Set(['keep-readings', 'follow-project']);

const UNREADABLE = 'This change cannot be read; reload the page, which may be older than the server.';

function read(text: string): z.infer<typeof Sent> | null {
  try {
    return Sent.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

export function headOf(text: string): Answer {
  const sent = read(text);
  if (!sent) return refused(422, UNREADABLE);
  const { base, own, by, change } = sent;
  if (change.kind === 'follow' && !FOLLOWING.has(change.command)) return refused(422, UNREADABLE);
  const { id, kind, ...rest } = change;
  const digest = createHash('sha256')
    .update(JSON.stringify([kind, rest]))
    .digest('base64url');
  return {
    is: 'head',
    head: { base, own, id, kind, digest, ...(by === undefined ? {} : { by }), ...('of' in change ? { of: change.of } : {}), ...('to' in change ? { to: change.to } : {}) }, // prettier-ignore
  };
}

function earlierOf({ label, by, touches, command, args }: LoggedRow): Earlier {
  return { label, by, touches: JSON.parse(touches) as Touch[], reads: args === null ? [] : readsSafely(command, args) };
}

/** Commands of an earlier version may have had other arguments. */
function readsSafely(command: string, args: string): readonly (readonly string[])[] {
  try {
    return readsOf(command, JSON.parse(args));
  } catch {
    return [];
  }
}

function askedOf(change: Exclude<Change, { kind: 'restore' }>, earlier: LoggedRow | undefined): Asked {
  if (change.kind === 'edit' || change.kind === 'follow') return change;
  return { kind: change.kind, earlier: earlierOf(earlier!) };
}

/** @param back touches to take back, the newest first */
const before = (design: Design, back: readonly string[]): Design =>
  back.reduce((state, touches) => withTouches(state, inverted(JSON.parse(touches) as Touch[]), false), design);

function restored(design: Design, back: readonly string[], to: number): Taken {
  const wanted = before(design, back);
  return { ok: true, design: wanted, touches: touchesBetween(design, wanted), label: `Go back to state ${to}` };
}
