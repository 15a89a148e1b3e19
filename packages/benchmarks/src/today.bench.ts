import { cpSync } from 'node:fs';
import { join } from 'node:path';
import { earlierRelease } from './earlier.js';
import { median, report } from './measure.js';
import { seed } from './seed.js';
import { BenchServer } from './servers.js';

const [UNITS, READINGS, ROUNDS] = [10_000, 100, 3];

type Start = (dataDir: string, now: number) => Promise<BenchServer>;

/** How long the first Today after a start takes, ms. */
async function firstToday(start: Start, dataDir: string, now: number): Promise<number> {
  const server = await start(dataDir, now);
  const { ms, status } = await server.call('GET', '/api/standings');
  if (status !== 200) throw new Error(`GET /api/standings answered ${status}`);
  await server.stop();
  return ms;
}

/** The first Today after a start, by this release and by 0.1.0, on the same data in the same run. */
export async function todayBench(dataDir: string, now: number): Promise<void> {
  const ours: Start = (folder, at) => BenchServer.start('app', folder, at);
  const earlier = await earlierRelease('0.1.0');
  const [before, after] = [join(dataDir, 'before'), join(dataDir, 'after')];
  await (earlier?.seed ?? seed)(before, UNITS, READINGS, now);
  cpSync(before, after, { recursive: true });
  // The very first start brings the tables forward, and knows no order that was kept.
  const anew = await firstToday(ours, after, now);
  if (earlier) await firstToday(earlier.start, before, now);
  const rounds: { ours: number; theirs: number }[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const theirs = earlier ? await firstToday(earlier.start, before, now) : NaN;
    rounds.push({ ours: await firstToday(ours, after, now), theirs });
  }
  const [first, second] = [median(rounds.map((one) => one.ours)), median(rounds.map((one) => one.theirs))];
  report(
    `first Today after a start over that of release 0.1.0, ${UNITS.toLocaleString('en')} units`,
    first / second,
    earlier ? first / second <= 0.5 : null,
    '≤ 0.5',
    `${first.toFixed(0)} ms over ${second.toFixed(0)} ms (medians of ${ROUNDS} by turns, the order kept over the restart);\n` +
      `  with no order kept, as after an upgrade: ${anew.toFixed(0)} ms.`,
  );
}
