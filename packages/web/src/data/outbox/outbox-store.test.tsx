import { openDB } from 'idb';
import type { OutboxItem } from './outbox-item.js';
import { storedItems, storeItem } from './outbox-store.js';

const waiting = (id: string) =>
  ({ id, kind: 'reading', queuedAt: 1, body: {}, problem: null }) as unknown as OutboxItem;

test('after another page has brought the store forward, this one goes on saving and reading', async () => {
  await storeItem(waiting('before'));
  const newer = await openDB('entretien', 7, { upgrade: (db) => void db.createObjectStore('more') });
  await storeItem(waiting('after'));
  expect((await storedItems()).map(({ id }) => id).sort()).toEqual(['after', 'before']);
  newer.close();
  await storeItem(waiting('later'));
  expect(await storedItems()).toHaveLength(3);
});
