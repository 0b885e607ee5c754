/** A design's log: the truth. Changes are appended to it, and what a design is follows from it. */
import { Op, type Sequelize, type Transaction } from 'sequelize';
import { atMost } from '../at-most.ts';
import { ChangeRow, DesignRow } from '../database/models.ts';
import type { Live } from '../live/live.ts';
import { namesOf } from '../people/names.ts';
import { Refusal } from '../refusal.ts';
import { headOf, type Answer, type Head, type Task, type Worked } from './desk.ts';
import type { Desks } from './desk-threads.ts';
import { between, laterThan, loggedOf, rowOf, storedOf, told, type DesignHead, type KeptChange, type Told } from './log-rows.ts'; // prettier-ignore
import type { LogTable, Look } from './log-table.ts';
import { Recent } from './recent.ts';

export interface Acknowledged {
  /** The design's revision after this change. */
  readonly revision: number;
  /** The change as it was kept; null when it changed nothing and was not. */
  readonly kept: Told | null;
  /** Changes by others between the sender's revision and this one, oldest first. */
  readonly missed: readonly Told[];
}

/** Who was away for longer than so many changes opens the design anew. */
const MOST_MISSED = 5000;
/** Longer texts are read on a desk, not where requests are answered. */
const SHORT_TEXT = 64 * 1024;
/** A state is written this long after a change, or after so many. */
const REST_MS = 3000;
const MOST_UNWRITTEN = 100;

/** Trying again costs less than to keep the others out; after so many times they are. */
const MOST_TRIES = 8;
/** So many designs are held at once, of the connections there are. */
const MOST_HELD = 6;

export class ChangeLog {
  /** Of each design, the change being appended now. */
  private readonly turns = new Map<string, Promise<unknown>>();
  private readonly unwritten = new Map<string, { count: number; timer: NodeJS.Timeout }>();
  private readonly recent = new Recent();
  /** Each holds a connection while it needs others: were they to take all there are, none would get on. */
  private readonly inTurn = atMost(MOST_HELD);

  constructor(
    private readonly sequelize: Sequelize,
    private readonly desks: Desks,
    private readonly live: Live,
    private readonly table: LogTable,
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
    const inTurn = (attempt: () => Promise<Attempted | null>) => this.desks.turn(design, attempt);
    let done = await inTurn(() => this.attemptByMemory(design, author, head, text));
    // Another server may be quicker, a few times over.
    for (let i = 0; i < MOST_TRIES && !done; i++)
      done = await inTurn(() => this.attempt(design, author, head, text, i > 0));
    done ??= await this.attemptHeld(design, author, head, text);
    if (!done) throw new Refusal(503, 'Too many change this design at once; try again in a moment.');
    if (done.kept && done.isNew) {
      this.live.changed(design, done.kept);
      this.writeLater(design);
    }
    return { revision: done.revision, kept: done.kept, missed: done.missed };
  }

  /**
   * Without asking the database first: what was seen of the design last is taken for its newest, and writing tells
   * whether it was. Nothing is refused by it.
   * @returns null when it has to be asked
   */
  private async attemptByMemory(design: string, author: string, head: Head, text: string): Promise<Attempted | null> {
    if (head.of !== undefined || head.to !== undefined) return null;
    const known = this.recent.guess(design, head.base);
    if (!known || known.missed.some((c) => c.changeId === head.id)) return null;
    try {
      const worked = await this.work(known.row, author, head, text, known.missed);
      const kept = worked.idle ? null : await this.write(known.row, author, head, worked);
      if (kept) return { revision: kept.revision, missed: await told(known.missed), kept, isNew: true };
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
    }
    this.recent.doubt(design);
    return null;
  }

  /**
   * @param isDisputed another server was quicker before
   * @param held holds the design for this change alone
   * @returns null when another server changed the design meanwhile
   */
  private async attempt(
    design: string,
    author: string,
    head: Head,
    text: string,
    isDisputed: boolean,
    held?: Transaction,
  ): Promise<Attempted | null> {
    const after = this.recent.readFrom(design, head.base);
    const before = this.recent.after(design, head.base) ?? [];
    const { row, known, later } = held ? await lookHeld(design, head.id, after, held) : await this.table.look(design, head.id, after, MOST_MISSED + 1); // prettier-ignore
    if (!row) throw new Refusal(404, 'This design no longer exists.');
    if (known) return { ...(await this.again(design, head)), isNew: false };
    if (head.base > row.revision)
      throw new Refusal(
        409,
        `This change was made on revision ${head.base}, which the server does not have (it has ${row.revision}); reload the design.`,
      );
    if (row.revision - head.base > MOST_MISSED)
      throw new Refusal(409, 'Too much was changed since; open the design anew and make this again.');
    const missed = [...before, ...later].filter((c) => c.revision > head.base && c.revision <= row.revision);
    if (missed.length !== row.revision - head.base)
      throw new Refusal(503, 'The server is busy; try again in a moment.');
    this.recent.saw(row, after, later);
    const worked = await this.work(row, author, head, text, missed);
    const base = { revision: row.revision, missed: await told(missed) };
    if (worked.idle) return { ...base, kept: null, isNew: false };
    const kept = held ? await this.writeHeld(row, author, head, worked, held) : await this.write(row, author, head, worked, isDisputed); // prettier-ignore
    return kept && { ...base, revision: kept.revision, kept, isNew: true };
  }

  /** Sent again because the answer was lost; it is kept already. */
  private async again(design: string, head: Head): Promise<Acknowledged> {
    const known = (await ChangeRow.findOne({ where: { designId: design, changeId: head.id } }))!;
    if (known.changeId !== head.id || (known.digest !== null && known.digest !== head.digest))
      throw new Refusal(409, 'Another change has this id already; reload the page and make it again.');
    const missed = await between(design, head.base, known.revision - 1);
    const [kept] = await told([known]);
    return { revision: known.revision, kept: kept!, missed: await told(missed) };
  }

