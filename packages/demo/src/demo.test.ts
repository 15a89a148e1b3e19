import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  createApp,
  CompressorsService,
  MeasurementsService,
  ReadingsService,
  RepairsService,
  StandingsService,
  StopsService,
  VisitsService,
} from '@entretien/server';
import { generateDemo, type DemoSummary } from './generate.js';
import { sites } from './story.js';

const NOW = Date.UTC(2026, 10, 24, 15);
const folders: string[] = [];

function folder(): string {
  const made = mkdtempSync(join(tmpdir(), 'entretien-demo-'));
  folders.push(made);
  return made;
}

let dataDir: string;
let summary: DemoSummary;
let app: Awaited<ReturnType<typeof createApp>> | undefined;

beforeAll(async () => {
  dataDir = folder();
  summary = await generateDemo(dataDir, NOW);
  app = await createApp({
    settings: { host: '127.0.0.1', port: 0, dataDir, timeZone: 'UTC' },
    clock: () => NOW,
  });
  await app.init();
}, 240_000);
afterAll(async () => {
  await app?.close();
  for (const made of folders) rmSync(made, { recursive: true, force: true });
});

const units = () => app!.get(CompressorsService).list({ limit: '200' }).items;

function standingOf(tag: string) {
  return app!.get(StandingsService).of(units().find((unit) => unit.tag === tag)!.id);
}

test('the valley has its sites and machines, all families, two to three years of record', () => {
  expect(summary.sites).toBeGreaterThanOrEqual(8);
  expect(summary.units).toBeGreaterThanOrEqual(14);
  expect(summary.readings).toBeGreaterThan(800);
  expect(summary.services).toBeGreaterThan(200);
  expect(new Set(units().map((unit) => unit.family)).size).toBe(4);
  const oldest = Math.min(...units().map((unit) => Date.parse(unit.registeredAt)));
  expect((NOW - oldest) / 86_400_000).toBeGreaterThan(730);
  expect((NOW - oldest) / 86_400_000).toBeLessThan(1100);
});

test('one machine is overdue, and dust is why its intake interval is short', () => {
  const { tasks, runHoursBasis } = standingOf('CJ-1');
  expect(runHoursBasis).toBe('declared');
  expect(tasks.find((task) => task.code === 'intake-replace')).toMatchObject({ state: 'overdue' });
});

test('one has no history, one stands idle since spring, one is long unread', () => {
  const { tasks } = standingOf('HT-1');
  // The relief valve was due until it was tested; the separator is known by what was measured.
  const known = tasks.filter(({ startedBy, state }) => startedBy !== null || state !== 'unknown');
  expect(known.map(({ code }) => code).sort()).toEqual(['relief-test', 'separator-replace']);
  expect(standingOf('HT-2').hoursPerDay).toBe(0);
  expect(NOW - Date.parse(standingOf('BQ-1').lastReadingAt!)).toBeGreaterThan(60 * 86_400_000);
});

test('one had its meter replaced and its hours went on', async () => {
  const id = units().find((unit) => unit.tag === 'OG-1')!.id;
  const readings = app!.get(ReadingsService);
  expect((await readings.listMeterChanges(id, {})).items).toHaveLength(1);
  const latest = (await readings.list(id, { limit: '5' })).items.find(({ counts }) => counts === 'total');
  expect(standingOf('OG-1').runHours!).toBeGreaterThan(latest!.hours + 2000);
});

test('nothing in the story was marked or doubted that is not meant to be', () => {
  expect(units().flatMap((unit) => unit.marks)).toEqual([]);
});

test('the same day tells the same story', async () => {
  const again = folder();
  expect(await generateDemo(again, NOW)).toEqual(summary);
}, 60_000);

test('tags are used once, and visits fall where the story says', () => {
  const tags = sites.flatMap((site) => site.units.map((unit) => unit.plate.tag));
  expect(new Set(tags).size).toBe(tags.length);
  for (const site of sites) expect(site.visitEvery).toBeGreaterThan(0);
});

async function measured(tag: string, check: string) {
  const { id } = units().find((unit) => unit.tag === tag)!;
  const page = await app!.get(MeasurementsService).list(id, { check, limit: '200' });
  // The latest come first.
  return [...page.items].reverse();
}

test('one delivers less and less since its valves were last seen to', async () => {
  const runs = await measured('CJ-1', 'pump-up');
  const flows = runs.map(({ judgement }) => judgement.figure!.value);
  expect(summary.measurements).toBeGreaterThan(400);
  expect(runs.filter(({ baseline }) => baseline)).toHaveLength(1);
  expect(flows.at(-1)).toBeLessThan(flows[0]! * 0.9);
  expect(['watch', 'act']).toContain(runs.at(-1)!.judgement.verdict);
});

test('the separator of one is nearly blocked, the last stage of another lets gas back', async () => {
  const drops = await measured('OG-1', 'separator-drop');
  expect(drops.at(-1)!.judgement.verdict).not.toBe('good');
  const expected = (await measured('SP-1', 'stage-pressures')).at(-1)!;
  expect(expected.judgement.reason).toContain('The valves of stage 3 let gas back');
});

test('the packing hall’s screw was isolated though its needle stood and a drain was blocked; it is signed for', () => {
  const { items } = app!.get(VisitsService).list({ show: 'all' });
  const finished = items.find(({ state }) => state === 'finished')!;
  const { steps } = app!.get(VisitsService).one(finished.id).units[0]!;
  expect(steps.flatMap(({ marks }) => marks)).toEqual([]);
  expect(steps.at(-1)!.kind).toBe('sign');
});

test('one is out of service by its relief valve, one came back; a repair went on after a pause', () => {
  const stops = app!.get(StopsService).all();
  expect(stops.map(({ tag, scope, check }) => [tag, scope, check])).toEqual([
    ['LD-2', 'unit', 'relief-valve'],
  ]);
  const id = units().find((unit) => unit.tag === 'HC-2')!.id;
  const [repair] = app!.get(RepairsService).list(id, {});
  expect(repair!.entries.filter(({ kind }) => kind === 'step')).toHaveLength(2);
});
