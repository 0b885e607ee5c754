/** A design's log: the truth. Changes are appended to it, and what a design is follows from it. */
import type { LoggedChange, Touch } from '@helb/core';
import { Op, UniqueConstraintError, type Sequelize, type Transaction } from 'sequelize';
import { ChangeRow, DesignRow } from '../database/models.ts';
import type { Live } from '../live/live.ts';
import { namesOf } from '../people/names.ts';
import { Refusal } from '../refusal.ts';
import { headOf, type Answer, type Head, type LoggedRow, type Stored, type Task, type Worked } from './desk.ts';
import type { Desks } from './desk-threads.ts';

/** A change as pages hear of it. */
export interface Told extends LoggedChange {
  readonly revision: number;
  readonly author: string | null;
  /** Name of the author; null of one without an account. */
  readonly by: string | null;
  readonly at: string;
  readonly named: string | null;
  readonly touches: readonly Touch[];
}

/** A change of which one knows what it was, not what it did. */
export type Listed = Omit<Told, 'touches'>;

export interface Acknowledged {
  /** The design's revision after this change. */
  readonly revision: number;
  /** The change as it was kept; null when it changed nothing and was not. */
  readonly kept: Told | null;
  /** Changes by others between the sender's revision and this one, oldest first. */
  readonly missed: readonly Told[];
}

/** A page of a design's history. */
const PAGE = 300;
/** Who was away for longer than so many changes opens the design anew. */
const MOST_MISSED = 5000;
/** Longer texts are read on a desk, not where requests are answered. */
const SHORT_TEXT = 64 * 1024;
/** A state is written this long after a change, or after so many. */
const REST_MS = 3000;
const MOST_UNWRITTEN = 100;

const LISTED = ['revision', 'changeId', 'kind', 'target', 'label', 'author', 'named', 'createdAt'] as const;

export class ChangeLog {
  /** Of each design, the change being appended now. */
  private readonly turns = new Map<string, Promise<unknown>>();
  private readonly unwritten = new Map<string, { count: number; timer: NodeJS.Timeout }>();

  constructor(
    private readonly sequelize: Sequelize,
    private readonly desks: Desks,
    private readonly live: Live,
  ) {}

  /**
   * Keep a change that was sent as text.
   * @throws Refusal 401 when another signed in since, 404, 409 when it clashes, 422 when it cannot be read or would be unsound
   */
  append(design: string, author: string, text: string): Promise<Acknowledged> {
    // One after another, so that one busy design takes one desk at most.
    const before = this.turns.get(design) ?? Promise.resolve();
    const turn = before.catch(() => {}).then(() => this.appendNow(design, author, text));
    this.turns.set(design, turn);
    void turn.catch(() => {}).then(() => this.turns.get(design) === turn && this.turns.delete(design));
    return turn;
  }

  private async appendNow(design: string, author: string, text: string): Promise<Acknowledged> {
    const answer = text.length < SHORT_TEXT ? headOf(text) : await this.desks.do({ kind: 'head', text });
    if (answer.is !== 'head') throw refusalOf(answer);
    const { head } = answer;
    if (head.by !== undefined && head.by !== author)
      throw new Refusal(401, 'Someone else signed in in this browser since; sign in again as who made this.');
    const told =
      (await this.attempt(design, author, head, text)) ??
      // Another server was quicker: now one waits for one's turn.
      (await this.sequelize.transaction(async (held) => {
        await DesignRow.findByPk(design, { attributes: ['id'], transaction: held, lock: held.LOCK.UPDATE });
        return this.attempt(design, author, head, text, held);
      }));
    if (!told) throw new Refusal(503, 'Too many change this design at once; try again in a moment.');
    if (told.kept && told.isNew) {
      this.live.changed(design, told.kept);
      this.writeLater(design);
    }
    return { revision: told.revision, kept: told.kept, missed: told.missed };
  }

