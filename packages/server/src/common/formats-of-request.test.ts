import { daysAgo, TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

async function wordsOf(unit: string, cookie?: string): Promise<string> {
  const headers: Record<string, string> = cookie === undefined ? {} : { cookie };
  const { body } = await server.read(`/api/compressors/${unit}/standing?explain=yes`, headers);
  return JSON.stringify(body.tasks.map((task: { lines?: unknown; explanation?: unknown }) => task));
}

test('what is read is worded for its reader; nonsense, and no cookie, is the usual', async () => {
  const unit = await server.addCompressor();
  await server.readHours(unit, daysAgo(50), 0);
  await server.readHours(unit, daysAgo(0.01), 1400);
  const usual = await wordsOf(unit);
  expect(usual).toContain('1 Jan 2026');
  const theirs = await wordsOf(unit, 'a=b; entretien-formats=month-day.comma; c=d');
  expect(theirs).toContain('Jan 1, 2026');
  expect(theirs).not.toContain('1 Jan 2026');
  for (const cookie of ['entretien-formats=', 'entretien-formats=<x>', 'entretien-formats=soon.never', 'x=1'])
    expect(await wordsOf(unit, cookie)).toBe(usual);
  // Two readers at once each have their own.
  const both = await Promise.all(
    ['month-day.point', 'year-first.point', 'day-month.point'].map((formats) =>
      wordsOf(unit, `entretien-formats=${formats}`),
    ),
  );
  expect(
    both.map((words) =>
      ['Jan 1, 2026', 'on 2026-01-01', '1 Jan 2026'].findIndex((one) => words.includes(one)),
    ),
  ).toEqual([0, 1, 2]);
});
