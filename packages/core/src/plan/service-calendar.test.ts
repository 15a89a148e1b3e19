import { DAY_MS, dayNumberOf, startOfLocalDay } from '../basics/index.js';
import type { DataPlate } from '../machine/index.js';
import { defaultPlan } from './defaults/default-plan.js';
import type { ServiceRecord, CompressorHistory } from './history.js';
import type { ServicePlan } from './service-plan.js';
import { standing } from './standing.js';

/**
 * Service calendars worked by hand from the default plans, over 3,000 h of steady running from the first of
 * January 2026: the technician looks every morning, does whatever is due, and of two tasks of which one covers
 * the other only the bigger.
 */
const COMMISSIONED = '2026-01-01';
const START = startOfLocalDay(dayNumberOf(COMMISSIONED), 'UTC');
const END_HOURS = 3000;

/** Run hours at which each task was done. */
function calendar(plan: ServicePlan, hoursPerDay: number): Map<string, number[]> {
  const done = new Map<string, number[]>();
  const services: ServiceRecord[] = [];
  const covers = new Map(plan.tasks.map((task) => [task.code, task.covers ?? []]));
  for (let day = 0; day * hoursPerDay <= END_HOURS; day++) {
    const at = START + day * DAY_MS;
    const reading = (on: number) => ({
      takenAt: START + on * DAY_MS,
      hours: on * hoursPerDay,
      counts: 'total' as const,
      source: 'typed' as const,
      recordedAt: START + on * DAY_MS,
    });
    const history: CompressorHistory = {
      timeZone: 'UTC',
      commissionedOn: COMMISSIONED,
      history: 'new',
      readings: day === 0 ? [reading(0)] : [reading(0), reading(day)],
      meterChanges: [],
      services,
    };
    const due = standing(plan, history, at)
      .tasks.filter((task) => task.state === 'due' || task.state === 'overdue')
      .map((task) => task.code);
    const tasks = due.filter((code) => !due.some((other) => covers.get(other)!.includes(code)));
    if (tasks.length === 0) continue;
    services.push({ doneAt: at, recordedAt: at, tasks });
    for (const code of tasks) done.set(code, [...(done.get(code) ?? []), day * hoursPerDay]);
  }
  return done;
}

function plate(more: Partial<DataPlate>): DataPlate {
  return { siteId: 's', tag: 'T-1', family: 'piston', commissionedOn: COMMISSIONED, history: 'new', ...more };
}

/** Multiples of a step up to the end. */
function every(step: number, to = END_HOURS): number[] {
  return Array.from({ length: Math.floor(to / step) }, (_, index) => (index + 1) * step);
}

/** So many figures, a step apart. */
function steps(from: number, step: number, count: number): number[] {
  return Array.from({ length: count }, (_, index) => from + index * step);
}

/** The first of each month at 10 h a day: 1 February is day 31, then 59, 90, 120, 151, 181, 212, 243 and 273. */
const monthly = [310, 590, 900, 1200, 1510, 1810, 2120, 2430, 2730];

test('a belt-driven piston set, 10 h a day for 300 days', () => {
  const done = calendar(defaultPlan(plate({ drive: 'belt' })), 10);
  expect(Object.fromEntries(done)).toEqual({
    // First at 50 h; 500 h take 50 days, less than three months.
    'oil-change': [50, 550, 1050, 1550, 2050, 2550],
    // 100 h take 10 days, less than a month.
    'intake-inspect': every(100),
    'belt-check': every(500),
    'valves-inspect': every(1000),
    // Three months each: 1 April, 1 July, 1 October are days 90, 181 and 273.
    'cooling-clean': [900, 1810, 2730],
    'fasteners-check': monthly,
    // The breather goes with the oil, which covers it.
  });
});

test('the same set running an hour a day: the calendar overtakes the hours', () => {
  const done = calendar(defaultPlan(plate({ drive: 'belt' })), 1);
  // 50 h on 20 February (day 50), then three months at a time from there: 20 May, 20 August, 20 November.
  expect(done.get('oil-change')!.slice(0, 4)).toEqual([50, 139, 231, 323]);
  // A month each, from the first: 1 February, 1 March, 1 April, 1 May.
  expect(done.get('intake-inspect')!.slice(0, 4)).toEqual([31, 59, 90, 120]);
  // Its first new element a year on resets the inspection that falls on the same day.
  expect(done.get('intake-replace')!.slice(0, 2)).toEqual([365, 730]);
  expect(done.get('intake-inspect')).not.toContain(365);
  // 2028 is a leap year.
  expect(done.get('relief-test')!.slice(0, 3)).toEqual([365, 730, 1096]);
});

