import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { VisitView } from '@entretien/contracts';
import { honestCourse, restartSteps } from '@entretien/core/isolation';
import { HostClient } from '../testing/host-client.js';
import { PASSWORD } from '../testing/signed-in.js';
import { daysAgo, NOW } from '../testing/test-server.js';

/** More of them by hand: `ENTRETIEN_TEST_KILLS=200`. */
const KILLS = Number(process.env['ENTRETIEN_TEST_KILLS'] ?? 30);
/** The real server in a process of its own, as it is shipped. */
const HOST = join(process.cwd(), 'packages/server/bundle/test-host.js');

const dataDir = mkdtempSync(join(tmpdir(), 'entretien-killed-'));
let server: HostClient;
/** Starts while its forerunner is at work: what a kill is about is the data, not the wait. */
let successor: Promise<HostClient>;
beforeAll(async () => {
  successor = HostClient.start(HOST);
  await takeOver();
});
afterAll(async () => {
  // Whatever went wrong: no server is left behind.
  await server.kill();
  await (await successor).kill();
  rmSync(dataDir, { recursive: true, force: true });
});

async function takeOver(): Promise<void> {
  server = await successor;
  successor = HostClient.start(HOST);
  await server.open({ dataDir, now: NOW });
}

/** Who is signed in; it has to outlast every kill. */
let cookie = '';

function post(path: string, body: object): Promise<Response> {
  return fetch(`${server.url}/api${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Cookie: cookie },
    body: JSON.stringify(body),
  });
}

async function read<Body>(path: string): Promise<Body> {
  return (await (await fetch(`${server.url}/api${path}`, { headers: { Cookie: cookie } })).json()) as Body;
}

async function idsOf(path: string): Promise<string[]> {
  const { items } = await read<{ items: { id: string }[] }>(path);
  return items.map(({ id }) => id);
}

const [site, unit, other, visit] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
const plate = { family: 'screw' } as never;
const bodies = [
  // The clock stands still: what asks for time is sure, and the second look is not taken.
  ...honestCourse(plate, null).map(({ body: { kind, ...details } }) => [kind, { ...details, isSure: true }]),
  ['note', { text: 'Seen' }],
  ['measure', { phase: 'work', check: 'vibration-sound', values: { compared: 'same' } }],
  ['fault', { found: 'Weeps a little' }],
  ['restart', { steps: restartSteps(plate).map(({ code }) => code) }],
] as readonly (readonly [string, object])[];

/** Writes one after the other until the server is gone, and remembers what was acknowledged. */
class Writer {
  readonly acknowledged: string[] = [];
  private sent = 0;

  constructor(private readonly next: (sent: number, id: string) => readonly [string, object]) {}

  async work(isDown: () => boolean, onTaken: () => void): Promise<void> {
    while (!isDown()) {
      const id = randomUUID();
      const [path, body] = this.next(this.sent++, id);
      const answer = await post(path, body).catch(() => null);
      if (answer?.status !== 201) continue;
      this.acknowledged.push(id);
      onTaken();
    }
  }
}

/** Goes through a visit, over and over. */
const visiting = new Writer((sent, id) => {
  const [kind, details] = bodies[sent % bodies.length]!;
  const doneAt = new Date(NOW - 40 * 60_000 + sent * 1000).toISOString();
  return [`/visits/${visit}/steps`, { id, compressorId: unit, kind, doneAt, session: 's', details }];
});

/** Reads another machine's meter. */
const reading = new Writer((sent, id) => {
  const hours = sent / 10;
  const takenAt = daysAgo(200 - hours);
  return [`/compressors/${other}/readings`, { id, takenAt, hours, counts: 'total', source: 'typed' }];
});

async function workUntilKilled(enough: number): Promise<void> {
  let isDown = false;
  let taken = 0;
  await new Promise<void>((killed, failed) => {
    const count = () => {
      taken += 1;
      if (taken !== enough) return;
      server.kill().then(() => {
        isDown = true;
        killed();
      }, failed);
    };
    void visiting.work(() => isDown, count);
    void reading.work(() => isDown, count);
  });
}

test(
  'the server killed in the middle of a visit and of readings by somebody signed in, thirty times: nothing acknowledged is lost, nothing is half there',
  async () => {
    const whose = { name: 'Mira Kolden', login: 'mira', password: PASSWORD };
    const first = await post('/accounts/first', { ...whose, code: server.firstCode });
    cookie = first.headers.get('Set-Cookie')!.split(';')[0]!;
    await post('/sites', { id: site, name: 'Coppel Joinery' });
    const screw = { siteId: site, family: 'screw', commissionedOn: '2024-01-01' };
    await post('/compressors', { id: unit, tag: 'KV-1', ...screw });
    await post('/compressors', { id: other, tag: 'KV-2', ...screw });
    const units = [{ compressorId: unit, tasks: [] }];
    await post('/visits', { id: visit, siteId: site, plannedOn: '2026-11-24', units });
    for (let round = 0; round < KILLS; round += 1) {
      // Ended after another number of answers each time, with something always under way.
      await workUntilKilled(3 + (round % 5));
      await takeOver();
      expect(await read('/me')).toMatchObject({ account: { login: 'mira' } });
      const seen = await read<VisitView>(`/visits/${visit}`);
      const stored = new Map(seen.units[0]!.steps.map((step) => [step.id, step]));
      expect(visiting.acknowledged.filter((id) => !stored.has(id))).toEqual([]);
      const readings = new Set(await idsOf(`/compressors/${other}/readings?limit=200`));
      // A page of them, the latest first; those before were looked at in the rounds before.
      expect(reading.acknowledged.slice(-100).filter((id) => !readings.has(id))).toEqual([]);
      // A step and what follows from it are there together or not at all.
      const count = (kind: string) => [...stored.values()].filter((step) => step.kind === kind).length;
      const recordedSteps = [
        await idsOf(`/compressors/${unit}/measurements?limit=200`),
        await idsOf(`/compressors/${unit}/repairs`),
      ];
      expect(recordedSteps.map(({ length }) => length)).toEqual([count('measure'), count('fault')]);
    }
    expect(visiting.acknowledged.length).toBeGreaterThan(KILLS);
    expect(reading.acknowledged.length).toBeGreaterThan(KILLS);
  },
  KILLS * 36_000,
);
