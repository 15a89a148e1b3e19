import { openDB } from 'idb';
import type { OutboxItem } from './outbox-item.js';
import { storedItems, storeItem, storeTaken, takenOf, forgetTaken, dropItem } from './outbox-store.js';

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

test('what an earlier release left says what it said', async () => {
  await storeItem({ ...waiting('old'), words: 'Note: key at the gate' } as unknown as OutboxItem);
  const old = (await storedItems()).find(({ id }) => id === 'old')!;
  expect(old.text).toBe('Note: key at the gate');
  expect(old).not.toHaveProperty('words');
});

test('an id is kept once, in its last state, and can be dropped', async () => {
  await storeItem(waiting('one'));
  await storeItem({ ...waiting('one'), tries: 3 });
  const found = (await storedItems()).filter(({ id }) => id === 'one');
  expect(found).toMatchObject([{ tries: 3 }]);
  await dropItem('one');
  await dropItem('never was');
  expect((await storedItems()).some(({ id }) => id === 'one')).toBe(false);
});

test('steps that the server has are kept by visit until the visit shows them', async () => {
  const step = (id: string, visitId: string) => ({ id, visitId }) as never;
  await storeTaken(step('s1', 'v1'));
  await storeTaken(step('s2', 'v1'));
  await storeTaken(step('s3', 'v2'));
  await forgetTaken(['s1', 'nobody']);
  expect((await takenOf('v1')).map(({ id }) => id)).toEqual(['s2']);
  expect((await takenOf('v2')).map(({ id }) => id)).toEqual(['s3']);
});

test('a database that the browser has closed is opened again by what is saved next', async () => {
  await storeItem(waiting('kept'));
  // Another page asks for the store to be gone; this one lets go of it.
  const gone = indexedDB.deleteDatabase('entretien');
  await new Promise((done) => (gone.onsuccess = done));
  await storeItem(waiting('after that'));
  expect((await storedItems()).map(({ id }) => id)).toEqual(['after that']);
});
