import { day, done, history, only, read, task } from './fixtures.js';
import type { Deferral, StartingPointFact } from './history.js';
import { standing } from './standing.js';

/** 8 h a day: 500 h on day 62.5. */
const upTo = (days: number) => [read(0, 0), read(days, days * 8)];
const plan = { tasks: [task('oil'), task('relief', { safety: true })] };

function deferral(code: string, on: number, more: Partial<Deferral>): Deferral {
  return { task: code, deferredAt: day(on), recordedAt: day(on), reason: 'No part', ...more };
}

describe('putting off', () => {
  test('waits until its hours', () => {
    const past = (days: number) =>
      history({ readings: upTo(days), deferrals: [deferral('oil', 63, { untilHours: 540 })] });
    expect(only(plan, past(64), 64, 'oil')).toMatchObject({
      state: 'put-off',
      dueAtHours: 500,
      deferral: { reason: 'No part', untilHours: 540, untilOn: null, risk: null },
    });
    // 540 h on day 67.5.
    expect(only(plan, past(67), 67, 'oil').state).toBe('put-off');
    expect(only(plan, past(68), 68, 'oil')).toMatchObject({ state: 'due', deferral: null });
  });

  test('waits until its day, whichever comes first; and the standing says when it changes', () => {
    // Day 66 is 8 March.
    const past = history({
      readings: upTo(64),
      deferrals: [deferral('oil', 63, { untilHours: 540, untilOn: '2026-03-08' })],
    });
    expect(only(plan, past, 65.9, 'oil').state).toBe('put-off');
    expect(only(plan, past, 66, 'oil').state).toBe('due');
    expect(standing({ tasks: [task('oil')] }, past, day(64)).steadyUntil).toBe(day(66));
  });

  test('doing the work ends it; what is not yet nearing is not waiting', () => {
    const deferrals = [deferral('oil', 63, { untilHours: 560 })];
    const past = history({ readings: upTo(65), services: [done(64, ['oil'])], deferrals });
    expect(only(plan, past, 65, 'oil')).toMatchObject({ state: 'fresh', deferral: null });
  });

  test('before it was put off, it was not', () => {
    const readings = [read(0, 0), read(63, 504), read(64, 512)];
    const past = history({ readings, deferrals: [deferral('oil', 63.5, { untilHours: 560 })] });
    expect(only(plan, past, 63, 'oil').state).toBe('due');
    // The same moment, as known before it was recorded.
    const late = history({
      readings,
      deferrals: [{ ...deferral('oil', 62.6, { untilHours: 560 }), recordedAt: day(64) }],
    });
    expect(standing(plan, late, day(63), day(63.5)).tasks.find(({ code }) => code === 'oil')!.state).toBe(
      'due',
    );
    expect(only(plan, late, 63, 'oil').state).toBe('put-off');
  });

  test('a safety task is not put off without naming the risk, and stays in sight when it is', () => {
    const without = history({ readings: upTo(63), deferrals: [deferral('relief', 63, { untilHours: 560 })] });
    expect(only(plan, without, 63, 'relief').state).toBe('overdue');
    const named = history({
      readings: upTo(63),
      deferrals: [deferral('relief', 63, { untilHours: 560, risk: 'Overpressure unnoticed' })],
    });
    const { tasks } = standing(plan, named, day(63));
    expect(tasks[0]).toMatchObject({
      code: 'relief',
      state: 'put-off',
      deferral: { risk: 'Overpressure unnoticed' },
    });
  });

  test('an ordinary one gives way to what is not known', () => {
    const both = {
      tasks: [task('oil'), task('else', { triggers: [{ kind: 'condition', check: 'pump-up', limit: 100 }] })],
    };
    const past = history({ readings: upTo(63), deferrals: [deferral('oil', 63, { untilHours: 560 })] });
    expect(standing(both, past, day(63)).tasks.map(({ code }) => code)).toEqual(['else', 'oil']);
  });
});