  /**
   * @param held holds the design for this change alone
   * @returns null when another server changed the design meanwhile
   */
  private async attempt(
    design: string,
    author: string,
    head: Head,
    text: string,
    held?: Transaction,
  ): Promise<(Acknowledged & { readonly isNew: boolean }) | null> {
    const [row, known] = await Promise.all([
      rowOf(design, held),
      ChangeRow.findOne({ where: { designId: design, changeId: head.id }, ...within(held) }),
    ]);
    if (known) return { ...(await this.again(design, head, known)), isNew: false };
    if (head.base > row.revision)
      throw new Refusal(
        409,
        `This change was made on revision ${head.base}, which the server does not have (it has ${row.revision}); reload the design.`,
      );
    if (row.revision - head.base > MOST_MISSED)
      throw new Refusal(409, 'Too much was changed since; open the design anew and make this again.');
    const missed = await between(design, head.base, row.revision, held);
    const worked = await this.work(row, author, head, text, missed);
    const base = { revision: row.revision, missed: await told(missed) };
    if (worked.idle) return { ...base, kept: null, isNew: false };
    const kept = held ? await this.write(row, author, head, worked, held) : await this.writeAlone(row, author, head, worked); // prettier-ignore
    return kept && { ...base, revision: kept.revision, kept, isNew: true };
  }

  /** Sent again because the answer was lost; it is kept already. */
  private async again(design: string, head: Head, known: ChangeRow): Promise<Acknowledged> {
    if (known.changeId !== head.id || (known.digest !== null && known.digest !== head.digest))
      throw new Refusal(409, 'Another change has this id already; reload the page and make it again.');
    const missed = await between(design, head.base, known.revision - 1);
    const [kept] = await told([known]);
    return { revision: known.revision, kept: kept!, missed: await told(missed) };
  }

  private async work(row: DesignRow, author: string, head: Head, text: string, missed: ChangeRow[]): Promise<Worked> {
    const of = head.of === undefined ? null : await this.earlier(row.id, author, head.of);
    const own = new Set(head.own);
    const others = missed.filter((r) => r.author !== author || !own.has(r.changeId));
    const since = of ? await between(row.id, of.revision, row.revision) : others;
    if (head.to !== undefined && head.to > row.revision)
      throw new Refusal(404, 'There is no such state of the design.');
    const back = head.to === undefined ? [] : await between(row.id, head.to, row.revision);
    const names = await namesOf([...since, ...(of ? [of] : [])].map((r) => r.author));
    const answer = await this.ask(row, {
      kind: 'take',
      text,
      since: since.map((r) => loggedOf(r, author, names)),
      ...(of ? { earlier: loggedOf(of, author, names) } : {}),
      ...(head.to === undefined ? {} : { back: back.map((r) => r.touches!).reverse() }),
    });
    if (answer.is !== 'worked') throw refusalOf(answer);
    return answer.worked;
  }

  /** A change to be taken back or made again: by whom it was made, and while it stands or not. */
  private async earlier(design: string, author: string, id: string): Promise<ChangeRow> {
    const row = await ChangeRow.findOne({ where: { designId: design, changeId: id } });
    if (!row || row.changeId !== id) throw new Refusal(404, 'This change is not in the design’s history.');
    if (row.author !== null && row.author !== author)
      throw new Refusal(403, `“${row.label}” was made by someone else, and only they can take it back.`);
    return row;
  }

  /** @returns the change as kept; null when another server was quicker */
  private async writeAlone(row: DesignRow, author: string, head: Head, worked: Worked): Promise<Told | null> {
    try {
      return await this.sequelize.transaction((transaction) => this.write(row, author, head, worked, transaction));
    } catch (error) {
      if (error instanceof UniqueConstraintError) return null;
      throw error;
    }
  }

