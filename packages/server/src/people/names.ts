/** Names of those who made changes. */
import { PersonRow } from './rows.ts';

/** A new name is seen everywhere after so long. */
const FRESH_MS = 10_000;
/** A browser does not become a person. */
const NOBODY_MS = 600_000;
const MOST = 5000;
export const LEFT = 'Someone who left';

const known = new Map<string, { readonly name: string | null; readonly at: number }>();

/** Name by author; null of a browser without an account. */
export async function namesOf(authors: Iterable<string | null>): Promise<ReadonlyMap<string, string | null>> {
  const now = Date.now();
  const asked = new Set([...authors].filter((a): a is string => a !== null));
  const missing = [...asked].filter((a) => {
    const found = known.get(a);
    return !found || now - found.at > (found.name === null ? NOBODY_MS : FRESH_MS);
  });
  if (missing.length > 0) {
    const rows = await PersonRow.findAll({ where: { id: missing }, attributes: ['id', 'name', 'leftAt'] });
    const found = new Map(rows.map((p) => [p.id, p.leftAt ? LEFT : p.name!]));
    if (known.size > MOST) known.clear();
    for (const id of missing) known.set(id, { name: found.get(id) ?? null, at: now });
  }
  return new Map([...asked].map((a) => [a, known.get(a)?.name ?? null]));
}

/** Somebody changed theirs, or left. */
export const forgetName = (person: string): boolean => known.delete(person);
