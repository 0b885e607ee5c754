/** Evaluated parts kept in the browser by content, so that a design reopens at once. */
import { hashText, type Design, type Ledger } from '@helb/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { PartView } from './views.ts';

interface Store extends DBSchema {
  pictures: { key: string; value: { view: PartView; at: number }; indexes: { at: number } };
}

const MOST_KEPT = 200;
/** Part of every key: raise when the meaning of a stored view changes. */
const GENERATION = 1;

let opened: Promise<IDBPDatabase<Store>> | null = null;
function database(): Promise<IDBPDatabase<Store>> {
  opened ??= openDB<Store>('helb-pictures', 1, {
    upgrade(db) {
      db.createObjectStore('pictures').createIndex('at', 'at');
    },
  });
  return opened;
}

/** All a part's evaluation depends on: its recipe, and the values of its numbers. */
function keyOf(design: Design, ledger: Ledger, part: string): string {
  const numbers = ledger.entries
    .filter((e) => 'step' in e.owner && e.owner.part === part)
    .map((e) => {
      const value = ledger.valueOfEntry(e);
      return value.ok ? value.quantity.value : value.message;
    });
  return hashText(JSON.stringify([GENERATION, part, design.parts[part], numbers]));
}

/** Storage that is full or forbidden only costs time, so its faults are not shown. */
export async function recallPart(design: Design, ledger: Ledger, part: string): Promise<PartView | null> {
  try {
    return (await (await database()).get('pictures', keyOf(design, ledger, part)))?.view ?? null;
  } catch {
    return null;
  }
}

export async function rememberPart(design: Design, ledger: Ledger, part: string, view: PartView): Promise<void> {
  try {
    const db = await database();
    await db.put('pictures', { view, at: Date.now() }, keyOf(design, ledger, part));
    const count = await db.count('pictures');
    if (count <= MOST_KEPT) return;
    const tx = db.transaction('pictures', 'readwrite');
    let surplus = count - MOST_KEPT;
    for (let cursor = await tx.store.index('at').openCursor(); cursor && surplus > 0; cursor = await cursor.continue(), surplus--) await cursor.delete();
    await tx.done;
  } catch {
    // See recallPart.
  }
}
