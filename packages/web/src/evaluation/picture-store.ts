/** Evaluated parts kept in the browser by content, so that a design reopens at once. */
import { pictureKey, type Design, type Ledger, type PartView } from '@helb/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

interface Store extends DBSchema {
  pictures: { key: string; value: { view: PartView; at: number }; indexes: { at: number } };
}

const MOST_KEPT = 200;
let opened: Promise<IDBPDatabase<Store>> | null = null;
function database(): Promise<IDBPDatabase<Store>> {
  opened ??= openDB<Store>('helb-pictures', 1, {
    upgrade(db) {
      db.createObjectStore('pictures').createIndex('at', 'at');
    },
  });
  return opened;
}

/** Storage that is full or forbidden only costs time, so its faults are not shown. */
export async function recallPart(design: Design, ledger: Ledger, part: string): Promise<PartView | null> {
  try {
    return (await (await database()).get('pictures', pictureKey(design, ledger, part)))?.view ?? null;
  } catch {
    return null;
  }
}

export async function rememberPart(design: Design, ledger: Ledger, part: string, view: PartView): Promise<void> {
  try {
    const db = await database();
    await db.put('pictures', { view, at: Date.now() }, pictureKey(design, ledger, part));
    const count = await db.count('pictures');
    if (count <= MOST_KEPT) return;
    const tx = db.transaction('pictures', 'readwrite');
    let surplus = count - MOST_KEPT;
    for (
      let cursor = await tx.store.index('at').openCursor();
      cursor && surplus > 0;
      cursor = await cursor.continue(), surplus--
    )
      await cursor.delete();
    await tx.done;
  } catch {
    // See recallPart.
  }
}
