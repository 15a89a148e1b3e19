import seedrandom from 'seedrandom';
import {
  describeEstimate,
  describeUseChange,
  fitUse,
  forecastHours,
  guessImport,
  guessMeterChange,
  hoursAhead,
  hoursFromAir,
  hoursFromCycles,
  hourSeries,
  logProblem,
  meterChangeProblem,
  methodOf,
  presentRate,
  readImportRow,
  readingMarks,
  readingProblem,
  readingWorth,
  runHoursOf,
  whenLikely,
  declaredTime,
  type HourLog,
  type HourReading,
  type ImportMapping,
} from '../hours/index.js';
import { FIRST_DAY, onDay, shown } from './shown.js';

/** Hours run on each day, by habits unlike each other. */
const habits: Record<string, (day: number, random: () => number) => number> = {
  steady: () => 8,
  workshop: (day, random) => (day % 7 >= 5 ? 0 : 6 * (0.7 + 0.6 * random())),
  winter: (day, random) => (Math.cos((2 * Math.PI * (day - 15)) / 365.25) > 0.2 ? 4 + 2 * random() : 0.1),
  'five times as much': (day, random) => (day < 640 ? 1.2 : 6) * (0.8 + 0.4 * random()),
  stopped: (day) => (day < 600 ? 5 : 0),
  growing: (day, random) => 3 * Math.exp(day / 700) * (0.8 + 0.4 * random()),
  bursts: (_day, random) => (random() < 0.1 ? 20 : 0),
};

function logOf(use: (typeof habits)[string], days: number, gap: number, seed: string): HourLog {
  const random = seedrandom(seed);
  const readings: HourReading[] = [];
  let hours = 0;
  for (let day = 0; day <= days; day++) {
    if (day % gap === 0) {
      const takenAt = onDay(day);
      readings.push({
        takenAt,
        hours: Math.round(hours),
        counts: 'total',
        source: 'typed',
        recordedAt: takenAt,
      });
    }
    hours += use(day, random);
  }
  return { readings, meterChanges: [] };
}

const weekly = (weeks: number) => ({
  declaredHoursPerWeek: weeks,
  closedWeekdays: [6, 7],
  closures: ['2024-02-01/2024-02-14'],
});

test.each(
  Object.entries(habits).flatMap(([name, use]) =>
    [
      [28, 7],
      [364, 14],
      [728, 7],
    ].map(([days, gap]) => [`${name}, ${days} days`, use, days!, gap!] as const),
  ),
)('what is foreseen: %s', (name, use, days, gap) => {
  const runHours = runHoursOf(logOf(use, days, gap, name));
  const at = onDay(days) + 20 * 3_600_000;
  const lines = [undefined, 40].map((declaredHoursPerWeek) => {
    const model = fitUse({ runHours, declaredHoursPerWeek })!;
    const last = runHours.hours.at(-1)!;
    const figures = [last - 10, last + 50, last + 500, last + 5000];
    return [
      `${methodOf(model)} ${shown(presentRate(model, at))} ${shown(model.change)}`,
      model.change ? describeUseChange(model.change, 'UTC') : '',
      ...figures.map((hours) =>
        shown([forecastHours(model, runHours, hours), whenLikely(model, runHours, hours)]),
      ),
      shown([1, 30, 400].map((ahead) => hoursAhead(model, onDay(days + ahead)))),
      shown(readingWorth(model, last + 300, onDay(days + 21))),
    ].join('\n');
  });
  expect(lines.join('\n')).toMatchSnapshot();
});

test('without readings the declared duty is followed, and without either nothing', () => {
  const one = runHoursOf({
    readings: [{ takenAt: FIRST_DAY, hours: 12, counts: 'total', source: 'typed', recordedAt: FIRST_DAY }],
    meterChanges: [],
  });
  const lines = [undefined, 5, 40, 200].map((declaredHoursPerWeek) => {
    const declared = declaredHoursPerWeek === undefined ? {} : weekly(declaredHoursPerWeek);
    const time = (from: number) => declaredTime(declared as never, 'UTC', from)!;
    const model = fitUse({
      runHours: one,
      declaredHoursPerWeek,
      ...(declaredHoursPerWeek === undefined ? {} : { declaredTime: time }),
    })!;
    return shown([methodOf(model), forecastHours(model, one, 500), hoursAhead(model, onDay(60))]);
  });
  expect([
    fitUse({ runHours: { at: [], hours: [], counts: 'total', lastEstimated: false } }),
    ...lines,
  ]).toMatchSnapshot();
});

const mapping: ImportMapping = {
  unit: 0,
  date: 1,
  time: 2,
  hours: 3,
  counts: 4,
  note: 5,
  decimal: 'point',
  dateOrder: 'dmy',
  timeZone: 'Europe/Zurich',
};

