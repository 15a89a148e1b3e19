import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { OutboxItem } from './outbox-item.js';

interface OutboxSchema extends DBSchema {
  items: { key: string; value: OutboxItem };
}

let opened: Promise<IDBPDatabase<OutboxSchema>> | null = null;

/** The outbox on the device: it outlives a reload, a closed page and a flat battery. */
function database(): Promise<IDBPDatabase<OutboxSchema>> {
  opened ??= openDB<OutboxSchema>('entretien', 1, {
    upgrade: (db) => void db.createObjectStore('items', { keyPath: 'id' }),
  });
  return opened;
}

export async function storedItems(): Promise<OutboxItem[]> {
  return (await database()).getAll('items');
}

export async function storeItem(item: OutboxItem): Promise<void> {
  await (await database()).put('items', item);
}

export async function dropItem(id: string): Promise<void> {
  await (await database()).delete('items', id);
}
