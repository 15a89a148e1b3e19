import { randomUUID } from 'node:crypto';
import { byTurns, report } from './measure.js';
import { DAY, lastFigures, seed } from './seed.js';
import { BenchServer } from './servers.js';

const BLOCK = 100;
const ROUNDS = 15;

/** Readings posted one by one, each durable before it is answered, against a bare endpoint's single insert. */
export async function postingBench(dataDir: string, now: number): Promise<void> {
  await seed(dataDir, 50, 100, now);
  const figures = lastFigures(dataDir);
  const units = [...figures.keys()];
  const app = await BenchServer.start('app', dataDir, now);
  const bare = await BenchServer.start('bare', dataDir, now);
  let count = 0;
  const readingFor = (compressorId: string) => {
    count += 1;
    const takenAt = new Date(now - 2 * DAY + count * 20_000).toISOString();
    return {
      id: randomUUID(),
      takenAt,
      hours: figures.get(compressorId)! + count / 1000,
      counts: 'total',
      source: 'typed',
      compressorId,
    };
  };
  // The two write to different units, so that neither makes the other's figures impossible.
  const block = async (
    send: (reading: ReturnType<typeof readingFor>) => ReturnType<BenchServer['call']>,
    of: readonly string[],
  ) => {
    const start = performance.now();
    for (let index = 0; index < BLOCK; index++) {
      const { status, text } = await send(readingFor(of[index % of.length]!));
      if (status !== 201) throw new Error(`${status}: ${text}`);
    }
    return performance.now() - start;
  };
  const ours = () =>
    block(
      ({ compressorId, ...reading }) =>
        app.call('POST', `/api/compressors/${compressorId}/readings`, reading),
      units.slice(0, 25),
    );
  const theirs = () => block((reading) => bare.call('POST', '/readings', reading), units.slice(25));
  await ours();
  await theirs();
  const { first: theirTime, second: ourTime, ratio } = await byTurns(ROUNDS, theirs, ours);
  const rate = (time: number) => (BLOCK / time) * 1000;
  report(
    'Posting readings one by one over HTTP, each durable',
    ratio,
    ratio >= 0.7,
    '≥ 0.7',
    `${rate(ourTime).toFixed(0)} readings a second over ${rate(theirTime).toFixed(0)} by a bare NestJS endpoint making the same single insert\n` +
      `  (medians of ${ROUNDS} blocks of ${BLOCK} by turns; WAL, synchronous=FULL, same table and index).`,
  );
  await app.stop();
  await bare.stop();
}
