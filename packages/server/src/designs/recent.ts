/** What this server saw last of the designs that are being changed. Other servers may know better: it is a guess. */
import type { Held, Stored } from './desk.ts';
import type { DesignHead, KeptChange } from './log-rows.ts';

interface Seen {
  row: DesignHead;
  /** The newest changes, without a gap, oldest first; all of them are in the log. */
  changes: KeptChange[];
  /** What a desk was asked about last, and so holds. */
  desk: Held | null;
  /** So many more times the database is asked all the same, as the guess was wrong. */
  doubts: number;
}

const MOST_DESIGNS = 300;
const MOST_CHANGES = 100;
const MOST_CHARS = 300_000;
/** Where several servers change one design, guessing costs more than it saves. */
const DOUBTS = 60;

export class Recent {
  private readonly designs = new Map<string, Seen>();
  /** Changes a desk of this server worked out: it holds what they led to. */
  private readonly own = new WeakSet<KeptChange>();

  /** The newest state guessed, and the changes after a revision; null when not all of that is remembered. */
  guess(design: string, revision: number): { readonly row: DesignHead; readonly missed: readonly KeptChange[] } | null {
    const seen = this.designs.get(design);
    if (!seen) return null;
    if (seen.doubts > 0) {
      seen.doubts--;
      return null;
    }
    const missed = this.after(design, revision);
    return missed && { row: seen.row, missed };
  }

  /** The guess did not lead to anything: it may be another server's doing. */
  doubt(design: string): void {
    const seen = this.designs.get(design);
    if (seen) seen.doubts = DOUBTS;
  }

  /** From which revision on the log has to be read, to know all that was done after this one. */
  readFrom(design: string, revision: number): number {
    const seen = this.designs.get(design)?.row.revision;
    if (seen === undefined) return revision;
    // From where it was seen last, though the sender knows more: the desk does not.
    const near = seen <= revision && revision - seen <= MOST_CHANGES;
    return near || this.after(design, revision) ? seen : revision;
  }

  /** Read from the log: the design as it is, and all changes after a revision. */
  saw({ id, revision, newest }: DesignHead, after: number, later: readonly KeptChange[]): void {
    const seen = this.designs.get(id);
    const known = seen?.row.revision ?? -1;
    // More was heard of while the log was read.
    if (known > revision) return;
    const before = known >= after ? seen!.changes : [];
    this.keep({ id, revision, newest }, [...before, ...later.filter((c) => c.revision > known)], seen);
  }

  /** Another server's changes, when they follow on what was seen. */
  heard(id: string, changes: readonly KeptChange[]): void {
    const seen = this.designs.get(id)?.row.revision;
    const fresh = changes.filter((c) => seen !== undefined && c.revision > seen);
    const last = fresh.at(-1);
    if (!last || fresh[0]!.revision !== seen! + 1) return;
    this.saw({ id, revision: last.revision, newest: last.changeId }, seen!, fresh);
  }

  /** Worked out by a desk of this server upon that state, and written. */
  wrote({ id, revision }: DesignHead, change: KeptChange): void {
    this.own.add(change);
    const seen = this.designs.get(id);
    const before = seen?.row.revision === revision ? seen.changes : [];
    this.keep({ id, revision: change.revision, newest: change.changeId }, [...before, change], seen);
  }

  /** All changes after a revision up to the newest seen; null when they are not all remembered. */
  after(design: string, revision: number): readonly KeptChange[] | null {
    const seen = this.designs.get(design);
    if (!seen) return null;
    const count = seen.row.revision - revision;
    return count < 0 || count > seen.changes.length ? null : seen.changes.slice(seen.changes.length - count);
  }

  /** What a desk lacks to know this state, most likely; null where it lacks nothing, or that is not known. */
  lacking({ id, revision, newest }: DesignHead): Stored | null {
    const held = this.designs.get(id)?.desk;
    if (!held || held.revision >= revision) return null;
    const since = this.after(id, held.revision)?.filter((c) => c.revision <= revision);
    if (!since || since.length !== revision - held.revision) return null;
    // It led there itself.
    if (since.length === 1 && since[0]!.changeId === newest && this.own.has(since[0]!)) return null;
    return { revision: held.revision, touches: since.map((c) => c.touches!) };
  }

  /** A desk was asked about this state. */
  asked({ id, revision, newest }: DesignHead): void {
    const seen = this.designs.get(id);
    if (seen) seen.desk = { revision, newest };
  }

  private keep(row: DesignHead, all: readonly KeptChange[], before: Seen | undefined): void {
    const changes = all.slice(-MOST_CHANGES);
    let chars = charsOf(changes);
    while (chars > MOST_CHARS && changes.length > 0) chars -= charsOf([changes.shift()!]);
    this.designs.delete(row.id);
    this.designs.set(row.id, { row, changes, desk: before?.desk ?? null, doubts: before?.doubts ?? 0 });
    for (const id of this.designs.keys()) {
      if (this.designs.size <= MOST_DESIGNS) return;
      this.designs.delete(id);
    }
  }
}

const charsOf = (changes: readonly KeptChange[]): number =>
  changes.reduce((sum, { touches, args }) => sum + (touches?.length ?? 0) + (args?.length ?? 0), 0);
