import { randomUUID } from 'node:crypto';
import type { FleetStandingView, Page, PointBriefView } from '@entretien/contracts';
import { byTurns, report } from './measure.js';
import { DAY, seed } from './seed.js';
import { BenchServer } from './servers.js';

const [UNITS, POINTS, WORK, ROUNDS] = [12, 40, 30, 41];

/** How a site with its points of use stands, against its units alone; both as a page asks for them. */
export async function pointsBench(dataDir: string, now: number): Promise<void> {
  await seed(dataDir, UNITS, 100, now);
  const server = await BenchServer.start('app', dataDir, now);
  const fleet = JSON.parse((await server.call('GET', '/api/standings')).text) as FleetStandingView;
  const { siteId } = fleet.items[0]!;
  const compressorIds = fleet.items.map(({ compressorId }) => compressorId);
  const meters = new Map(fleet.items.map(({ compressorId, runHours }) => [compressorId, runHours ?? 0]));
  const iso = (at: number) => new Date(at).toISOString();
  for (let index = 0; index < POINTS; index += 1) {
    const id = randomUUID();
    const point = {
      ...{ id, siteId, tag: `P-${index}`, compressorIds: [compressorIds[index % UNITS]], vesselIds: [] },
      ...{
        fittedOn: '2025-01-10',
        whenAirGoes: 'Nothing',
        isBreathed: false,
        filterMicron: 5,
        bowl: 'plastic',
      },
      ...{ drain: 'manual', regulatorBar: 6, lubricator: 'direct' },
    };
    await posted(server, '/api/points', point);
    for (let work = WORK; work > 0; work -= 1) {
      const at = iso(now - work * 7 * DAY);
      const looks = [{ check: 'bowl', values: { bowl: 'sound' }, at }];
      const done = { doneAt: at, tasks: [{ code: 'point-drain', at }], looks, steps: [] };
      await posted(server, `/api/points/${id}/work`, { id: randomUUID(), ...done });
    }
  }
  const list = JSON.parse(
    (await server.call('GET', `/api/points?siteId=${siteId}`)).text,
  ) as Page<PointBriefView>;
  if (list.items.length !== POINTS) throw new Error(`${list.items.length} points came back`);
  // A reading just came in: what stands is worked out again.
  let added = 0;
  const reading = async () => {
    added += 0.1;
    for (const id of compressorIds) {
      const taken = {
        id: randomUUID(),
        takenAt: iso(now - 1000 + Math.round(added * 10)),
        hours: meters.get(id)! + added,
      };
      await posted(server, `/api/compressors/${id}/readings`, { ...taken, counts: 'total', source: 'typed' });
    }
  };
  const get = async (path: string) => (await server.call('GET', path)).ms;
  const { first, second, ratio } = await byTurns(
    ROUNDS,
    async () => {
      await reading();
      return (await get('/api/standings')) + (await get(`/api/points?siteId=${siteId}`));
    },
    async () => {
      await reading();
      return get('/api/standings');
    },
  );
  const kept = await byTurns(
    ROUNDS,
    async () => (await get('/api/standings')) + (await get(`/api/points?siteId=${siteId}`)),
    () => get('/api/standings'),
  );
  await server.stop();
  report(
    `standings of a site of ${UNITS} units and ${POINTS} points of use over those of its units alone`,
    ratio,
    ratio <= 1.5,
    '≤ 1.5',
    `${first.toFixed(1)} ms over ${second.toFixed(1)} ms (medians of ${ROUNDS} by turns, each after a new reading of every unit);\n` +
      `  where nothing changed since: ${kept.first.toFixed(1)} ms over ${kept.second.toFixed(1)} ms.`,
  );
}

async function posted(server: BenchServer, path: string, body: object): Promise<void> {
  const { status, text } = await server.call('POST', path, body);
  if (status !== 201) throw new Error(`POST ${path} answered ${status}: ${text}`);
}
