import { randomUUID } from 'node:crypto';
import { expectStatus, TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const notes = async (unit: string) => (await server.read(`/api/compressors/${unit}/model-notes`)).body;
const tell = (unit: string, more: object = {}) =>
  server.post(`/api/compressors/${unit}/model-notes`, {
    id: randomUUID(),
    about: 'trick',
    text: 'The drain plug turns with a 17 mm socket from below.',
    ...more,
  });

test('what is told at one machine is shown at all its sisters, however the plate was typed, and at no other', async () => {
  const one = await server.addCompressor({ tag: 'BR-1', maker: 'Brimvarg', model: 'K 250-S' });
  const sister = await server.addCompressor({ tag: 'BR-2', maker: 'brimvarg ', model: 'K250/S' });
  const stranger = await server.addCompressor({ tag: 'BR-3', maker: 'Brimvarg', model: 'K 260' });
  const told = await tell(one);
  expect(told).toMatchObject({ status: 201, body: { tag: 'BR-1', about: 'trick' } });
  expectStatus(201, await tell(sister, { about: 'fits', text: 'Intake element of the K 300 fits.' }));
  expect((await notes(sister)).map(({ tag, about }: { tag: string; about: string }) => [tag, about])).toEqual(
    [
      ['BR-2', 'fits'],
      ['BR-1', 'trick'],
    ],
  );
  expect(await notes(one)).toHaveLength(2);
  expect(await notes(stranger)).toEqual([]);
  const { body: logbook } = await server.read(`/api/logbook?compressorId=${one}`);
  expect(JSON.stringify(logbook)).toContain('Of this model. What helps: The drain plug');
  const away = { id: randomUUID(), reason: 'Of another model' };
  const path = `/api/compressors/${one}/model-notes/${told.body.id}/withdrawal`;
  expectStatus(201, await server.post(path, away));
  expect(await notes(sister)).toHaveLength(1);
});

test('without a model there is nothing to share it with; nothing, too much and an unknown kind are refused', async () => {
  const bare = await server.addCompressor({ tag: 'BR-4' });
  expect(await tell(bare)).toMatchObject({ status: 422, body: { code: 'no-model' } });
  expect(await notes(bare)).toEqual([]);
  const known = await server.addCompressor({ tag: 'BR-5', model: 'K 9' });
  expect((await tell(known, { text: '   ' })).status).toBe(400);
  expect((await tell(known, { text: 'x'.repeat(501) })).status).toBe(400);
  expect((await tell(known, { about: 'gossip' })).status).toBe(400);
  expect((await tell(randomUUID())).status).toBe(404);
});
