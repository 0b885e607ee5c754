/** Reading a design's log: rows as they are kept, and as pages hear of them. */
import type { LoggedChange, Touch } from '@helb/core';
import { Op, type Transaction } from 'sequelize';
import { ChangeRow, DesignRow } from '../database/models.ts';
import { namesOf } from '../people/names.ts';
import { Refusal } from '../refusal.ts';
import type { Held, LoggedRow, Stored } from './desk.ts';

/** As much of a design as its changes need. */
export type DesignHead = Pick<DesignRow, 'id' | 'revision' | 'newest'>;

/** A change as it is kept. */
export type KeptChange = Pick<ChangeRow, 'revision' | 'changeId' | 'kind' | 'target' | 'command' | 'args' | 'label' | 'author' | 'touches' | 'named' | 'createdAt'>; // prettier-ignore

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

/** A page of a design's history. */
const PAGE = 300;
const LISTED = ['revision', 'changeId', 'kind', 'target', 'label', 'author', 'named', 'createdAt'] as const;

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

export function between(designId: string, after: number, upTo: number, held?: Transaction): Promise<ChangeRow[]> {
  if (upTo <= after) return Promise.resolve([]);
  return ChangeRow.findAll({
    where: { designId, revision: { [Op.gt]: after, [Op.lte]: upTo } },
    order: ['revision'],
    ...within(held),
  });
}

/** What was done to a design since a state of it; null where that state is none of the log, or long ago. */
export async function laterThan(designId: string, { revision, newest }: Held, upTo: number): Promise<Stored | null> {
  if (revision >= upTo || upTo - revision > PAGE) return null;
  const rows = await ChangeRow.findAll({
    where: { designId, revision: { [Op.gte]: revision, [Op.lte]: upTo } },
    order: ['revision'],
    attributes: ['revision', 'changeId', 'touches'],
  });
  const since = rows.filter((r) => r.revision > revision);
  const led = rows.find((r) => r.revision === revision)?.changeId ?? null;
  return led === newest && since.length === upTo - revision
    ? { revision, touches: since.map((r) => r.touches!) }
    : null;
}

export async function storedOf(id: string, revision: number): Promise<Stored> {
  const row = await DesignRow.findByPk(id, { attributes: ['document', 'documentRevision'] });
  if (!row) throw new Refusal(404, 'This design no longer exists.');
  const since = await ChangeRow.findAll({
    where: { designId: id, revision: { [Op.gt]: row.documentRevision, [Op.lte]: revision } },
    order: ['revision'],
    attributes: ['touches'],
  });
  return { document: row.document, revision: row.documentRevision, touches: since.map((r) => r.touches!) };
}

type ListedChange = Omit<KeptChange, 'touches' | 'command' | 'args'>;
export type Names = ReadonlyMap<string, string | null>;

export const loggedOf = (
  { label, author: by, touches, command, args }: KeptChange,
  author: string,
  names: Names,
): LoggedRow => ({
  label,
  by: by === author ? 'You' : (by && names.get(by)) || 'Someone else',
  touches: touches ?? '[]',
  command,
  args,
});

function listedOf(row: ListedChange, names: Names): Listed {
  const { revision, changeId: id, kind, target, label, author, named, createdAt } = row;
  return { revision, id, kind, ...(target === null ? {} : { of: target }), label, author: author ?? null, by: (author && names.get(author)) || null, named: named ?? null, at: createdAt.toISOString() }; // prettier-ignore
}

async function listed(rows: readonly ListedChange[]): Promise<Listed[]> {
  const names = await namesOf(rows.map((r) => r.author));
  return rows.map((row) => listedOf(row, names));
}

export async function told(rows: readonly KeptChange[]): Promise<Told[]> {
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
