/** Changes not yet acknowledged, kept in the browser so that a closed tab loses nothing. */
import { Change } from '@helb/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Waiting } from './waiting.ts';

type Row = { readonly design: string } & Waiting;

interface Store extends DBSchema {
  pending: { key: number; value: Row; indexes: { design: string } };
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
  async add(design: string, waiting: Waiting): Promise<void> {
    await (await database()).add('pending', { design, ...waiting });
  },
  /** Waiting changes of a design, oldest first; and how many there are that an earlier version left and none can read. */
  async of(design: string): Promise<{ readonly waiting: Waiting[]; readonly unreadable: number }> {
    const rows = await (await database()).getAllFromIndex('pending', 'design', design);
    const waiting = rows.filter((r) => Change.safeParse(r.change).success);
    return {
      waiting: waiting.map(({ change, base, own, label, of, by }) => ({ change, base, own, label, ...(of ? { of } : {}), ...(by ? { by } : {}) })), // prettier-ignore
      unreadable: rows.length - waiting.length,
    };
  },
  async remove(design: string, changeId: string): Promise<void> {
    const tx = (await database()).transaction('pending', 'readwrite');
    for (let cursor = await tx.store.index('design').openCursor(design); cursor; cursor = await cursor.continue()) {
      if (cursor.value.change.id === changeId) await cursor.delete();
    }
    await tx.done;
  },
};
