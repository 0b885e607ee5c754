/** The log's way to the database where it has to be short: one round trip to read, one to write. */
import { createPool, type Pool, type PoolConnection, type ResultSetHeader } from 'mysql2/promise';
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

/** The row is written only where the statement before has led the design to this change. */
const APPEND = `SET TRANSACTION ISOLATION LEVEL READ COMMITTED;
START TRANSACTION;
UPDATE designs SET revision = ?, newest = ?, name = ?, firstPart = ?, updatedAt = ? WHERE id = ? AND revision = ? AND deletedAt IS NULL;
INSERT INTO changes (designId, revision, changeId, kind, target, command, args, label, author, digest, touches, createdAt)
  SELECT id, revision, newest, ?, ?, ?, ?, ?, ?, ?, ?, ? FROM designs WHERE id = ? AND revision = ? AND newest = ?;
COMMIT`;

/** Which of its statements writes the row. */
const INSERTED = 3;

const READ = `SELECT id, revision, newest FROM designs WHERE id = ? AND deletedAt IS NULL;
SELECT revision FROM changes WHERE designId = ? AND changeId = ?;
SELECT revision, changeId, kind, target, command, args, label, author, touches, named, createdAt
  FROM changes WHERE designId = ? AND revision > ? ORDER BY revision LIMIT ?`;

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

  constructor(url: string) {
    this.pool = createPool({
      uri: url.replace(/^mariadb:/, 'mysql:'),
      multipleStatements: true,
      connectionLimit: CONNECTIONS,
      timezone: 'Z',
    });
  }

  /** @param most changes to be read at most */
  async look(design: string, changeId: string, after: number, most: number): Promise<Look> {
    const [results] = await this.pool.query(READ, [design, design, changeId, design, after, most]);
    const [rows, known, later] = results as unknown as [DesignHead[], object[], KeptChange[]];
    const row = rows[0]?.id === design ? rows[0] : null;
    // Read after the design was: what came meanwhile belongs to a later state.
    return { row, known: known.length > 0, later: row ? later.filter((c) => c.revision <= row.revision) : [] };
  }

  /** @returns false when the design has another change in its place by now, has this one already, or is gone */
  async write(change: NewChange): Promise<boolean> {
    const { design: id, revision, changeId, createdAt: at, name, firstPart } = change;
    const { kind, target, command, args, label, author, digest, touches } = change;
    const connection = await this.pool.getConnection();
    try {
      const [results] = await connection.query(APPEND, [
        ...[revision, changeId, name, firstPart, at, id, revision - 1],
        ...[kind, target, command, args, label, author, digest, touches, at, id, revision, changeId],
      ]);
      connection.release();
      return (results as unknown as ResultSetHeader[])[INSERTED]!.affectedRows === 1;
    } catch (error) {
      await giveUp(connection);
      if ((error as { code?: string }).code === 'ER_DUP_ENTRY') return false;
      throw error;
    }
  }

  stop(): Promise<void> {
    return this.pool.end();
  }
}

/** What was begun is undone; a connection on which that cannot be is closed, which undoes it as well. */
async function giveUp(connection: PoolConnection): Promise<void> {
  try {
    await connection.query('ROLLBACK');
    connection.release();
  } catch {
    connection.destroy();
  }
}