  /** In one's turn among servers: nobody else changes the design meanwhile. */
  private attemptHeld(design: string, author: string, head: Head, text: string): Promise<Attempted | null> {
    return this.inTurn(() =>
      this.sequelize.transaction(async (held) => {
        await DesignRow.findByPk(design, { attributes: ['id'], transaction: held, lock: held.LOCK.UPDATE });
        return this.attempt(design, author, head, text, true, held);
      }),
    );
  }

  private async work(
    row: DesignHead,
    author: string,
    head: Head,
    text: string,
    missed: readonly KeptChange[],
  ): Promise<Worked> {
    const of = head.of === undefined ? null : await this.earlier(row.id, author, head.of);
    const own = new Set(head.own);
    const others = missed.filter((r) => r.author !== author || !own.has(r.changeId));
    const since: readonly KeptChange[] = of ? await between(row.id, of.revision, row.revision) : others;
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
  private async write(
    row: DesignHead,
    author: string,
    head: Head,
    worked: Worked,
    isDisputed = false,
  ): Promise<Told | null> {
    const made = changeOf(row, author, head, worked);
    const { name, firstPart } = worked;
    if (!(await this.table.write({ ...made, design: row.id, name, firstPart }, isDisputed))) return null;
    this.recent.wrote(row, made);
    return (await told([made]))[0]!;
  }

  /** The same within a transaction that holds the design. */
  private async writeHeld(
    row: DesignHead,
    author: string,
    head: Head,
    worked: Worked,
    transaction: Transaction,
  ): Promise<Told | null> {
    const made = changeOf(row, author, head, worked);
    const { revision, changeId: newest } = made;
    const [taken] = await DesignRow.update(
      { revision, newest, name: worked.name, firstPart: worked.firstPart },
      { where: { id: row.id, revision: row.revision, deletedAt: null }, transaction },
    );
    if (taken === 0) return null;
    await ChangeRow.create({ ...made, designId: row.id }, { transaction });
    return (await told([made]))[0]!;
  }

  /** Ask a desk, and send the design along when the desk does not hold it. */
  private async ask(row: DesignHead, task: AboutDesign): Promise<Answer> {
    const of = { design: row.id, revision: row.revision, newest: row.newest };
    const most = this.recent.lacking(row);
    let answer = await this.desks.do({ ...task, ...of, ...(most ? { stored: most } : {}) });
    // Most often it lacks a few changes only; what it holds may be put away meanwhile.
    const lacking = answer.is === 'wanting' && answer.holds ? await laterThan(row.id, answer.holds, row.revision) : null; // prettier-ignore
    if (lacking) answer = await this.desks.do({ ...task, ...of, stored: lacking });
    if (answer.is === 'wanting')
      answer = await this.desks.do({ ...task, ...of, stored: await storedOf(row.id, row.revision) });
    this.recent.asked(row);
    return answer.is === 'wanting' ? { is: 'refused', status: 503, message: 'The server is busy; try again in a moment.' } : answer; // prettier-ignore
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

  /** Changes of many designs after a revision of each, for those who listen; where there are many, the first of them. */
  async later(since: ReadonlyMap<string, number>): Promise<ReadonlyMap<string, readonly Told[]>> {
    const all = await this.table.later(since);
    for (const [design, changes] of all) this.recent.heard(design, changes);
    return new Map(await Promise.all([...all].map(async ([id, changes]) => [id, await told(changes)] as const)));
  }

  /** Changes after a revision, with what they did; null when there are too many. */
  async since(id: string, revision: number): Promise<readonly Told[] | null> {
    const row = await rowOf(id);
    if (row.revision - revision > MOST_MISSED || revision > row.revision) return null;
    return told(await between(id, revision, row.revision));
  }

  /** Give a state a name, or take it away. @throws Refusal 404 */
  async name(id: string, revision: number, name: string | null): Promise<void> {
    const { id: designId } = await rowOf(id);
    const [named] = await ChangeRow.update({ named: name }, { where: { designId, revision } });
    // Of a name it bore before, nothing is updated.
    if (named === 0 && !(await ChangeRow.count({ where: { designId, revision } })))
      throw new Refusal(404, 'There is no such state of the design.');
    this.live.named(id, revision, name);
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

/** Within a transaction that holds the design. */
async function lookHeld(design: string, changeId: string, after: number, held: Transaction): Promise<Look> {
  const row = await rowOf(design, held);
  const known = await ChangeRow.count({ where: { designId: design, changeId }, transaction: held });
  return { row, known: known > 0, later: await between(design, after, row.revision, held) };
}

type Attempted = Acknowledged & { readonly isNew: boolean };
const changeOf = (row: DesignHead, author: string, head: Head, worked: Worked) => ({
  revision: row.revision + 1,
  changeId: head.id,
  kind: head.kind,
  target: head.of ?? null,
  command: worked.command,
  args: worked.args,
  label: worked.label,
  author,
  digest: head.digest,
  touches: worked.touches,
  named: null,
  createdAt: new Date(),
});

type Without<T> = T extends unknown ? Omit<T, 'design' | 'revision' | 'newest' | 'stored'> : never;
type AboutDesign = Without<Extract<Task, { design: string }>>;

const refusalOf = (answer: Answer): Refusal =>
  answer.is === 'refused' ? new Refusal(answer.status, answer.message) : new Refusal(500, 'The server met a fault of its own.'); // prettier-ignore
