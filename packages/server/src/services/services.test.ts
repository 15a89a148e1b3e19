import { randomUUID } from 'node:crypto';
import { daysAgo, expectStatus, TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

test('a test without its result was looked at, and stays due; with it, it is done', async () => {
  const unit = await server.addCompressor();
  const before = await server.task(unit, 'relief-test');
  const looked = await server.recordService(unit, daysAgo(20), ['relief-test', 'fasteners-check']);
  expectStatus(201, looked);
  // The sender is told, and the logbook says so.
  expect(looked.body.marks).toEqual(['looked-at:relief-test']);
  expect((await server.task(unit, 'relief-test')).lastDoneAt).toBe(before.lastDoneAt);
  expect((await server.task(unit, 'fasteners-check')).lastDoneAt).toBe(daysAgo(20));
  const [line] = (await server.read(`/api/logbook?compressorId=${unit}&kind=service`)).body.items;
  expect(line.text).toBe('Service: Relief valve lift test (looked at, no result); Fasteners, hoses, guards');
  const result = {
    id: randomUUID(),
    check: 'relief-valve',
    takenAt: daysAgo(10),
    values: { opens: 'yes', reseats: 'weeps' },
  };
  expectStatus(201, await server.post(`/api/compressors/${unit}/measurements`, result));
  const done = await server.recordService(unit, daysAgo(10), ['relief-test']);
  expect(done.body.marks).toEqual([]);
  expect((await server.task(unit, 'relief-test')).lastDoneAt).toBe(daysAgo(10));
  await server.restart();
  expect((await server.task(unit, 'relief-test')).lastDoneAt).toBe(daysAgo(10));
});
