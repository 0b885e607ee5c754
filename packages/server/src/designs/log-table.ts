/** The log's way to the database where it has to be short: one round trip to read, one to write. */
import { createPool, type Connection, type Pool, type PoolConnection, type ResultSetHeader } from 'mysql2';
import { gathered } from '../gathered.ts';
import type { DesignHead, KeptChange } from './log-rows.ts';

export interface NewChange {
  readonly design: string;
  /** The revision it leads to. */
  readonly revision: number;
  readonly changeId: string;
  readonly kind: string;
  readonly target: string | null;
  readonly command: string;
  readonly args: string | null;
  readonly label: string;
  readonly author: string;
  readonly digest: string;
  readonly touches: string;
  readonly createdAt: Date;
  /** Of the design after it. */
  readonly name: string;
  readonly firstPart: string | null;
}

const CONNECTIONS = 8;

/** So many looks or changes go together at most. */
const TOGETHER = 24;
/** What is larger, and what is further behind, goes by itself. */
const MOST_CHARS = 64 * 1024;
const NEAR = 100;

/** The row is written only where the statement before has led the design to this change. */
const APPEND = `UPDATE designs SET revision = ?, newest = ?, name = ?, firstPart = ?, updatedAt = ? WHERE id = ? AND revision = ? AND deletedAt IS NULL;
INSERT INTO changes (designId, revision, changeId, kind, target, command, args, label, author, digest, touches, createdAt)
  SELECT id, revision, newest, ?, ?, ?, ?, ?, ?, ?, ?, ? FROM designs WHERE id = ? AND revision = ? AND newest = ?;
`;
/** Of the statements before the first change, and of each change; the last of the latter writes the row. */
const [BEGUN, EACH] = [1, 2];

const COLUMNS = 'revision, changeId, kind, target, command, args, label, author, touches, named, createdAt';
const READ = `SELECT id, revision, newest FROM designs WHERE id = ? AND deletedAt IS NULL;
SELECT revision FROM changes WHERE designId = ? AND changeId = ?;
SELECT ${COLUMNS} FROM changes WHERE designId = ? AND revision > ? ORDER BY revision LIMIT ?;
`;
const READS = 3;

interface Wanted {
  readonly design: string;
  readonly changeId: string;
  readonly after: number;
  readonly most: number;
}

/** So many changes of all designs are heard of at once, with what they did. */
const HEARD = 1000;

/** What is to be known of a design before it is changed. */
export interface Look {
  /** Null when it is not there. */
  readonly row: DesignHead | null;
  /** The change is in its log already. */
  readonly known: boolean;
  /** All changes after the revision asked for, up to the present. */
  readonly later: readonly KeptChange[];
}

export class LogTable {
  private readonly pool: Pool;
  private readonly looks = gathered(TOGETHER, (all: readonly Wanted[]) => this.lookAll(all));
  private readonly writes = gathered(TOGETHER, (all: readonly NewChange[]) => this.writeAll(all));

  constructor(url: string) {
    this.pool = createPool({
      uri: url.replace(/^mariadb:/, 'mysql:'),
      multipleStatements: true,
      connectionLimit: CONNECTIONS,
      timezone: 'Z',
    });
    this.pool.on('connection', (own) => own.query('SET SESSION TRANSACTION ISOLATION LEVEL READ COMMITTED'));
  }

  /** @param most changes to be read at most */
  async look(design: string, changeId: string, after: number, most: number): Promise<Look> {
    const wanted = { design, changeId, after, most: Math.min(most, NEAR) };
    const look = await this.looks(wanted);
    const isWhole = !look.row || most <= NEAR || look.row.revision - after <= NEAR;
    return isWhole ? look : (await this.lookAll([{ ...wanted, most }]))[0]!;
  }

