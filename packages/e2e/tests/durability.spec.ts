import { randomUUID } from 'node:crypto';
import { FreshServer } from '../fresh-server.js';
import { dateAgo, daysAgo, expect, test } from './fixtures.js';

const KILLS = 5;

test('a server killed while readings come in has lost none that it acknowledged', async ({
  request,
}, info) => {
  test.setTimeout(120_000);
  const server = await FreshServer.start();
  const send = (path: string, data: object) => request.post(`${server.url}/api${path}`, { data });
  const siteId = randomUUID();
  const unit = randomUUID();
  await send('/sites', { id: siteId, name: `Site ${info.project.name}` });
  await send('/compressors', {
    id: unit,
    siteId,
    tag: 'KILL-1',
    family: 'screw',
    commissionedOn: dateAgo(300),
  });
  const acknowledged: string[] = [];
  let hours = 0;
  for (let kill = 0; kill < KILLS; kill++) {
    const enough = acknowledged.length + 12 + kill * 5;
    let isDown = false;
    const writing = (async () => {
      while (!isDown) {
        const id = randomUUID();
        hours += 0.1;
        const reading = { id, takenAt: daysAgo(200 - hours), hours, counts: 'total', source: 'typed' };
        const answer = await send(`/compressors/${unit}/readings`, reading).catch(() => null);
        if (answer?.status() === 201) acknowledged.push(id);
        if (acknowledged.length >= enough) isDown = true;
      }
    })();
    await expect.poll(() => acknowledged.length).toBeGreaterThanOrEqual(enough - 6);
    await server.kill();
    isDown = true;
    await writing;
    await server.restart();
    const { items } = (await (
      await request.get(`${server.url}/api/compressors/${unit}/readings?limit=200`)
    ).json()) as { items: { id: string }[] };
    const stored = new Set(items.map((item) => item.id));
    expect(acknowledged.filter((id) => !stored.has(id))).toEqual([]);
  }
  expect(acknowledged.length).toBeGreaterThan(60);
  await server.stop();
});