test('rows of a list, written in every way', () => {
  const figures = [
    '1234.5',
    '1,234.5',
    '1 234',
    "1'234",
    '1.234,5',
    '1,234',
    '12,34',
    '-1',
    '',
    'x',
    '1000001',
    '1e3',
    '1.2.3',
    '12h',
    '12 h',
  ];
  const dates = [
    '24.11.2026',
    '24/11/26',
    '2026-11-24',
    '31.2.2026',
    '',
    '24.11.2026 08:15',
    '1.1.1800',
    '24.13.2026',
    '24 Nov 2026',
  ];
  const counters = ['total', 'loaded', 'Load', 'TOTAL', '', 'half', 'under load', 'running'];
  const rows = [
    ...figures.map((hours) => ['CJ-1', '24.11.2026', '08:15', hours, '', '']),
    ...dates.map((date) => ['CJ-1', date, date.includes(':') ? '' : '8:15', '100', '', '']),
    ...['', '8', '25:00', '8.15', '08:15:30', '8:15 pm'].map((time) => [
      'CJ-1',
      '24.11.2026',
      time,
      '1',
      '',
      '',
    ]),
    ...counters.map((counter) => ['CJ-1', '24.11.2026', '', '1', counter, '']),
    ...['', " 'CJ-1", "'=1+1", '  '].map((unit) => [unit, '24.11.2026', '', '1', '', "'+49"]),
    ['CJ-1', '24.11.2026', '', '1', '', 'n'.repeat(2001)],
    ['CJ-1'],
  ];
  const read = rows.flatMap((row) =>
    (['point', 'comma'] as const).map(
      (decimal) =>
        `${shown(row).slice(0, 80)} ${decimal} ${shown(readImportRow(row, { ...mapping, decimal }))}`,
    ),
  );
  expect(read.join('\n')).toMatchSnapshot();
});

test('which column is what', () => {
  const lists: readonly (readonly [string[], string[][]])[] = [
    [['Tag', 'Date', 'Hours'], [['A', '2026-11-24', '1234.5']]],
    [['Unit', 'Datum', 'Zeit', 'Stunden', 'Notiz'], [['A', '24.11.2026', '8:15', '1.234,5', 'ok']]],
    [
      ['Machine', 'Taken at', 'Run hours', 'Counts'],
      [
        ['A', '11/24/2026', '1,234', 'loaded'],
        ['A', '11/2/2026', '1,240', 'loaded'],
      ],
    ],
    [
      ['a', 'b', 'c'],
      [
        ['A', '1/2/2026', '3'],
        ['A', '13/2/2026', '4'],
      ],
    ],
    [['a', 'b'], []],
    [
      ['Hours', 'Unit'],
      [
        ['12,5', 'A'],
        ['13', 'B'],
        ['14,25', 'C'],
      ],
    ],
    [
      ['Hours', 'Unit'],
      [
        ['12.5', 'A'],
        ['1,300.25', 'B'],
      ],
    ],
  ];
  expect(lists.map(([columns, rows]) => shown(guessImport(columns, rows))).join('\n')).toMatchSnapshot();
});

const reading = (day: number, hours: number, more: Partial<HourReading> = {}): HourReading => ({
  takenAt: onDay(day),
  hours,
  counts: 'total',
  source: 'typed',
  recordedAt: onDay(day),
  ...more,
});

test('readings and meter changes that cannot be, and what is noticed of those that can', () => {
  const context = { now: onDay(70), timeZone: 'UTC' };
  const steady = logOf(habits['steady']!, 60, 7, 'steady');
  const loaded = [10, 40].map((day) => reading(day, day * 4, { counts: 'loaded' }));
  const log = { ...steady, readings: [...steady.readings, ...loaded] };
  const figures = [0, 100, 447, 448, 470, 600, 2000, 1e7];
  const lines = [30, 57, 63, 69, 75, 200].flatMap((day) =>
    figures.flatMap((hours) => {
      const total = reading(day, hours);
      const half = reading(day, hours, { counts: 'loaded' });
      const change = {
        changedAt: onDay(day),
        oldFinalHours: hours,
        newStartHours: 0,
        reason: 'replaced',
        recordedAt: onDay(day),
      } as const;
      const found = [
        readingProblem(log, total, context),
        readingProblem(log, half, context),
        meterChangeProblem(log, change, context),
        logProblem({ ...log, meterChanges: [change] }, context),
        readingMarks(log, total),
        ...(['replaced', 'rolled-over'] as const).map((reason) =>
          guessMeterChange(reason, steady.readings.at(-1)!, hours, onDay(day)),
        ),
      ];
      return `${day} ${hours} ${shown(found)}`;
    }),
  );
  expect(lines.join('\n')).toMatchSnapshot();
  const changed = {
    ...log,
    meterChanges: [
      {
        changedAt: onDay(58),
        oldFinalHours: 470,
        newStartHours: 5,
        reason: 'replaced' as const,
        recordedAt: onDay(58),
      },
    ],
  };
  const spans = [
    [0, 60],
    [10, 20],
    [57, 65],
    [90, 99],
  ].flatMap(([from, to]) =>
    (['total', 'loaded'] as const).map((counts) =>
      shown(hourSeries(changed, counts, onDay(from!), onDay(to!))),
    ),
  );
  expect(spans.join('\n')).toMatchSnapshot();
});

test('hours that are estimated', () => {
  const cycles = [-1, 0, 500, 1e8].flatMap((count) =>
    [0, 6, 2000].map((minutes) => hoursFromCycles(count, minutes)),
  );
  const air = [-1, 0, 1e6, 1e12].flatMap((litres) =>
    [0, 500, 300_000].map((fad) => hoursFromAir(litres, fad)),
  );
  const said = [
    describeEstimate({ cycles: 500, pumpUpMinutes: 6.5 }),
    describeEstimate({ airL: 1e6, fadLpm: 500 }),
  ];
  expect([...cycles, ...air, ...said].map(shown).join('\n')).toMatchSnapshot();
});