describe('a machine whose history is not known', () => {
  const unknown = (startingPoints: StartingPointFact[], services = [] as ReturnType<typeof done>[]) =>
    history({ history: 'unknown', readings: upTo(60), startingPoints, services });
  const set = (more: Partial<StartingPointFact>): StartingPointFact => ({
    task: 'oil',
    setAt: day(60),
    recordedAt: day(60),
    basis: 'inspection',
    ...more,
  });

  test('stays unknown until an inspection or an estimate sets where it counts from', () => {
    expect(only(plan, unknown([]), 60, 'oil')).toMatchObject({ state: 'unknown', startedBy: null });
    // 480 h on day 60: as good as new, so 500 h on.
    expect(only(plan, unknown([set({})]), 60, 'oil')).toMatchObject({
      state: 'fresh',
      startedBy: 'inspection',
      dueAtHours: 980,
      lastDoneAt: null,
    });
    // Half used: 250 h of it are gone.
    expect(only(plan, unknown([set({ hoursUsed: 250 })]), 60, 'oil').dueAtHours).toBe(730);
    // Done about 11 January, by what people remember: 80 h on the meter then.
    const estimate = set({ basis: 'estimate', countsFromOn: '2026-01-11' });
    expect(only(plan, unknown([estimate]), 60, 'oil')).toMatchObject({
      startedBy: 'estimate',
      dueAtHours: 580,
    });
  });

  test('what keeps somebody safe is due until it was seen, whatever was estimated', () => {
    const guessed = set({ task: 'relief', basis: 'estimate', countsFromOn: '2026-02-20' });
    for (const facts of [[], [guessed]]) {
      expect(only(plan, unknown(facts), 60, 'relief')).toMatchObject({ state: 'due', startedBy: null });
    }
    const seen = set({ task: 'relief' });
    expect(only(plan, unknown([seen]), 60, 'relief')).toMatchObject({
      state: 'fresh',
      startedBy: 'inspection',
    });
    // An estimate after it takes nothing away.
    expect(only(plan, unknown([seen, { ...guessed, setAt: day(60) + 1 }]), 61, 'relief').startedBy).toBe(
      'inspection',
    );
  });

  test('months count from the day that was said', () => {
    const yearly = { tasks: [task('oil', { triggers: [{ kind: 'calendar', every: { months: 12 } }] })] };
    expect(only(yearly, unknown([set({ countsFromOn: '2025-06-15' })]), 60, 'oil').dueOn).toBe('2026-06-15');
    expect(only(yearly, unknown([set({})]), 60, 'oil').dueOn).toBe('2027-03-02');
  });

  test('a first interval is for new machines; the work itself counts more than any estimate before it', () => {
    const broken = { tasks: [task('oil', { triggers: [{ kind: 'hours', every: 500, first: 50 }] })] };
    expect(only(broken, unknown([set({ hoursUsed: 0 })]), 60, 'oil').dueAtHours).toBe(980);
    const worked = history({
      history: 'unknown',
      readings: upTo(70),
      startingPoints: [set({})],
      services: [done(65, ['oil'])],
    });
    expect(only(plan, worked, 70, 'oil')).toMatchObject({ startedBy: 'done', dueAtHours: 1020 });
    // An estimate made after it is the later word.
    const corrected = { ...worked, startingPoints: [set({ setAt: day(68), hoursUsed: 100 })] };
    expect(only(plan, corrected, 70, 'oil')).toMatchObject({ startedBy: 'inspection', dueAtHours: 944 });
  });
});

describe('receivers and cylinders', () => {
  const vessel = {
    id: 'v',
    tag: 'R-1',
    kind: 'receiver',
    recordedAt: day(0),
    testEveryMonths: 60,
    inspectEveryMonths: 12,
    records: [] as { kind: 'test' | 'inspection'; doneOn: string; passed: boolean; recordedAt: number }[],
  } as const;
  const record = (kind: 'test' | 'inspection', doneOn: string, passed = true) => ({
    kind,
    doneOn,
    passed,
    recordedAt: day(0),
  });
  const at = (records: typeof vessel.records, on: number) =>
    standing({ tasks: [] }, history({ vessels: [{ ...vessel, records }] }), day(on)).tasks;

  test('their dates are due like tasks, and safety', () => {
    const dates = at([record('test', '2024-03-10'), record('inspection', '2025-01-15')], 0);
    expect(dates.map(({ code, dueOn, state, safety }) => [code, dueOn, state, safety])).toEqual([
      ['vessel-inspection:v', '2026-01-15', 'nearing', true],
      ['vessel-test:v', '2029-03-10', 'fresh', true],
    ]);
    expect(dates[0]!.vessel).toEqual({ id: 'v', tag: 'R-1', examination: 'inspection' });
    // One day past its date it is late.
    expect(at([record('inspection', '2025-01-15')], 15)[0]).toMatchObject({ state: 'overdue' });
  });

  test('without a date nobody knows; what failed is late at once', () => {
    expect(at([], 0).map(({ state }) => state)).toEqual(['unknown', 'unknown']);
    const failed = at([record('inspection', '2025-12-01'), record('inspection', '2025-12-20', false)], 0);
    expect(failed.find(({ code }) => code === 'vessel-inspection:v')).toMatchObject({
      state: 'overdue',
      dueOn: '2025-12-20',
    });
  });
});
