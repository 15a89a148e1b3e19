import { DAY_MS } from '../basics/index.js';
import { hourClockOf } from './clock.js';
import type { CompressorHistory } from './history.js';
import { explain, standing, useWarning, type ServicePlan } from './index.js';

const NOW = Date.UTC(2026, 10, 27, 12);

/** Read every week: so many hours a day, then others for the last 56 days. */
function history(before: number, since: number, days = 500): CompressorHistory {
  let hours = 0;
  const readings = Array.from({ length: Math.floor(days / 7) + 1 }, (_, index) => {
    const ago = days - index * 7;
    if (index > 0) hours += 7 * (ago < 56 ? since : before) * (1 + 0.1 * Math.sin(index * 2.4));
    const takenAt = NOW - ago * DAY_MS;
    return { takenAt, recordedAt: takenAt, hours, counts: 'total', source: 'typed' } as const;
  });
  return {
    timeZone: 'UTC',
    commissionedOn: '2025-01-01',
    history: 'new',
    readings,
    meterChanges: [],
    services: [{ doneAt: NOW - 5 * DAY_MS, recordedAt: NOW - 5 * DAY_MS, tasks: ['oil'] }],
  };
}

const plan: ServicePlan = {
  tasks: [
    {
      code: 'oil',
      name: 'New oil',
      station: 'sump',
      triggers: [{ kind: 'hours', every: 250 }],
      counting: 'last-done',
      origin: 'book',
    },
  ],
} as unknown as ServicePlan;

const warned = (past: CompressorHistory) =>
  useWarning(hourClockOf(past, NOW), standing(plan, past, NOW).tasks, NOW, 'UTC');

test('five times as much since 56 days: the oil comes in seven weeks, not in eight months', () => {
  const warning = warned(history(1, 5))!;
  expect(warning.text).toMatch(/^Used five times as much since about (\d+ Sep|\d+ Oct) 2026$/);
  expect(warning.since / warning.before).toBeGreaterThan(4);
  // 250 h after the service of five days ago: some 225 h at 5 h a day are 45 days.
  expect(warning.pulls!.name).toBe('New oil');
  expect(warning.pulls!.likelyOn > '2026-12-27' && warning.pulls!.likelyOn < '2027-01-31').toBe(true);
  expect(warning.pulls!.wouldBeOn > '2027-05').toBe(true);
});

test('nothing is said of a machine that goes on as ever, and less use pulls nothing nearer', () => {
  expect(warned(history(2, 2))).toBeNull();
  expect(warned(history(5, 1))?.pulls ?? null).toBeNull();
});

test('what changed half a year ago is no news', () => {
  const past = history(1, 5);
  const later = {
    ...past,
    readings: past.readings.map((one) => ({ ...one, takenAt: one.takenAt - 200 * DAY_MS })),
  };
  expect(useWarning(hourClockOf(later, NOW), standing(plan, later, NOW).tasks, NOW, 'UTC')).toBeNull();
});

test('it stands in the explanation of a date by hours', () => {
  expect(explain(plan, 'oil', history(1, 5), NOW)!.useChange).toMatch(/^Used five times as much/);
  expect(explain(plan, 'oil', history(2, 2), NOW)!.useChange).toBeNull();
});

test('of several tasks the soonest is told, in whatever order they stand; less than a week is no news', () => {
  const [oil] = plan.tasks;
  const every = (code: string, hours: number) => ({
    ...oil!,
    code,
    name: code,
    triggers: [{ kind: 'hours' as const, every: hours }],
  });
  const past = { ...history(1, 5), services: [] };
  const done = {
    doneAt: NOW - 5 * DAY_MS,
    recordedAt: NOW - 5 * DAY_MS,
    tasks: ['far', 'near', 'oil', 'soon'],
  };
  const known = { ...past, services: [done] };
  const pulled = (codes: readonly [string, number][]) => {
    const { tasks } = standing({ tasks: codes.map(([code, hours]) => every(code, hours)) }, known, NOW);
    return useWarning(hourClockOf(known, NOW), [...tasks].reverse(), NOW, 'UTC')!.pulls?.code ?? null;
  };
  expect(
    pulled([
      ['near', 250],
      ['far', 900],
    ]),
  ).toBe('near');
  expect(
    pulled([
      ['far', 900],
      ['near', 250],
    ]),
  ).toBe('near');
  // Due in some five hours: tomorrow instead of in five days.
  expect(pulled([['soon', 30]])).toBeNull();
});