  private async write(
    row: DesignRow,
    author: string,
    head: Head,
    worked: Worked,
    transaction: Transaction,
  ): Promise<Told | null> {
    const revision = row.revision + 1;
    const [taken] = await DesignRow.update(
      { revision, newest: head.id, name: worked.name, firstPart: worked.firstPart },
      { where: { id: row.id, revision: row.revision, deletedAt: null }, transaction },
    );
    if (taken === 0) return null;
    const made = await ChangeRow.create(
      {
        designId: row.id,
        revision,
        changeId: head.id,
        kind: head.kind,
        target: head.of ?? null,
        command: worked.command,
        args: worked.args,
        label: worked.label,
        author,
        digest: head.digest,
        touches: worked.touches,
      },
      { transaction },
    );
    return (await told([made]))[0]!;
  }

  /** Ask a desk, and send the design along when the desk does not hold it. */
  private async ask(row: DesignRow, task: AboutDesign): Promise<Answer> {
    const of = { design: row.id, revision: row.revision, newest: row.newest };
    const answer = await this.desks.do({ ...task, ...of });
    if (answer.is !== 'wanting') return answer;
    const again = await this.desks.do({ ...task, ...of, stored: await storedOf(row.id, row.revision) });
    return again.is === 'wanting' ? { is: 'refused', status: 503, message: 'The server is busy; try again in a moment.' } : again; // prettier-ignore
  }

  /** The design as text, at its newest or an earlier revision. @throws Refusal */
  async documentAt(id: string, revision?: number): Promise<{ text: string; row: DesignRow }> {
    const row = await rowOf(id);
    if (revision === undefined || revision === row.revision) {
      const stored = await DesignRow.findByPk(id, { attributes: ['document', 'documentRevision'] });
      if (stored?.documentRevision === row.revision) return { text: stored.document, row };
    } else if (revision > row.revision) throw new Refusal(404, 'There is no such state of the design.');
    const rows = revision === undefined ? [] : await between(id, revision, row.revision);
    const back = rows.length > 0 ? { back: rows.map((r) => r.touches!).reverse() } : {};
    const answer = await this.ask(row, { kind: 'document', ...back });
    if (answer.is !== 'text') throw refusalOf(answer);
    return { text: answer.text, row };
  }

  /** Is this picture of a part as the design is now? @throws Refusal when it is not */
  async checkPicture(id: string, part: string, key: string, data: Uint8Array): Promise<void> {
    const answer = await this.ask(await rowOf(id), { kind: 'picture', part, key, data });
    if (answer.is !== 'done') throw refusalOf(answer);
  }

  /** Changes after a revision, with what they did; null when there are too many. */
  async since(id: string, revision: number): Promise<readonly Told[] | null> {
    const row = await rowOf(id);
    if (row.revision - revision > MOST_MISSED || revision > row.revision) return null;
    return told(await between(id, revision, row.revision));
  }

  private writeLater(design: string): void {
    const own = this.unwritten.get(design) ?? { count: 0, timer: setTimeout(() => {}, 0) };
    clearTimeout(own.timer);
    const count = own.count + 1;
    const wait = count >= MOST_UNWRITTEN ? 0 : REST_MS;
    const timer = setTimeout(() => void this.writeState(design).catch(() => {}), wait);
    timer.unref();
    this.unwritten.set(design, { count: wait === 0 ? 0 : count, timer });
  }

  /** The log alone is the truth: should this not be written, opening takes a little longer. */
  private async writeState(design: string): Promise<void> {
    this.unwritten.delete(design);
    const { text, row } = await this.documentAt(design);
    await DesignRow.update(
      { document: text, documentRevision: row.revision },
      { where: { id: design, documentRevision: { [Op.lt]: row.revision } }, silent: true },
    );
  }

  /** Write what is still to be written, and end. */
  async stop(): Promise<void> {
    const designs = [...this.unwritten.keys()];
    for (const { timer } of this.unwritten.values()) clearTimeout(timer);
    await Promise.allSettled(designs.map((id) => this.writeState(id)));
  }
}

type Without<T> = T extends unknown ? Omit<T, 'design' | 'revision' | 'newest' | 'stored'> : never;
type AboutDesign = Without<Extract<Task, { design: string }>>;

