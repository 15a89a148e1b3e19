import { FIRST_METER } from '@entretien/core/hours';
import fc from 'fast-check';
import { ticksOf } from './scale-ticks.js';
import { xOf, type RulerMode } from './ruler-points.js';

const now = { at: Date.UTC(2026, 10, 24, 12), runHours: 487, hoursPerDay: 2, meter: FIRST_METER };

function labels(mode: RulerMode, from: number, to: number, width: number): string[] {
  return ticksOf({ from, to }, mode, now, width).flatMap((tick) => (tick.label === null ? [] : [tick.label]));
}

test('hours are counted in the machine’s own figures', () => {
  expect(labels('hours', -40, 120, 850)).toEqual(['460', '480', '500', '520', '540', '560', '580', '600']);
  expect(labels('hours', -487, 0, 400)).toEqual(['0', '100', '200', '300', '400']);
});

test('a ruler of hours does not begin before zero', () => {
  const ticks = ticksOf({ from: -1000, to: 100 }, 'hours', now, 600);
  expect(ticks[0]).toEqual({ offset: -487, label: '0' });
});

test('months where there is room for them, the year in place of January', () => {
  expect(labels('days', -61, 122, 570)).toEqual(['Oct', 'Nov', 'Dec', '2027', 'Feb', 'Mar']);
});

test('only quarters, and at last only years, where there is less', () => {
  const quarters = ['Apr', 'Jul', 'Oct'];
  expect(labels('days', -400, 700, 850)).toEqual([
    '2026',
    ...quarters,
    '2027',
    ...quarters,
    '2028',
    ...quarters,
  ]);
  expect(labels('days', -3000, 3000, 600).every((label) => /^20\d\d$/.test(label))).toBe(true);
});

test('weeks begin on Monday; days stand singly when zoomed in', () => {
  expect(labels('days', -10, 25, 400)).toEqual(['16 Nov', '23 Nov', '30 Nov', '7 Dec', '14 Dec']);
  expect(labels('days', -1, 3, 850)).toEqual(['24 Nov', '25 Nov', '26 Nov', '27 Nov']);
});

test('labels never stand closer than they are wide, at any scale', () => {
  fc.assert(
    fc.property(
      fc.constantFrom<RulerMode>('hours', 'days'),
      fc.double({ min: 4, max: 5000, noNaN: true }),
      fc.integer({ min: 300, max: 1200 }),
      (mode, span, width) => {
        const view = { from: -span / 3, to: (span * 2) / 3 };
        const xs = ticksOf(view, mode, now, width).flatMap((tick) =>
          tick.label === null ? [] : [xOf(tick.offset, view, width)],
        );
        for (let i = 1; i < xs.length; i++) expect(xs[i]! - xs[i - 1]!).toBeGreaterThanOrEqual(31);
      },
    ),
  );
});
