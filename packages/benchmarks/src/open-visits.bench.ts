import { randomUUID } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { createApp, CompressorsService, Database, SitesService, VisitsService } from '@entretien/server';
import { byTurns, report } from './measure.js';

const ROUNDS = 40;
const [FEW, MANY] = [10, 1000];
const BY = '00000000-0000-4000-8000-000000000001';

/** A server whose one open visit lies behind so many that are finished. */
async function serverWith(finished: number, dataDir: string, now: number) {
  mkdirSync(dataDir, { recursive: true });
  const settings = { host: '127.0.0.1', port: 0, dataDir, timeZone: 'UTC' };
  const app = await createApp({ settings, clock: () => now });
  app.get(Database).transact(() => {
    const siteId = app.get(SitesService).add({ id: randomUUID(), name: 'Odrin Glassworks' }, BY).id;
    const compressorId = randomUUID();
    const plate = { id: compressorId, siteId, tag: 'OG-1', commissionedOn: '2024-01-01' };
    app.get(CompressorsService).add({ ...plate, family: 'screw' }, BY);
    const plan = (plannedOn: string) =>
      app
        .get(VisitsService)
        .plan({ id: randomUUID(), siteId, plannedOn, units: [{ compressorId, tasks: [] }] }, BY).id;
    plan('2025-01-01');
    for (let count = 0; count < finished; count += 1) {
      const doneAt = new Date(now - count * 60_000).toISOString();
      const step = { id: randomUUID(), compressorId, kind: 'leave' as const, doneAt, session: 's' };
      app.get(VisitsService).record(plan('2026-11-01'), { ...step, details: { reason: 'x' } }, BY);
    }
  });
  await app.listen(0, '127.0.0.1');
  const { port } = app.getHttpServer().address() as { port: number };
  const ask = async () => {
    const began = performance.now();
    const answer = await fetch(`http://127.0.0.1:${port}/api/visits?show=open`);
    const { items } = (await answer.json()) as { items: object[] };
    if (items.length !== 1) throw new Error(`${items.length} visits are open, and not one.`);
    return performance.now() - began;
  };
  return { ask, stop: () => app.close() };
}

/** What is open is found among many finished visits as quickly as among a few. */
export async function openVisitsBench(dataDir: string, now: number): Promise<void> {
  const few = await serverWith(FEW, join(dataDir, 'few'), now);
  const many = await serverWith(MANY, join(dataDir, 'many'), now);
  const cold = await many.ask();
  await few.ask();
  const { first, second, ratio } = await byTurns(ROUNDS, many.ask, few.ask);
  report(
    `open visits behind ${MANY} finished ones over those behind ${FEW}`,
    ratio,
    ratio <= 2,
    '≤ 2',
    `${first.toFixed(1)} ms over ${second.toFixed(1)} ms (medians of ${ROUNDS} by turns); the very first of a process ${cold.toFixed(0)} ms.`,
  );
  await few.stop();
  await many.stop();
}
