import type { FleetCompressorView } from '@entretien/contracts';
import type { TaskState } from '@entretien/core/plan';
import { groupBySite, headline, describeReadingNeed, compressorsToRead, waitingWork } from './today-list.js';

const NOW = Date.UTC(2026, 10, 24, 9);
const daysAgo = (days: number) => new Date(NOW - days * 86_400_000).toISOString();

function unit(
  tag: string,
  siteId: string,
  states: readonly (readonly [string, TaskState])[],
  more: Partial<FleetCompressorView> = {},
): FleetCompressorView {
  const counts = { fresh: 0, 'put-off': 0, unknown: 0, nearing: 0, due: 0, overdue: 0 };
  for (const [, state] of states) counts[state] += 1;
  const tasks = states.map(([name, state]) => ({ name, code: name, state, coveredBy: null }));
  return {
    tag,
    siteId,
    siteName: `The ${siteId}`,
    counts,
    tasks,
    lastReadingAt: daysAgo(1),
    runHoursBasis: 'extrapolated',
    ...more,
  } as unknown as FleetCompressorView;
}

const late = unit('CJ-1', 'joinery', [
  ['oil', 'overdue'],
  ['belt', 'nearing'],
]);
const due = unit('CJ-2', 'joinery', [['oil', 'due']]);
const near = unit('SP-1', 'pass', [
  ['belt', 'nearing'],
  ['valves', 'fresh'],
]);
const calm = unit('HC-1', 'creamery', [['valves', 'fresh']]);

test('sites come in the order of their most urgent unit', () => {
  const groups = groupBySite([late, near, due, calm]);
  expect(groups.map((group) => [group.siteId, group.units.map((one) => one.tag)])).toEqual([
    ['joinery', ['CJ-1', 'CJ-2']],
    ['pass', ['SP-1']],
    ['creamery', ['HC-1']],
  ]);
});

test.each([
  [
    { overdue: 1, due: 1, nearing: 1 },
    1,
    '1 unit is late',
    'at one site, 1 due, 1 nearing. Coppel Joinery comes first.',
  ],
  [
    { overdue: 1200, due: 0, nearing: 0 },
    2,
    '1,200 units are late',
    'at 2 sites. Coppel Joinery comes first.',
  ],
  [{ overdue: 0, due: 1, nearing: 2 }, 0, 'Nothing is late.', '1 due, 2 nearing.'],
  [{ overdue: 0, due: 0, nearing: 0 }, 0, 'Nothing is late.', ''],
])('the day in two sentences: %j', (states, overdueSites, lead, rest) => {
  const compressorsByState = { fresh: 5, 'put-off': 0, unknown: 0, ...states };
  expect(headline({ compressorsByState, overdueSites }, 'Coppel Joinery')).toEqual({ lead, rest });
});

test('what is to be read is what has grown vague, the vaguest first, and what was never read before all', () => {
  const need = (daysSince: number | null, spreadDays: number | null) => ({
    readingNeed: { daysSince, spreadDays, spreadIfReadDays: null },
  });
  const units = [
    unit('A', 's', [], need(41, 12)),
    unit('B', 's', [], { readingNeed: null }),
    unit('C', 's', [], need(null, null)),
    unit('D', 's', [], need(20, 30)),
  ];
  expect(compressorsToRead(units).map((one) => one.tag)).toEqual(['C', 'D', 'A']);
});

test.each([
  [41.6, 12.2, 'no reading for 41 days; forecast has become ±12 days'],
  [100, null, 'no reading for 100 days'],
  [null, null, 'never read'],
])('why it should be read: %p days, ±%p', (daysSince, spreadDays, text) => {
  expect(describeReadingNeed({ daysSince, spreadDays, spreadIfReadDays: null })).toBe(text);
});

test('waiting work is counted by kind, under its most pressing state', () => {
  expect(waitingWork([late, due, near, calm])).toEqual([
    { name: 'oil', state: 'overdue', count: 2 },
    { name: 'belt', state: 'nearing', count: 2 },
  ]);
});
