import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { VisitView } from '@entretien/contracts';
import { isolationSteps, restartSteps } from '@entretien/core/visit';

const KILLS = 50;
const MAIN = join(process.cwd(), 'packages/server/dist/main.js');

/** The real server in a process of its own, to be ended as a cut cable would. */
async function start(dataDir: string): Promise<{ url: string; process: ChildProcess }> {
  const env = { ...process.env, NODE_OPTIONS: '', ENTRETIEN_DATA_DIR: dataDir, ENTRETIEN_PORT: '0' };
  const running = spawn(process.execPath, [MAIN], { env });
  const url = await new Promise<string>((ready, fail) => {
    let said = '';
    const listen = (chunk: Buffer) => {
      said += chunk.toString();
      const address = /ready on (http:\S+)/.exec(said)?.[1];
      if (address) ready(address);
    };
    running.stdout.on('data', listen);
    running.stderr.on('data', listen);
    running.on('exit', () => fail(new Error(`The server did not start: ${said}`)));
  });
  return { url, process: running };
}

async function kill({ process: running }: { process: ChildProcess }): Promise<void> {
  if (running.exitCode !== null || running.signalCode !== null) return;
  const ended = new Promise((done) => running.once('exit', done));
  running.kill('SIGKILL');
  await ended;
}

const dataDir = mkdtempSync(join(tmpdir(), 'entretien-killed-'));
let ended: () => Promise<void> = () => Promise.resolve();
afterAll(async () => {
  // Whatever went wrong: no server is left behind.
  await ended();
  rmSync(dataDir, { recursive: true, force: true });
});

test('the server killed in the middle of a visit, fifty times: nothing acknowledged is lost, nothing is half there', async () => {
  let server = await start(dataDir);
  ended = () => kill(server);
  const post = (path: string, body: object) =>
    fetch(`${server.url}/api${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  const [site, unit, visit] = [randomUUID(), randomUUID(), randomUUID()];
  await post('/sites', { id: site, name: 'Coppel Joinery' });
  await post('/compressors', {
    id: unit,
    siteId: site,
    tag: 'KV-1',
    family: 'screw',
    commissionedOn: '2024-01-01',
  });
  await post('/visits', {
    id: visit,
    siteId: site,
    plannedOn: '2026-11-24',
    units: [{ compressorId: unit, tasks: [] }],
  });
  const plate = { family: 'screw' } as never;
  const measured = { phase: 'work', check: 'vibration-sound', values: { compared: 'same' } };
  const bodies = [
    ...isolationSteps(plate).map(({ code, reads }) => [
      'isolate',
      { step: code, confirmed: true, ...(reads ? { pressureBar: 0 } : {}) },
    ]),
    ['note', { text: 'Seen' }],
    ['measure', measured],
    ['fault', { found: 'Weeps a little' }],
    ['restart', { steps: restartSteps(plate).map(({ code }) => code) }],
  ] as const;
  const acknowledged = new Map<string, string>();
  let at = Date.now() - 40 * 60_000;
  let next = 0;
  for (let round = 0; round < KILLS; round += 1) {
    let isDown = false;
    // Ended after another number of answers each time, with a step always under way.
    const enough = acknowledged.size + 1 + (round % 4);
    const working = (async () => {
      while (!isDown) {
        const [kind, details] = bodies[next++ % bodies.length] as readonly [string, object];
        at += 1000;
        const id = randomUUID();
        const step = {
          id,
          compressorId: unit,
          kind,
          doneAt: new Date(at).toISOString(),
          session: 's',
          details,
        };
        const answer = await post(`/visits/${visit}/steps`, step).catch(() => null);
        if (answer?.status === 201) acknowledged.set(id, kind);
      }
    })();
    while (acknowledged.size < enough) await new Promise((resolve) => setTimeout(resolve, 2));
    await kill(server);
    isDown = true;
    await working;
    server = await start(dataDir);
    const seen = (await (await fetch(`${server.url}/api/visits/${visit}`)).json()) as VisitView;
    const stored = new Map(seen.units[0]!.steps.map((step) => [step.id, step]));
    expect([...acknowledged.keys()].filter((id) => !stored.has(id))).toEqual([]);
    // A step and what follows from it are there together or not at all.
    const list = async (kind: string) =>
      (
        (await (await fetch(`${server.url}/api/compressors/${unit}/${kind}`)).json()) as {
          items: object[];
        }
      ).items.length;
    const count = (kind: string) => [...stored.values()].filter((step) => step.kind === kind).length;
    expect([await list('measurements'), await list('repairs')]).toEqual([count('measure'), count('fault')]);
  }
  expect(acknowledged.size).toBeGreaterThan(KILLS);
}, 600_000);
