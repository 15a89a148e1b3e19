import { DAY, daysAgo, NOW, TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeEach(async () => {
  server = await TestServer.start();
});
afterEach(() => server.stop());

const doubts = async () => (await server.read('/api/health')).body.doubts;

test('a clock that is earlier than what was recorded by it is questioned, and one that is right is not', async () => {
  const unit = await server.addCompressor();
  await server.readHours(unit, daysAgo(1), 100);
  await server.restart();
  expect(await doubts()).toEqual([]);
  server.now = NOW - 9 * 60_000;
  expect(await doubts()).toEqual([]);
  server.now = NOW - 400 * DAY;
  await server.restart();
  const [doubt] = await doubts();
  expect(doubt.code).toBe('clock-behind');
  expect(doubt.sentence).toContain(
    'says 2025-10-20 09:00 UTC, but something was recorded at 2026-11-24 09:00 UTC',
  );
});

test('on an empty record there is nothing to compare with', async () => {
  server.now = 0;
  expect(await doubts()).toEqual([]);
});
