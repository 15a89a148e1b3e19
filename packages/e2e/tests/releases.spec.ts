import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { gunzipSync } from 'node:zlib';
import type { Page } from '@playwright/test';
import { expect, test, itemsOf } from './fixtures.js';

const RELEASES = resolve(import.meta.dirname, '../../../releases');
const unpacked = resolve(import.meta.dirname, '../../../node_modules/.cache/entretien/releases');

interface LoadingSkeleton {
  readonly id: string;
  readonly kind: string;
  readonly compressorId: string;
  readonly visitId?: string;
  readonly body: { readonly hours?: number; readonly kind?: string };
  readonly photo?: { readonly type: string; readonly base64: string };
}

interface Outbox {
  readonly version: number;
  readonly items: readonly LoadingSkeleton[];
}

/** The data folder that a release left behind. */
function dataOf(version: string): string {
  const folder = join(unpacked, version);
  mkdirSync(folder, { recursive: true });
  const packed = readFileSync(join(RELEASES, version, 'entretien.sqlite.gz'));
  writeFileSync(join(folder, 'entretien.sqlite'), gunzipSync(packed));
  return folder;
}

/** Puts on the device what a release left waiting there, in the stores as that release had them. */
async function leaveWaiting(page: Page, outbox: Outbox): Promise<void> {
  await page.goto('/mark.svg');
  await page.evaluate(async ({ version, items }) => {
    const opened = await new Promise<IDBDatabase>((done, fail) => {
      const asked = indexedDB.open('entretien', version);
      asked.onupgradeneeded = () => {
        asked.result.createObjectStore('items', { keyPath: 'id' });
        if (version >= 2)
          asked.result.createObjectStore('taken', { keyPath: 'id' }).createIndex('visit', 'visitId');
      };
      asked.onsuccess = () => done(asked.result);
      asked.onerror = () => fail(new Error('The store could not be made.'));
    });
    const store = opened.transaction('items', 'readwrite').objectStore('items');
    for (const { photo, ...item } of items) {
      const bytes = photo && Uint8Array.from(atob(photo.base64), (letter) => letter.charCodeAt(0));
      store.put(photo ? { ...item, photo: new Blob([bytes!], { type: photo.type }) } : item);
    }
    await new Promise((done) => (store.transaction.oncomplete = done));
    opened.close();
  }, outbox);
}

for (const version of readdirSync(RELEASES)) {
  test.describe(`release ${version}`, () => {
    test.use({ dataFrom: dataOf(version), ownContext: true });

    test('what it left waiting on a device arrives whole, once', async ({ page }) => {
      const outbox = JSON.parse(readFileSync(join(RELEASES, version, 'outbox.json'), 'utf8')) as Outbox;
      await leaveWaiting(page, outbox);
      await page.goto('/');
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await expect(page.getByRole('button', { name: /^Outbox/ })).toBeHidden();
      for (const { id, kind, compressorId, visitId } of outbox.items) {
        const places: Record<string, string> = {
          reading: `/compressors/${compressorId}/readings?limit=200`,
          'meter-change': `/compressors/${compressorId}/meter-changes`,
        };
        const place = places[kind];
        const ids = async () => {
          if (place !== undefined) return (await itemsOf<{ id: string }>(page, place)).map((one) => one.id);
          const seen = await page.request.get(`/api/visits/${visitId}`);
          const { units } = (await seen.json()) as {
            units: { steps: { id: string; details: { photo?: string } }[] }[];
          };
          return units.flatMap(({ steps }) => steps.flatMap((step) => [step.id, step.details.photo]));
        };
        await expect.poll(async () => (await ids()).filter((one) => one === id).length).toBe(1);
        if (kind !== 'photo') continue;
        const photo = await page.request.get(`/api/visits/${visitId}/photos/${id}`);
        expect(photo.headers()['content-type']).toBe('image/jpeg');
      }
    });
  });
}
