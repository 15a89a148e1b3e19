import { FIRST_METER } from '@entretien/core/hours';
import type { Explanation } from '@entretien/core/plan';
import { triggerRows } from './trigger-rows.js';

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 10, 25, 12);
const now = { at: NOW, runHours: 1000, hoursPerDay: 10, meter: FIRST_METER };

const trigger = (more: object) =>
  ({
    rule: { kind: 'hours', every: 500 },
    applied: { kind: 'hours', every: 250 },
    dueAtHours: null,
    dueOn: null,
    likelyAt: null,
    earlyAt: null,
    lateAt: null,
    isRuling: false,
    ...more,
  }) as Explanation['triggers'][number];

const explained = (start: Explanation['start'], ...triggers: Explanation['triggers'][number][]) =>
  ({ start, triggers }) as unknown as Explanation;

const byHours = trigger({
  dueAtHours: 1100,
  likelyAt: NOW + 10 * DAY,
  earlyAt: NOW + 8 * DAY,
  lateAt: NOW + 13 * DAY,
  isRuling: true,
});
const byCalendar = trigger({
  rule: { kind: 'calendar', every: { months: 3 } },
  applied: { kind: 'calendar', every: { months: 3 } },
  dueOn: '2026-12-15',
  likelyAt: NOW + 19.5 * DAY,
});
const start = { basis: 'done', on: '2026-11-05', hours: 850 } as const;
const rows = (mode: 'hours' | 'days', moment = now) =>
  triggerRows(explained(start, byHours, byCalendar), mode, moment, 'UTC', () => '');

test('in days, each from where it counts to where it ends, the unsure one with its band', () => {
  const found = rows('days');
  expect(found.mode).toBe('days');
  expect(found.rows[0]).toEqual({
    text: 'every 250 h',
    isRuling: true,
    from: -20,
    due: 10,
    band: { from: 8, to: 13 },
  });
  expect(found.rows[1]).toMatchObject({ text: 'every 3 months', from: -20, due: 19.5, band: null });
});

test('in hours the point is exact, and the calendar is counted at the present use', () => {
  const found = rows('hours');
  expect(found.rows[0]).toMatchObject({ from: -150, due: 100, band: null });
  expect(found.rows[1]).toMatchObject({ from: -200, due: 195 });
});

test('a machine that stands still is shown in days, whatever is asked for', () => {
  expect(rows('hours', { ...now, hoursPerDay: 0 }).mode).toBe('days');
});

test('without a start or a point there is nothing to draw; every run has no row', () => {
  const found = triggerRows(
    explained(null, trigger({ noPoint: 'no-start' }), trigger({ rule: { kind: 'run', when: 'at-stop' } })),
    'days',
    now,
    'UTC',
    () => '',
  );
  expect(found.rows).toEqual([{ text: 'every 250 h', isRuling: false, from: null, due: null, band: null }]);
});