  /**
   * What was done to designs since, as others may have changed them.
   * @param since a revision of each
   * @returns of some of them: changes after it, oldest first and without a gap, though there may be more
   */
  async later(since: ReadonlyMap<string, number>): Promise<ReadonlyMap<string, readonly KeptChange[]>> {
    const which = [...since].map(() => '(designId = ? AND revision > ?)').join(' OR ');
    const rows = await asked(
      this.pool,
      `SELECT designId, ${COLUMNS} FROM changes WHERE ${which} ORDER BY designId, revision LIMIT ${HEARD}`,
      [...since].flat(),
    );
    const all = new Map<string, KeptChange[]>();
    for (const { designId, ...change } of rows as (KeptChange & { designId: string })[]) {
      const own = all.get(designId);
      if (own) own.push(change);
      else all.set(designId, [change]);
    }
    return all;
  }

  private async lookAll(all: readonly Wanted[]): Promise<Look[]> {
    const values = all.flatMap(({ design, changeId, after, most }) => [design, design, changeId, design, after, most]);
    const results = await asked(this.pool, READ.repeat(all.length), values);
    return all.map(({ design }, i) => {
      const [rows, known, later] = (results as unknown[]).slice(READS * i, READS * (i + 1)) as [DesignHead[], object[], KeptChange[]]; // prettier-ignore
      const row = rows[0]?.id === design ? rows[0] : null;
      // Read after the design was: what came meanwhile belongs to a later state.
      return { row, known: known.length > 0, later: row ? later.filter((c) => c.revision <= row.revision) : [] };
    });
  }

  /**
   * @param isDisputed other servers are changing the design: waiting for them should hold up nobody else
   * @returns false when the design has another change in its place by now, has this one already, or is gone
   */
  async write(change: NewChange, isDisputed = false): Promise<boolean> {
    const chars = change.touches.length + (change.args?.length ?? 0);
    if (!isDisputed && chars < MOST_CHARS) return this.writes(change);
    return (await this.writeAll([change]))[0]!;
  }

  /** In one transaction; where it cannot be, one after another, as one may stand in the way of the others. */
  private async writeAll(all: readonly NewChange[]): Promise<boolean[]> {
    // All servers take designs in one order, so that none waits for another in a circle.
    const order = all.map((_, i) => i).sort((a, b) => (all[a]!.design < all[b]!.design ? -1 : 1));
    const connection = await new Promise<PoolConnection>((done, failed) => this.pool.getConnection((error, own) => (error ? failed(error) : done(own)))); // prettier-ignore
    try {
      const values = order.flatMap((i) => valuesOf(all[i]!));
      const results = await asked(connection, `START TRANSACTION;\n${APPEND.repeat(all.length)}COMMIT`, values);
      connection.release();
      const written = new Array<boolean>(all.length);
      order.forEach((i, n) => (written[i] = (results as unknown as ResultSetHeader[])[BEGUN + EACH * n + EACH - 1]!.affectedRows === 1)); // prettier-ignore
      return written;
    } catch (error) {
      await giveUp(connection);
      if (!IN_THE_WAY.has((error as { code?: string }).code ?? '')) throw error;
      if (all.length === 1) return [false];
    }
    const written: boolean[] = [];
    for (const change of all) written.push(...(await this.writeAll([change])));
    return written;
  }

  stop(): Promise<void> {
    return new Promise((done) => this.pool.end(() => done()));
  }
}

/** The package's own promises gather where each was asked for, which costs more than asking. */
const asked = (on: Pick<Connection, 'query'>, sql: string, values: unknown[]): Promise<unknown> =>
  new Promise((done, failed) => on.query(sql, values, (error, results) => (error ? failed(error) : done(results))));

/** A change that is in the log already, or held up by what other servers write. */
const IN_THE_WAY: ReadonlySet<string> = new Set(['ER_DUP_ENTRY', 'ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT']);

function valuesOf(change: NewChange): unknown[] {
  const { design: id, revision, changeId, createdAt: at, name, firstPart } = change;
  const { kind, target, command, args, label, author, digest, touches } = change;
  return [
    ...[revision, changeId, name, firstPart, at, id, revision - 1],
    ...[kind, target, command, args, label, author, digest, touches, at, id, revision, changeId],
  ];
}

/** What was begun is undone; a connection on which that cannot be is closed, which undoes it as well. */
async function giveUp(connection: PoolConnection): Promise<void> {
  try {
    await asked(connection, 'ROLLBACK', []);
    connection.release();
  } catch {
    connection.destroy();
  }
}
