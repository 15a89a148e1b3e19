import seedrandom from 'seedrandom';
import { DAY_MS } from '../basics/index.js';
import type { HourReading } from '../hours/index.js';
import {
  clockForecast,
  comingPoints,
  defaultPlan,
  describeExplanation,
  explainAll,
  hourClockOf,
  historyUpTo,
  judgePlan,
  meterQuestion,
  pointByShare,
  readingNeed,
  useWarning,
  type CompressorHistory,
  type MeasuredFact,
  type ServiceRecord,
} from '../plan/index.js';
import { machines } from './machines.js';
import { onDay, shown } from './shown.js';

/* What is due on machines unlike each other, and why, as it was read and approved. */

interface Past {
  readonly days: number;
  readonly perDay: (day: number, random: () => number) => number;
  readonly more?: (plate: string) => Partial<CompressorHistory>;
}

const served = (day: number, tasks: string[], hours?: number): ServiceRecord => ({
  doneAt: onDay(day),
  recordedAt: onDay(day),
  tasks,
  hours,
});
const measured = (
  day: number,
  check: string,
  value: number,
  more: Partial<MeasuredFact> = {},
): MeasuredFact => ({
  check,
  takenAt: onDay(day),
  recordedAt: onDay(day),
  value,
  uncertainty: 0.02,
  ...more,
});

const pasts: Record<string, Past> = {
  'never read': { days: -1, perDay: () => 0 },
  declared: {
    days: -1,
    perDay: () => 0,
    more: () => ({
      declaredHoursPerWeek: 40,
      closedWeekdays: [6, 7],
      place: { dust: 'dusty', humidity: 'damp' },
    }),
  },
  young: { days: 40, perDay: () => 6 },
  'three years': {
    days: 1000,
    perDay: (day, random) => (day % 7 >= 5 ? 0 : 5 + 4 * random()),
    more: () => ({
      place: { dust: 'dusty', humidity: 'damp', oilRatedTempC: 85 },
      services: [
        served(200, ['oil-change', 'oil-filter', 'intake-clean', 'belt-check']),
        served(420, ['oil-change', 'first-service', 'valves-inspect', 'cartridge-replace'], 2070),
        served(880, ['oil-change', 'oil-filter', 'intake-replace', 'separator-replace', 'cartridge-replace']),
      ],
      measurements: [300, 500, 700, 900, 990].flatMap((day, index) => [
        measured(day, 'separator-drop', 0.3 + 0.12 * index),
        measured(day, 'discharge-temp', 82 + 3 * index, { tempC: 82 + 3 * index }),
        measured(day, 'belt-deflection', 8 + 2 * index),
        measured(day, 'pump-up', 60 + 4 * index, { baseline: index === 0 }),
        measured(day, 'water-content', 12 + 5 * index),
      ]),
      deferrals: [
        {
          task: 'oil-filter',
          deferredAt: onDay(990),
          recordedAt: onDay(990),
          untilOn: '2026-12-01',
          reason: 'No filter',
        },
        {
          task: 'relief-test',
          deferredAt: onDay(980),
          recordedAt: onDay(980),
          untilHours: 9000,
          reason: 'Later',
          risk: 'It may not open.',
        },
      ],
      startingPoints: [
        {
          task: 'valves-inspect',
          setAt: onDay(600),
          recordedAt: onDay(600),
          basis: 'inspection',
          hoursUsed: 100,
        },
        {
          task: 'hoses-inspect',
          setAt: onDay(600),
          recordedAt: onDay(600),
          basis: 'estimate',
          countsFromOn: '2025-01-01',
        },
      ],
      meterChanges: [
        {
          changedAt: onDay(700) + 1,
          oldFinalHours: 3600,
          newStartHours: 0,
          reason: 'replaced',
          recordedAt: onDay(701),
        },
      ],
    }),
  },
  'used five times as much': { days: 400, perDay: (day) => (day < 345 ? 1.2 : 6) },
  'stands still': { days: 500, perDay: (day) => (day < 380 ? 5 : 0) },
  'a meter that cannot be new': { days: 200, perDay: () => 9 },
};

function readings({ days, perDay, more }: Past, name: string): HourReading[] {
  const random = seedrandom(name);
  const changedAt = more?.(name).meterChanges?.[0]?.changedAt ?? Infinity;
  const found: HourReading[] = [];
  let [hours, taken] = [name.startsWith('a meter') ? 4000 : 0, 0];
  for (let day = 0; day <= days; day++) {
    const takenAt = onDay(day);
    if (takenAt > changedAt && taken === 0) [taken, hours] = [1, 0];
    if (day % 9 === 0)
      found.push({
        takenAt,
        hours: Math.round(hours),
        counts: 'total',
        source: 'typed',
        recordedAt: takenAt,
      });
    hours += perDay(day, random);
  }
  return name.startsWith('a meter') ? found.slice(10) : found;
}

function historyOf(name: string, plate: string): CompressorHistory {
  const past = pasts[name]!;
  const { commissionedOn, history } = machines[plate]!;
  return {
    timeZone: 'Europe/Zurich',
    commissionedOn,
    history,
    meterChanges: [],
    services: [],
    readings: readings(past, name),
    ...past.more?.(plate),
  };
}

const cases = [
  ...Object.keys(pasts).map((past) => [past, 'screw'] as const),
  ...['piston', 'filling', 'dive'].map((plate) => ['three years', plate] as const),
  ['never read', 'dive'] as const,
  ['declared', 'filling'] as const,
];

test.each(cases)('what is due, and why: %s, %s', (name, plate) => {
  const plan = defaultPlan(machines[plate]!);
  const at = onDay(Math.max(30, pasts[name]!.days) + 12);
  const history = historyUpTo(historyOf(name, plate), at, Infinity);
  const judged = judgePlan(plan, history, at);
  const { tasks, ...rest } = judged.standing;
  const why = explainAll(judged);
  const coming = comingPoints(plan, history, at, 3);
  const clock = hourClockOf(history, at);
  const lines = [
    shown(rest),
    shown([
      judged.useChange(),
      meterQuestion(history, at),
      readingNeed(clock, tasks, at),
      useWarning(clock, tasks, at, history.timeZone),
      clockForecast(clock, 5000),
    ]),
    ...tasks.map((task) =>
      [
        shown(task),
        ...(why.has(task.code)
          ? describeExplanation(why.get(task.code)!, history.timeZone).map(({ text }) => `  ${text}`)
          : []),
        `  then ${shown(coming.get(task.code) ?? [])}`,
      ].join('\n'),
    ),
  ];
  expect(lines.join('\n')).toMatchSnapshot();
});

test('where a task counts from by what was found', () => {
  const lines = Object.values(machines).flatMap((plate) =>
    defaultPlan(plate).tasks.flatMap((task) =>
      [0, 0.25, 0.5, 1].map(
        (used) => `${task.code} ${used} ${shown(pointByShare(task, used, onDay(500), 'UTC'))}`,
      ),
    ),
  );
  expect([...new Set(lines)].join('\n')).toMatchSnapshot();
});

test('what had not happened yet, or was not known yet, is left out', () => {
  const history = historyOf('three years', 'screw');
  const asked = [100, 421, 700, 985, 1010].map((day) => {
    const then = historyUpTo(history, onDay(day), onDay(day) - DAY_MS);
    const { readings: read, ...facts } = then;
    return `${day} ${read.length} ${shown(facts)}`;
  });
  expect(asked.join('\n')).toMatchSnapshot();
});
