import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  CompressorsService,
  createApp,
  MeasurementsService,
  ReadingsService,
  RepairsService,
  StandingsService,
  VisitsService,
} from '@entretien/server';
import { DAY_MS } from '@entretien/core/basics';
import { generateDemo } from './generate.js';

/** In every run: the turn of a year, clocks changing, a leap day, the small hours, a winter and a summer to come. */
const always = [
  '2026-11-28T04:10:00Z',
  '2026-12-31T22:52:00Z',
  '2027-03-28T00:30:00Z',
  '2027-10-31T01:30:00Z',
  '2028-02-29T12:00:00Z',
  '2029-01-20T10:00:00Z',
  '2030-07-07T10:00:00Z',
];

/** Besides, where all days are gone through (`npm run test:days`): every season and weekday, ends of months. */
const others = [
  '2026-11-24T09:00:00Z',
  '2026-11-26T15:00:00Z',
  '2026-11-27T09:00:00Z',
  '2026-12-24T12:00:00Z',
  '2027-01-01T00:30:00Z',
  '2027-02-15T08:00:00Z',
  '2027-04-10T10:00:00Z',
  '2027-05-31T10:00:00Z',
  '2027-07-04T10:00:00Z',
  '2027-08-15T10:00:00Z',
  '2027-09-30T21:59:00Z',
  '2028-06-01T10:00:00Z',
  '2028-09-19T10:00:00Z',
];
const moments = process.env['ENTRETIEN_TEST_EVERY_MOMENT'] === undefined ? always : [...always, ...others];

/** What the valley looks like on a day. */
async function valleyAt(now: number) {
  const folder = mkdtempSync(join(tmpdir(), 'entretien-any-day-'));
  try {
    await generateDemo(folder, now);
    const settings = { host: '127.0.0.1', port: 0, dataDir: folder, timeZone: 'UTC' };
    const app = await createApp({ settings, clock: () => now });
    await app.init();
    const units = app.get(CompressorsService).list({ limit: '200' }).items;
    const find = (tag: string) => units.find((unit) => unit.tag === tag)!.id;
    const standing = (tag: string) => app.get(StandingsService).of(find(tag));
    const state = (tag: string, code: string) =>
      standing(tag).tasks.find((task) => task.code === code)?.state;
    const latest = async (tag: string, check: string) =>
      (await app.get(MeasurementsService).list(find(tag), { check, limit: '1' })).items[0]!.judgement;
    const visits = app.get(VisitsService);
    const planned = visits.list({}).items.find((visit) => visit.state === 'planned')!;
    const finished = visits.list({}).items.find((visit) => visit.state === 'finished')!;
    const [meter] = (await app.get(ReadingsService).list(find('OG-1'), { limit: '1' })).items;
    const answers = {
      late: state('CJ-1', 'intake-replace'),
      nearing: state('VB-2', 'intake-replace'),
      unknown: [...new Set(standing('HT-1').tasks.map((task) => task.state))],
      deferral: standing('CJ-1').tasks.find(({ code }) => code === 'belt-check')?.deferral !== null,
      goesOnAfterItsMeter: standing('OG-1').runHours! > meter!.hours + 2000,
      slippingPumpUp: (await latest('CJ-1', 'pump-up')).verdict,
      climbingDrop: (await latest('OG-1', 'separator-drop')).verdict,
      stageLetsBack: (await latest('SP-1', 'stage-pressures')).reason,
      hotHall: JSON.stringify(
        app
          .get(StandingsService)
          .explained(find('OG-1'))
          .tasks.find(({ code }) => code === 'oil-change')?.explanation?.lines,
      ),
      idle: [standing('HT-2').hoursPerDay, standing('LD-2').hoursPerDay],
      longUnread: now - Date.parse(standing('BQ-1').lastReadingAt!) > 60 * DAY_MS,
      planned: visits.one(planned.id).units[0]!.planned.length,
      finished: finished.units.map(({ tag }) => tag),
      repairs: app.get(RepairsService).list(find('HC-2'), { show: 'open' }).length,
      marks: units.flatMap((unit) => unit.marks),
    };
    await app.close();
    return answers;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A whole valley is made for each moment: on a slow machine that alone takes most of a minute. */
const SLOWEST_MS = 10 * 60_000;

test.each(moments)(
  'every story of the valley is there at %s',
  async (moment) => {
    const { planned, ...answers } = await valleyAt(Date.parse(moment));
    expect(planned).toBeGreaterThanOrEqual(4);
    expect(answers).toEqual({
      late: 'overdue',
      nearing: 'nearing',
      unknown: ['unknown', 'fresh'],
      deferral: true,
      goesOnAfterItsMeter: true,
      slippingPumpUp: expect.stringMatching(/^(watch|act)$/) as unknown,
      climbingDrop: expect.stringMatching(/^(watch|act)$/) as unknown,
      stageLetsBack: expect.stringContaining('The valves of stage 3 let gas back') as unknown,
      hotHall: expect.stringMatching(/Discharge at \d+ °C, the oil rated at 85 °C/) as unknown,
      idle: [0, 0],
      longUnread: true,
      finished: ['HC-1'],
      repairs: 1,
      marks: [],
    });
  },
  SLOWEST_MS,
);