const refusalOf = (answer: Answer): Refusal =>
  answer.is === 'refused' ? new Refusal(answer.status, answer.message) : new Refusal(500, 'The server met a fault of its own.'); // prettier-ignore

/** A design that is there, without its document. @throws Refusal 404 */
export async function rowOf(id: string, held?: Transaction): Promise<DesignRow> {
  const row = await DesignRow.findByPk(id, { attributes: { exclude: ['document'] }, ...within(held) });
  if (!row || row.id !== id || row.deletedAt) throw new Refusal(404, 'This design no longer exists.');
  return row;
}

/** The newest revisions of those designs that are there. */
export async function revisionsOf(ids: readonly string[]): Promise<ReadonlyMap<string, number>> {
  const rows = await DesignRow.findAll({ where: { id: [...ids], deletedAt: null }, attributes: ['id', 'revision'] });
  return new Map(rows.map((r) => [r.id, r.revision]));
}

const within = (held: Transaction | undefined) => (held ? { transaction: held } : {});

function between(designId: string, after: number, upTo: number, held?: Transaction): Promise<ChangeRow[]> {
  if (upTo <= after) return Promise.resolve([]);
  return ChangeRow.findAll({
    where: { designId, revision: { [Op.gt]: after, [Op.lte]: upTo } },
    order: ['revision'],
    ...within(held),
  });
}

async function storedOf(id: string, revision: number): Promise<Stored> {
  const row = await DesignRow.findByPk(id, { attributes: ['document', 'documentRevision'] });
  if (!row) throw new Refusal(404, 'This design no longer exists.');
  const since = await ChangeRow.findAll({
    where: { designId: id, revision: { [Op.gt]: row.documentRevision, [Op.lte]: revision } },
    order: ['revision'],
    attributes: ['touches'],
  });
  return { document: row.document, revision: row.documentRevision, touches: since.map((r) => r.touches!) };
}

type Names = ReadonlyMap<string, string | null>;

const loggedOf = (
  { label, author: by, touches, command, args }: ChangeRow,
  author: string,
  names: Names,
): LoggedRow => ({
  label,
  by: by === author ? 'You' : (by && names.get(by)) || 'Someone else',
  touches: touches ?? '[]',
  command,
  args,
});

function listedOf(row: ChangeRow, names: Names): Listed {
  const { revision, changeId: id, kind, target, label, author, named, createdAt } = row;
  return { revision, id, kind, ...(target === null ? {} : { of: target }), label, author: author ?? null, by: (author && names.get(author)) || null, named: named ?? null, at: createdAt.toISOString() }; // prettier-ignore
}

async function listed(rows: readonly ChangeRow[]): Promise<Listed[]> {
  const names = await namesOf(rows.map((r) => r.author));
  return rows.map((row) => listedOf(row, names));
}

async function told(rows: readonly ChangeRow[]): Promise<Told[]> {
  const names = await namesOf(rows.map((r) => r.author));
  return rows.map((row) => ({ ...listedOf(row, names), touches: JSON.parse(row.touches ?? '[]') as Touch[] }));
}

/** A page of the log, oldest first, that ends before a revision. */
export async function pageOfLog(designId: string, before?: number): Promise<{ log: Listed[]; more: boolean }> {
  const rows = await ChangeRow.findAll({
    where: { designId, ...(before === undefined ? {} : { revision: { [Op.lt]: before } }) },
    order: [['revision', 'DESC']],
    limit: PAGE + 1,
    attributes: [...LISTED],
  });
  return { log: await listed(rows.slice(0, PAGE).reverse()), more: rows.length > PAGE };
}

/** What a change did. @throws Refusal 404 */
export async function changeNamed(designId: string, changeId: string): Promise<Told> {
  const row = await ChangeRow.findOne({ where: { designId, changeId } });
  if (!row || row.changeId !== changeId) throw new Refusal(404, 'This change is not in the design’s history.');
  return (await told([row]))[0]!;
}
