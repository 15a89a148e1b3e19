import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { VisitStepView } from '@entretien/contracts';
import type { OutboxItem } from './outbox-item.js';

interface OutboxSchema extends DBSchema {
  items: { key: string; value: OutboxItem };
  /** Steps that the server has, and that the visit kept on this device may not show yet. */
  taken: { key: string; value: VisitStepView; indexes: { visit: string } };
}

let opened: Promise<IDBPDatabase<OutboxSchema>> | null = null;

const NAME = 'entretien';
const VERSION = 2;

/** The outbox on the device: it outlives a reload, a closed page and a flat battery. */
function database(): Promise<IDBPDatabase<OutboxSchema>> {
  opened ??= open().catch((error: unknown) => {
    opened = null;
    throw error;
  });
  return opened;
}

async function open(): Promise<IDBPDatabase<OutboxSchema>> {
  const forget = () => (opened = null);
  // Another page with newer code must not wait for this one; what this page saves next opens it again.
  const blocking = (_from: number, _to: number | null, event: IDBVersionChangeEvent) => {
    (event.target as IDBDatabase).close();
    forget();
  };
  try {
    return await openDB<OutboxSchema>(NAME, VERSION, {
      upgrade: (db, from) => {
        if (from < 1) db.createObjectStore('items', { keyPath: 'id' });
        if (from < 2) db.createObjectStore('taken', { keyPath: 'id' }).createIndex('visit', 'visitId');
      },
      blocking,
      terminated: forget,
    });
  } catch (error) {
    if ((error as DOMException).name !== 'VersionError') throw error;
    // Newer code has brought it forward: what this page knows of it is still there.
    return await openDB<OutboxSchema>(NAME, undefined, { blocking, terminated: forget });
  }
}

export async function storedItems(): Promise<OutboxItem[]> {
  const items = await (await database()).getAll('items');
  return items.map(readItem);
}

/** Up to release 0.3 what an item says stood under another name. */
function readItem({ words, ...item }: OutboxItem & { readonly words?: string }): OutboxItem {
  return words === undefined ? item : { text: words, ...item };
}

export async function storeItem(item: OutboxItem): Promise<void> {
  await (await database()).put('items', item);
}

export async function dropItem(id: string): Promise<void> {
  await (await database()).delete('items', id);
}

export async function storeTaken(step: VisitStepView): Promise<void> {
  await (await database()).put('taken', step);
}

export async function takenOf(visitId: string): Promise<VisitStepView[]> {
  return (await database()).getAllFromIndex('taken', 'visit', visitId);
}

/** The visit as it came from the server shows these by itself now. */
export async function forgetTaken(ids: readonly string[]): Promise<void> {
  const transaction = (await database()).transaction('taken', 'readwrite');
  await Promise.all([...ids.map((id) => transaction.store.delete(id)), transaction.done]);
}
