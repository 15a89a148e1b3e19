import { hourClockOf } from './clock.js';
import { day, history, read } from './fixtures.js';
import { judgeHoursPoint, withoutPoint, type Moment } from './judged.js';
import { planSchemas } from './plan-file.js';
import {
  judgeTrigger,
  describeTrigger,
  scaled,
  triggerKind,
  triggerKindsOf,
  triggerModules,
  triggerProblem,
} from './triggers/index.js';

// Due after so many starts, which come so many to the hour: a kind that nobody but this file knows.
const starts = triggerKind<{ kind: 'starts'; every: number; perHour: number }>({
  kind: 'starts',
  name: 'Starts',
  fields: [
    { name: 'every', as: 'figure', label: 'Every', unit: 'starts', min: 1, max: 1_000_000 },
    { name: 'perHour', as: 'figure', label: 'Starts in an hour', min: 0.1, max: 100 },
  ],
  usual: () => ({ every: 5000, perHour: 6 }),
  text: ({ every }) => `every ${every} starts`,
  judge(trigger, task, start, moment) {
    if (start?.hours === undefined || start.hours === null) return withoutPoint(trigger, 'no-start');
    const span = trigger.every / trigger.perHour;
    return judgeHoursPoint(
      trigger,
      task,
      start,
      { due: start.hours + span, span, window: span / 10 },
      moment,
    );
  },
  scaled: (trigger, { hours }) => ({ ...trigger, every: trigger.every * hours }),
  problem: ({ every, perHour }) => (every < perHour ? 'it would be due within the hour.' : null),
});

const kinds = triggerKindsOf([...triggerModules, starts]);
const trigger = { kind: 'starts', every: 5000, perHour: 10 } as const;
const held = { kind: 'not-before', trigger, floor: { kind: 'hours', every: 700 } } as const;

test('it is judged by itself and held back by another, as every kind is', () => {
  const known = history({ readings: [read(0, 0), read(60, 600)] });
  const at = day(60);
  const moment: Moment = { at, hours: 600, clock: hourClockOf(known, at), history: known };
  const start = { basis: 'commissioned', at: day(0), hours: 0, day: 0, doneAt: null } as const;
  const task = { counting: 'last-done' } as const;
  // 5,000 starts at ten an hour are 500 h: they were up a hundred hours ago.
  expect(judgeTrigger(trigger, task, start, moment, kinds)).toMatchObject({ point: 500, state: 'overdue' });
  expect(judgeTrigger(held, task, start, moment, kinds)).toMatchObject({ point: 700, state: 'fresh' });
  expect(() => judgeTrigger(trigger, task, start, moment)).toThrow('no kind of trigger called starts');
});

test('it is worded, scaled and questioned', () => {
  expect(describeTrigger(held, undefined, kinds)).toBe('every 5000 starts, not before 700 h');
  expect(scaled(held, { hours: 0.5, calendar: 1 }, kinds).trigger).toMatchObject({ every: 2500 });
  expect(triggerProblem({ ...trigger, every: 5 } as never, kinds)).toBe('it would be due within the hour.');
});

test('it stands in the schema of the plan file, with its bounds', () => {
  const { file } = planSchemas([...triggerModules, starts]);
  expect(file.$defs).toMatchObject({
    starts: {
      properties: { kind: { const: 'starts' }, every: { minimum: 1, maximum: 1_000_000 } },
      required: ['kind', 'every', 'perHour'],
      additionalProperties: false,
    },
  });
  expect(JSON.stringify(file.$defs.task)).toContain('#/$defs/starts');
});
