import { task } from './fixtures.js';
import { pointByShare } from './found-share.js';

const NOON = Date.UTC(2026, 5, 15, 12);

test.each([
  // 500 h, half used: 250 h of it are gone.
  [[{ kind: 'hours', every: 500 }], 0.5, 250, '2026-06-15'],
  // Three months of 92 days from 15 June, half used: 46 days ago.
  [[{ kind: 'calendar', every: { months: 3 } }], 0.5, 0, '2026-04-30'],
  [
    [
      { kind: 'hours', every: 500 },
      { kind: 'hours', every: 200 },
    ],
    1,
    200,
    '2026-06-15',
  ],
  [[{ kind: 'season', warm: 20, cold: 30 }], 1, 20, '2026-06-15'],
  // What is measured counts by the rule that holds until then.
  [
    [{ kind: 'condition', check: 'cartridge-weight', limit: 100, unmeasured: { kind: 'hours', every: 40 } }],
    0.5,
    20,
    '2026-06-15',
  ],
  [[], 1, 0, '2026-06-15'],
] as const)('%j, %d used', (triggers, used, hoursUsed, countsFromOn) => {
  expect(pointByShare(task('it', { triggers }), used, NOON, 'UTC')).toEqual({
    task: 'it',
    hoursUsed,
    countsFromOn,
  });
});
