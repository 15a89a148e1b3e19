import {
  defaultPlan,
  standingOf,
  stickerProblem,
  type CompressorHistory,
  type StickerLine,
} from './index.js';

const DAY = 86_400_000;
const NOON = Date.UTC(2026, 10, 24, 12);
const history: CompressorHistory = {
  timeZone: 'UTC',
  commissionedOn: '2026-11-01',
  history: 'unknown',
  declaredHoursPerWeek: 40,
  readings: [
    { takenAt: NOON - 20 * DAY, recordedAt: NOON - 20 * DAY, hours: 6000, counts: 'total', source: 'typed' },
    { takenAt: NOON - DAY, recordedAt: NOON - DAY, hours: 6120, counts: 'total', source: 'typed' },
  ],
  meterChanges: [],
  services: [],
};
const oil = { name: 'Oil change' };
const relief = { name: 'Relief valve', safety: true };
const codeOf = (line: StickerLine, task: { name: string; safety?: boolean } = oil, of = history) =>
  stickerProblem(line, task, NOON, of)?.code ?? null;

test.each<[string, StickerLine, string | null]>([
  ['both, as it may have been', { countsFromOn: '2026-05-02', hoursThen: 5100 }, null],
  ['a day alone', { countsFromOn: '2019-01-01' }, null],
  ['hours alone', { hoursThen: 5100 }, null],
  ['nothing', {}, 'nothing-said'],
  ['a day that is still to come', { countsFromOn: '2026-11-25' }, 'in-the-future'],
  ['today', { countsFromOn: '2026-11-24', hoursThen: 6130 }, null],
  // The last reading is a day old: 24 h since, and the day itself.
  ['the most that it can show today', { hoursThen: 6120 + 24 + 24 }, null],
  ['more than it can show today', { hoursThen: 6120 + 24 + 25 }, 'ahead-of-meter'],
  ['the figure that it is next due at', { countsFromOn: '2026-05-02', hoursThen: 7100 }, 'ahead-of-meter'],
  ['more than a reading after it', { countsFromOn: '2026-11-02', hoursThen: 6030 }, 'ahead-of-meter'],
  ['less than a reading long before it', { countsFromOn: '2026-11-20', hoursThen: 5900 }, 'behind-meter'],
])('a sticker with %s', (_name, line, code) => {
  expect(codeOf(line)).toBe(code);
});

test('hours alone do not say when a safety task was done: nobody lets them', () => {
  expect(codeOf({ hoursThen: 5100 }, relief)).toBe('needs-day');
  expect(codeOf({ countsFromOn: '2026-05-02', hoursThen: 5100 }, relief)).toBeNull();
});

test('since a machine is on record a test counts with its result, and no sticker stands for it', () => {
  // Its first reading was written down on 4 November.
  expect(codeOf({ countsFromOn: '2026-11-04' }, relief)).toBeNull();
  expect(codeOf({ countsFromOn: '2026-11-05' }, relief)).toBe('test-since');
  expect(codeOf({ countsFromOn: '2026-11-05' }, oil)).toBeNull();
  expect(codeOf({ countsFromOn: '2026-11-20' }, relief, { ...history, readings: [] })).toBeNull();
});

test('after a meter was changed a figure is of the meter of its day', () => {
  const change = {
    changedAt: NOON - 10 * DAY,
    recordedAt: NOON - 10 * DAY,
    oldFinalHours: 6060,
    newStartHours: 0,
    reason: 'replaced' as const,
  };
  const after = {
    takenAt: NOON - DAY,
    recordedAt: NOON - DAY,
    hours: 60,
    counts: 'total',
    source: 'typed',
  } as const;
  const changed = { ...history, meterChanges: [change], readings: [history.readings[0]!, after] };
  expect(codeOf({ countsFromOn: '2026-10-01', hoursThen: 5900 }, oil, changed)).toBeNull();
  expect(codeOf({ countsFromOn: '2026-11-20', hoursThen: 40 }, oil, changed)).toBeNull();
  // The new meter has not run that far, whatever the old one showed.
  expect(codeOf({ countsFromOn: '2026-11-20', hoursThen: 5900 }, oil, changed)).toBe('ahead-of-meter');
  expect(codeOf({ hoursThen: 5900 }, oil, changed)).toBe('ahead-of-meter');
});

describe('where tasks count from', () => {
  const plan = defaultPlan({
    siteId: 's',
    tag: 'S-1',
    family: 'screw',
    commissionedOn: '2026-11-01',
    history: 'unknown',
    oilGrade: 'mineral',
  });
  const standing = (line: StickerLine, task = 'oil-change') => {
    const point = { task, setAt: NOON, recordedAt: NOON, basis: 'sticker' as const, ...line };
    const { tasks } = standingOf(plan, { ...history, startingPoints: [point] }, NOON + 1);
    return tasks.find(({ code }) => code === task)!;
  };

  test('a day and hours: both rules count from there', () => {
    // Mineral oil: 2,000 h from 5,100 h, or 24 months from 2 May 2026.
    const { startedBy, dueAtHours, dueOn } = standing({ countsFromOn: '2026-05-02', hoursThen: 5100 });
    expect([startedBy, dueAtHours, dueOn]).toEqual(['sticker', 7100, '2028-05-02']);
  });

  test('hours alone: the day is the one when it likely had them', () => {
    const { dueAtHours, dueOn } = standing({ hoursThen: 6060 });
    expect(dueAtHours).toBe(8060);
    // Read at 6,000 h on the 4th and 6,120 h on the 23rd of November: halfway between.
    expect(dueOn).toBe('2028-11-14');
  });

  test('a safety task counts from the day of its sticker, and from hours alone not at all', () => {
    expect(standing({ countsFromOn: '2026-05-02' }, 'relief-test')).toMatchObject({
      startedBy: 'sticker',
      dueOn: '2027-05-02',
    });
    expect(standing({ hoursThen: 6000 }, 'relief-test')).toMatchObject({ startedBy: null, state: 'due' });
  });
});