test('an oil-free set, 10 h a day', () => {
  const done = calendar(defaultPlan(plate({ family: 'piston-oil-free' })), 10);
  // A new element at 250 h makes the next inspection count from there: 100 and 200 h after each.
  const inspected = Array.from({ length: 12 }, (_, index) => [index * 250 + 100, index * 250 + 200]).flat();
  expect(Object.fromEntries(done)).toEqual({
    'intake-inspect': inspected,
    'intake-replace': every(250),
    'cooling-clean': [900, 1810, 2730],
    'fasteners-check': monthly,
    // Ring kit on condition alone. The valves too, but nothing was measured: their hours hold.
    'valves-inspect': every(1000),
  });
});

test('a screw on mineral oil, 10 h a day', () => {
  const done = calendar(
    defaultPlan(plate({ family: 'screw', drive: 'belt', oilGrade: 'VG 46 mineral' })),
    10,
  );
  expect(Object.fromEntries(done)).toEqual({
    'first-service': [150],
    // The first service changed the filter, which would be due at 2,150 h; the oil change takes it along at
    // 2,000 h, and the oil sample, which falls on the same hour.
    'oil-change': [2000],
    // Which separator it has nobody entered: the shorter life. The relief valve at each major service.
    'separator-replace': [2000],
    'relief-test': [2000],
    'intake-replace': [2000],
    'prefilter-replace': [2000],
    'bearing-check': [2000],
    'scavenge-clean': [2000],
    'valves-inspect': [2000],
    'belt-check': [2000],
    'cooling-clean': [900, 1810, 2730],
    'fasteners-check': monthly,
  });
});

test('a three-stage breathing-air set, 5 h a day for 600 days', () => {
  const done = calendar(
    defaultPlan(plate({ family: 'high-pressure', stages: 3, motor: 'three-phase', airUse: 'breathing' })),
    5,
  );
  // Cold until 1 May (day 120, 600 h): twenty cartridges of 30 h. Warm until 1 October (day 273, 1,365 h): 20 h
  // each, the last at 1,360 h; 5 h are a quarter of the next, and the other three quarters take 22.5 h of cold:
  // 1,387.5 h, seen on the morning of 1,390 h. Then 30 h each until 1 May (day 485, 2,425 h): the last at 2,410 h;
  // 15 h are half of the next, the other half takes 10 h of warm: 2,435 h, and 20 h each from there.
  const cold = (from: number, count: number) => steps(from, 30, count);
  const warm = (from: number, count: number) => steps(from, 20, count);
  expect(done.get('cartridge-replace')).toEqual([
    ...cold(30, 20),
    ...warm(620, 38),
    ...cold(1390, 35),
    ...warm(2435, 29),
  ]);
  expect(done.get('oil-change')).toEqual([25, ...every(100, 2900).map((hours) => hours + 25)]);
  // Minor at 500 h, major at 1,000 h, minor at 1,500 h …
  expect(done.get('valves-upper')).toEqual([500, 1500, 2500]);
  expect(done.get('valves-all')).toEqual([1000, 2000, 3000]);
  expect(done.get('belt-check')).toEqual(every(200));
  expect(done.get('intake-replace')).toEqual(every(125));
  expect(done.get('intake-inspect')).toEqual(every(25).filter((hours) => hours % 125 !== 0));
  expect(done.get('seals-inspect')).toEqual(every(50));
  // On the first of each month: 1 February is day 31, 1 March day 59, 1 April day 90.
  expect(done.get('co-calibrate')!.slice(0, 3)).toEqual([155, 295, 450]);
  // Quarterly: 1 April, 1 July, 1 October, 1 January.
  expect(done.get('air-quality-test')!.slice(0, 4)).toEqual([450, 905, 1365, 1825]);
});
