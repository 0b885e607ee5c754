/** Changes not yet acknowledged, kept in the browser so that a closed tab loses nothing. */
import type { Change } from '@helb/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

interface Store extends DBSchema {
  pending: { key: number; value: { design: string; change: Change }; indexes: { design: string } };
}

let opened: Promise<IDBPDatabase<Store>> | null = null;

function database(): Promise<IDBPDatabase<Store>> {
  opened ??= openDB<Store>('helb-outbox', 1, {
    upgrade(db) {
      db.createObjectStore('pending', { autoIncrement: true }).createIndex('design', 'design');
    },
  });
  return opened;
}

export const outbox = {
  async add(design: string, change: Change): Promise<void> {
    await (await database()).add('pending', { design, change });
  },
  /** Waiting changes of a design, oldest first. */
  async of(design: string): Promise<Change[]> {
    const rows = await (await database()).getAllFromIndex('pending', 'design', design);
    return rows.map((r) => r.change);
  },
  async remove(design: string, changeId: string): Promise<void> {
    const tx = (await database()).transaction('pending', 'readwrite');
    for (let cursor = await tx.store.index('design').openCursor(design); cursor; cursor = await cursor.continue()) {
      if (cursor.value.change.id === changeId) await cursor.delete();
    }
    await tx.done;
  },
};
