import { FIRST_METER } from '@entretien/core/hours';
import { formatAgo, formatDate, describeDue } from './describe-due.js';

const NOW = Date.UTC(2026, 10, 24, 9);
const nothing = { dueAtHours: null, remainingHours: null, dueOn: null, likelyOn: null } as const;

test.each([
  [{ ...nothing, state: 'unknown', ruledBy: null }, 'inspect first', 'nothing on record'],
  [
    {
      state: 'nearing',
      ruledBy: 'hours',
      dueAtHours: 500,
      remainingHours: 13.2,
      dueOn: null,
      likelyOn: '2026-12-05',
    },
    '13 h left',
    'about 5 Dec · at 500 h',
  ],
  [
    {
      state: 'overdue',
      ruledBy: 'hours',
      dueAtHours: 4142,
      remainingHours: -38.4,
      dueOn: null,
      likelyOn: '2026-11-10',
    },
    '38 h late',
    'about 10 Nov · at 4,142 h',
  ],
  [
    {
      state: 'due',
      ruledBy: 'hours',
      dueAtHours: 500,
      remainingHours: -0.2,
      dueOn: '2027-01-31',
      likelyOn: '2026-11-24',
    },
    'due now',
    'about 24 Nov · at 500 h',
  ],
  [
    { ...nothing, state: 'fresh', ruledBy: 'calendar', dueOn: '2027-01-14', likelyOn: '2027-01-14' },
    'in 7 wk',
    '14 Jan 2027',
  ],
  [
    { ...nothing, state: 'overdue', ruledBy: 'calendar', dueOn: '2026-11-10', likelyOn: '2026-11-10' },
    '14 d late',
    '10 Nov',
  ],
  [
    { ...nothing, state: 'due', ruledBy: 'calendar', dueOn: '2026-11-24', likelyOn: '2026-11-24' },
    'due today',
    '24 Nov',
  ],
  [
    { ...nothing, state: 'fresh', ruledBy: 'hours', dueAtHours: 500, remainingHours: 420 },
    '420 h left',
    'at 500 h',
  ],
  [
    { ...nothing, state: 'nearing', ruledBy: 'hours', dueAtHours: 25, remainingHours: 1.25 },
    '1.3 h left',
    'at 25 h',
  ],
] as const)('%j', (task, short, exact) => {
  expect(describeDue(task, NOW, 'UTC', FIRST_METER)).toMatchObject({ short, exact });
});

test('a point of hours is the figure that the meter will show; one of an earlier meter is a total', () => {
  // The first meter was taken off at 5,865 h; the one fitted then began at 0.
  const meter = { offset: 5865, fittedAtHours: 5865, counts: 'total' } as const;
  const due = { ...nothing, state: 'fresh', ruledBy: 'hours', remainingHours: 225 } as const;
  expect(describeDue({ ...due, dueAtHours: 8200 }, NOW, 'UTC', meter).exact).toBe('at 2,335 h');
  expect(describeDue({ ...due, dueAtHours: 5000 }, NOW, 'UTC', meter).exact).toBe('at 5,000 h total');
});

test('dates name the year only when it is another', () => {
  expect(formatDate('2026-12-05', NOW, 'UTC')).toBe('5 Dec');
  expect(formatDate('2027-12-05', NOW, 'UTC')).toBe('5 Dec 2027');
});

test.each([
  [0.1, 'today'],
  [1, 'yesterday'],
  [12, '12 d ago'],
  [41, '6 wk ago'],
  [200, '7 mo ago'],
  [1000, '3 yr ago'],
])('%d days back is %s', (days, text) => {
  expect(formatAgo(NOW - days * 86_400_000, NOW, 'UTC')).toBe(text);
});
