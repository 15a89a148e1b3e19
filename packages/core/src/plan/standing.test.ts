import fc from 'fast-check';
import { DAY_MS } from '../basics/index.js';
import { isEstimate } from './clock.js';
import { day, done, history, only, read, task } from './fixtures.js';
import type { CompressorHistory } from './history.js';
import type { ServicePlan } from './service-plan.js';
import { standing, type Standing } from './standing.js';
import type { TaskStanding } from './task-standing.js';
import { taskStates } from './judged.js';

const eightADay = history({ readings: [read(0, 0), read(10, 80)] });

describe('due by hours', () => {
  const plan = { tasks: [task('oil-change')] };

  test('counts from commissioning, and forecasts at average use', () => {
    // 500 h at 8 h a day is 62.5 days: the afternoon of day 62, 4 March 2026.
    expect(only(plan, eightADay, 10)).toMatchObject({
      state: 'fresh',
      usedFraction: expect.closeTo(0.16, 9),
      dueAtHours: 500,
      remainingHours: 420,
      dueOn: null,
      likelyOn: '2026-03-04',
      ruledBy: 'hours',
      lastDoneAt: null,
    });
  });

  test.each([
    // Window: a tenth of 500 h = 50 h. Overdue: past by 50 h or 7 days, whichever is less; at 8 h a day
    // seven days are 56 h, so the 50 h rule.
    [56, 'fresh'], // 448 h
    [56.25, 'nearing'], // 450 h
    [62.4, 'nearing'],
    [62.5, 'due'], // 500 h
    [68.75, 'due'], // 550 h
    [68.8, 'overdue'],
  ])('on day %d it is %s', (at, state) => {
    expect(only(plan, eightADay, at).state).toBe(state);
  });

  test('seven days past make a slow machine overdue long before a tenth of the interval', () => {
    // 1 h a day: due on day 500, and 50 h more would take 50 days.
    const slow = history({ readings: [read(0, 0), read(400, 400)] });
    expect(only(plan, slow, 507).state).toBe('due');
    expect(only(plan, slow, 507.1).state).toBe('overdue');
  });

  test('the interval restarts when the work is done, at the hours it was done', () => {
    const served = { ...eightADay, services: [done(50, ['oil-change'])] };
    expect(only(plan, served, 50)).toMatchObject({ dueAtHours: 900, usedFraction: 0, lastDoneHours: 400 });
  });

  test('hours noted with a service count as a reading', () => {
    const served = history({ readings: [read(0, 0)], services: [done(100, ['oil-change'], 700)] });
    expect(standing(plan, served, day(100))).toMatchObject({
      runHours: 700,
      hoursPerDay: expect.closeTo(7, 6),
    });
    expect(only(plan, served, 100).dueAtHours).toBe(1200);
  });

  test('a machine known from new counts from zero, however late its meter was first read', () => {
    // Commissioned on 1 January, first read on day 90 at 700 h: 500 h were due long ago.
    const late = history({ readings: [read(90, 700)] });
    expect(only({ tasks: [task('oil')] }, late, 90)).toMatchObject({ dueAtHours: 500, state: 'due' });
    // Somebody said that the meter was fitted later: what ran before is not on it.
    const fitted = { ...late, meterFrom: 'later' } as const;
    expect(only({ tasks: [task('oil')] }, fitted, 90).dueAtHours).toBe(1200);
    // More than the clock allows since commissioning: it was no new meter.
    expect(only({ tasks: [task('oil')] }, history({ readings: [read(2, 60)] }), 2).dueAtHours).toBe(560);
  });

  test('a machine taken over at 9,900 h is not counted from zero', () => {
    const taken = history({ readings: [read(30, 9900)] });
    expect(only(plan, taken, 30)).toMatchObject({ dueAtHours: 10400, remainingHours: 500, usedFraction: 0 });
  });

  test('a replaced meter does not move the point', () => {
    const replaced = history({
      readings: [read(0, 9400), read(40, 240)],
      meterChanges: [
        {
          changedAt: day(10),
          oldFinalHours: 9480,
          newStartHours: 0,
          reason: 'replaced',
          recordedAt: day(10),
        },
      ],
      services: [done(20, ['oil-change'], 80)],
    });
    // Served at 80 h on the new meter, which is 9,560 h of running.
    expect(only(plan, replaced, 40)).toMatchObject({ dueAtHours: 10060, remainingHours: 10060 - 9720 });
  });

  test('an idle machine has no date by hours', () => {
    const idle = history({ readings: [read(0, 0), read(10, 80), read(200, 80)] });
    expect(only(plan, idle, 210)).toMatchObject({ dueAtHours: 500, remainingHours: 420, likelyOn: null });
  });
});

describe('the first service', () => {
  const plan = { tasks: [task('oil-change', { triggers: [{ kind: 'hours', every: 500, first: 50 }] })] };

  test('comes once, counted from commissioning', () => {
    expect(only(plan, eightADay, 10)).toMatchObject({ dueAtHours: 50, state: 'overdue' });
    const served = { ...eightADay, services: [done(7, ['oil-change'], 56)] };
    expect(only(plan, served, 10)).toMatchObject({ dueAtHours: 556, state: 'fresh' });
  });

  test('does not come back for a machine whose history is unknown', () => {
    const taken = history({
      history: 'unknown',
      readings: [read(0, 3000)],
      services: [done(0, ['oil-change'], 3000)],
    });
    expect(only(plan, taken, 0).dueAtHours).toBe(3500);
  });

  test('a task for once only leaves the list when it is done', () => {
    const once = {
      tasks: [task('first-service', { once: true, triggers: [{ kind: 'hours', every: 150 }] })],
    };
    expect(only(once, eightADay, 10).dueAtHours).toBe(150);
    const served = { ...eightADay, services: [done(10, ['first-service'])] };
    expect(standing(once, served, day(11)).tasks).toEqual([]);
  });
});

describe('due by the calendar', () => {
  const plan = { tasks: [task('relief-test', { triggers: [{ kind: 'calendar', every: { months: 12 } }] })] };

  test('counts whole months from the local day it was done, and begins with that day', () => {
    const served = history({ timeZone: 'Europe/Zurich', services: [done(30.97, ['relief-test'])] });
    // Day 30.97 is 23:17 UTC on 31 January: already 1 February in Zürich.
    const point = only(plan, served, 31);
    expect(point).toMatchObject({ dueOn: '2027-02-01', likelyOn: '2027-02-01', ruledBy: 'calendar' });
    expect(point.dueAtHours).toBeNull();
    const dueAt = Date.UTC(2027, 0, 31, 23);
    expect(standing(plan, served, dueAt - 1).tasks[0]!.state).toBe('nearing');
    expect(standing(plan, served, dueAt).tasks[0]!.state).toBe('due');
  });

  test('31 January and one month is the end of February', () => {
    const monthly = {
      tasks: [task('co-calibrate', { triggers: [{ kind: 'calendar', every: { months: 1 } }] })],
    };
    expect(only(monthly, history({ services: [done(30, ['co-calibrate'])] }), 30).dueOn).toBe('2026-02-28');
  });

  test.each([
    // 365 days: nearing 36.5 days before; overdue after 7 days, which is less than a tenth.
    [328, 'fresh'],
    [328.5, 'nearing'],
    [365, 'due'],
    [372, 'due'],
    [372.1, 'overdue'],
  ])('on day %d it is %s', (at, state) => {
    expect(only(plan, history(), at).state).toBe(state);
  });

  test('a safety task is late at once', () => {
    const safety = { tasks: [{ ...plan.tasks[0]!, safety: true }] };
    expect(only(safety, history(), 365).state).toBe('due');
    expect(standing(safety, history(), day(365) + 1).tasks[0]!.state).toBe('overdue');
  });

  test('a week-long interval nears for half of it at most', () => {
    const weekly = { tasks: [task('drain', { triggers: [{ kind: 'calendar', every: { days: 7 } }] })] };
    expect(only(weekly, history(), 3).state).toBe('fresh');
    expect(only(weekly, history(), 3.5).state).toBe('nearing');
  });
});

describe('whichever comes first', () => {
  const plan = {
    tasks: [
      task('oil-change', {
        triggers: [
          { kind: 'hours', every: 500 },
          { kind: 'calendar', every: { months: 3 } },
        ],
      }),
    ],
  };

  test('hours for a busy machine', () => {
    expect(only(plan, eightADay, 10)).toMatchObject({
      ruledBy: 'hours',
      dueAtHours: 500,
      remainingHours: 420,
      dueOn: '2026-04-01',
      likelyOn: '2026-03-04',
    });
  });

  test('the calendar for a slow one', () => {
    const slow = history({ readings: [read(0, 0), read(10, 10)] });
    expect(only(plan, slow, 10)).toMatchObject({
      ruledBy: 'calendar',
      dueAtHours: 500,
      remainingHours: 490,
      dueOn: '2026-04-01',
      likelyOn: '2026-04-01',
    });
  });

  test('the calendar alone for an idle one', () => {
    const idle = history({ readings: [read(0, 0), read(10, 0)] });
    expect(only(plan, idle, 95)).toMatchObject({ ruledBy: 'calendar', state: 'due', likelyOn: '2026-04-01' });
  });
});

describe('on the grid', () => {
  const grid = {
    tasks: [task('overhaul', { counting: 'grid', triggers: [{ kind: 'hours', every: 2000 }] })],
  };
  const servedAt = (doneHours: number) =>
    history({ readings: [read(0, 0)], services: [done(doneHours / 20, ['overhaul'], doneHours)] });

  test.each([
    // Done at (h) → next due. Window: 200 h.
    [2000, 4000],
    [2300, 4000], // late: the next does not move
    [1850, 4000], // a little early counts for its point
    [1700, 2000], // far too early does not
    [4100, 6000],
    [3000, 4000],
  ])('done at %d h, next due at %d h', (doneHours, next) => {
    expect(only(grid, servedAt(doneHours), doneHours / 20).dueAtHours).toBe(next);
  });

  test('from last done the same late work would move the next', () => {
    const fromLast = { tasks: [{ ...grid.tasks[0]!, counting: 'last-done' as const }] };
    expect(only(fromLast, servedAt(2300), 115).dueAtHours).toBe(4300);
  });

  test('a machine taken over at 9,900 h meets its grid at 10,000 h', () => {
    expect(only(grid, history({ readings: [read(0, 9900)] }), 0).dueAtHours).toBe(10000);
  });

  test('by months from commissioning, never chained', () => {
    const monthly = {
      tasks: [task('survey', { counting: 'grid', triggers: [{ kind: 'calendar', every: { months: 3 } }] })],
    };
    const late = history({ commissionedOn: '2025-11-30', services: [done(70, ['survey'])] });
    // Grid: 28 February, 30 May, 30 August. Done on 12 March, late for February.
    expect(only(monthly, late, 70).dueOn).toBe('2026-05-30');
    expect(only(monthly, history({ commissionedOn: '2025-11-30' }), 0).dueOn).toBe('2026-02-28');
  });
});

describe('what is not known stays unknown', () => {
  const plan = {
    tasks: [
      task('oil-change'),
      task('relief-test', { triggers: [{ kind: 'calendar', every: { months: 12 } }] }),
    ],
  };

  test('history unknown: no task has a starting point until it is done', () => {
    const taken = history({ history: 'unknown', readings: [read(0, 3000), read(10, 3080)] });
    for (const one of standing(plan, taken, day(10)).tasks) {
      expect(one).toMatchObject({
        state: 'unknown',
        usedFraction: null,
        dueAtHours: null,
        dueOn: null,
        likelyOn: null,
      });
    }
    const inspected = { ...taken, services: [done(10, ['oil-change'], 3080)] };
    expect(only(plan, inspected, 10, 'oil-change')).toMatchObject({ state: 'fresh', dueAtHours: 3580 });
    expect(only(plan, inspected, 10, 'relief-test').state).toBe('unknown');
  });

  test('a new machine not read yet is taken as zero for a week, then unknown', () => {
    expect(standing(plan, history(), day(1))).toMatchObject({
      runHours: 0,
      runHoursBasis: 'assumed',
      hoursPerDay: null,
    });
    expect(only(plan, history(), 1, 'oil-change')).toMatchObject({
      state: 'fresh',
      dueAtHours: 500,
      remainingHours: 500,
    });
    expect(only(plan, history(), 7, 'oil-change')).toMatchObject({ state: 'unknown', dueAtHours: 500 });
    expect(only(plan, history(), 7, 'relief-test').state).toBe('fresh');
  });

  test('declared duty counts where there is no meter, and says so', () => {
    const declared = history({ declaredHoursPerWeek: 35 });
    expect(standing(plan, declared, day(60))).toMatchObject({
      runHours: 300,
      runHoursBasis: 'declared',
      hoursPerDay: 5,
    });
    expect(only(plan, declared, 60, 'oil-change')).toMatchObject({
      remainingHours: 200,
      likelyOn: '2026-04-11',
    });
  });
});

describe('estimates are told from readings', () => {
  const plan = { tasks: [task('oil-change')] };
  const basisAt = (past: CompressorHistory, at: number) => standing(plan, past, day(at)).runHoursBasis;

  test('by what the last figure was', () => {
    const estimated = { ...read(20, 150), source: 'estimated' as const };
    const past = history({ readings: [read(0, 0), read(10, 80), estimated] });
    expect([basisAt(past, 5), basisAt(past, 10), basisAt(past, 12)]).toEqual([
      'extrapolated',
      'read',
      'extrapolated',
    ]);
    expect([basisAt(past, 20), basisAt(past, 25)]).toEqual(['estimated', 'estimated']);
    const readAgain = history({ readings: [...past.readings, read(30, 240)] });
    expect(basisAt(readAgain, 35)).toBe('extrapolated');
  });

  test.each([
    ['read', false],
    ['interpolated', false],
    ['extrapolated', false],
    ['estimated', true],
    ['declared', true],
    ['assumed', true],
    [null, false],
  ] as const)('%s is an estimate: %s', (basis, expected) => {
    expect(isEstimate(basis)).toBe(expected);
  });
});

describe('covering', () => {
  const plan = {
    tasks: [
      task('valves-upper', { triggers: [{ kind: 'hours', every: 500 }] }),
      task('valves-all', { triggers: [{ kind: 'hours', every: 1000 }], covers: ['valves-upper'] }),
    ],
  };

  test('the bigger task resets the smaller, not the other way round', () => {
    const past = (code: string) =>
      history({ readings: [read(0, 0), read(50, 1000)], services: [done(50, [code])] });
    expect(only(plan, past('valves-all'), 50, 'valves-upper').dueAtHours).toBe(1500);
    expect(only(plan, past('valves-upper'), 50, 'valves-all')).toMatchObject({
      dueAtHours: 1000,
      state: 'due',
    });
  });
});

describe('past and future', () => {
  const plan = { tasks: [task('oil-change')] };
  const served = history({
    readings: [read(0, 0), read(50, 400), read(100, 800)],
    services: [done(60, ['oil-change'], 480)],
  });

  test('an earlier moment ignores later facts', () => {
    const before = history({ readings: [read(0, 0), read(50, 400)] });
    expect(standing(plan, served, day(55))).toEqual(standing(plan, before, day(55)));
  });

  test('what was recorded later was not known earlier', () => {
    const lateEntry = { ...done(40, ['oil-change'], 320), recordedAt: day(90) };
    const past = { ...eightADay, services: [lateEntry] };
    expect(standing(plan, past, day(60), day(70)).tasks[0]!.dueAtHours).toBe(500);
    expect(standing(plan, past, day(60), day(95)).tasks[0]!.dueAtHours).toBe(820);
  });

  test('no state changes before the moment it is said to be steady until', () => {
    const tasks = [
      task('oil-change', {
        triggers: [
          { kind: 'hours', every: 500, first: 50 },
          { kind: 'calendar', every: { months: 3 } },
        ],
      }),
      task('relief-test', { safety: true, triggers: [{ kind: 'calendar', every: { months: 2 } }] }),
    ];
    const statesAt = (when: number) =>
      standing({ tasks }, eightADay, when)
        .tasks.map(({ code, state }) => `${code} ${state}`)
        .sort();
    const seen = new Set<string>();
    let at: number | null = day(10);
    while (at !== null) {
      const { steadyUntil }: Standing = standing({ tasks }, eightADay, at);
      const states = statesAt(at);
      seen.add(states.join());
      if (steadyUntil !== null) {
        expect(steadyUntil).toBeGreaterThan(at);
        expect(statesAt(steadyUntil - 2)).toEqual(states);
      } else {
        expect(statesAt(at + 3650 * DAY_MS)).toEqual(states);
      }
      at = steadyUntil === null ? null : steadyUntil + 2;
    }
    // Oil is late from the start; the relief test nears and is late: three pictures in all.
    expect([...seen]).toEqual([
      'oil-change overdue,relief-test fresh',
      'oil-change overdue,relief-test nearing',
      'oil-change overdue,relief-test overdue',
    ]);
  });
});

describe('whatever the history', () => {
  const plan: ServicePlan = {
    tasks: [
      task('oil-change', {
        triggers: [
          { kind: 'hours', every: 500, first: 50 },
          { kind: 'calendar', every: { months: 3 } },
        ],
      }),
      task('overhaul', {
        counting: 'grid',
        triggers: [{ kind: 'hours', every: 2000 }],
        covers: ['oil-change'],
      }),
      task('relief-test', {
        safety: true,
        counting: 'grid',
        triggers: [{ kind: 'calendar', every: { months: 12 } }],
      }),
    ],
  };
  const codes = ['oil-change', 'overhaul', 'relief-test'];

  const anyHistory = fc
    .record({
      steps: fc.array(
        fc.record({ days: fc.integer({ min: 1, max: 40 }), perDay: fc.integer({ min: 0, max: 24 }) }),
        { maxLength: 15 },
      ),
      services: fc.array(
        fc.record({ at: fc.integer({ min: 0, max: 500 }), tasks: fc.subarray(codes, { minLength: 1 }) }),
        { maxLength: 6 },
      ),
      kind: fc.constantFrom('new' as const, 'unknown' as const),
      declared: fc.option(fc.integer({ min: 0, max: 168 }), { nil: undefined }),
    })
    .map(({ steps, services, kind, declared }) => {
      let [at, hours] = [0, 100];
      const readings = steps.map((step) => read((at += step.days), (hours += step.days * step.perDay)));
      return history({
        history: kind,
        readings,
        services: services.map((one) => done(one.at, one.tasks)),
        declaredHoursPerWeek: declared,
      });
    });

  const pressing = (one: TaskStanding | undefined) =>
    // A task that has left the list, or whose starting point is not known, is not pressing by a date.
    !one || one.state === 'unknown' ? -1 : taskStates.indexOf(one.state);

  test('recording a service never makes a task more due', () => {
    fc.assert(
      fc.property(
        anyHistory,
        fc.integer({ min: 0, max: 600 }),
        fc.integer({ min: 0, max: 600 }),
        fc.subarray(codes, { minLength: 1 }),
        (past, at, doneOn, tasks) => {
          fc.pre(doneOn <= at && past.history === 'new');
          const before = standing(plan, past, day(at));
          const after = standing(
            plan,
            { ...past, services: [...past.services, done(doneOn, tasks)] },
            day(at),
          );
          for (const one of after.tasks) {
            const earlier = before.tasks.find((other) => other.code === one.code)!;
            expect(pressing(one)).toBeLessThanOrEqual(pressing(earlier));
            if (one.dueAtHours !== null) expect(one.dueAtHours).toBeGreaterThanOrEqual(earlier.dueAtHours!);
          }
        },
      ),
    );
  });

  test('standing at an earlier moment ignores later facts', () => {
    fc.assert(
      fc.property(anyHistory, fc.integer({ min: 0, max: 600 }), (past, at) => {
        const upTo = {
          ...past,
          readings: past.readings.filter((one) => one.takenAt <= day(at)),
          services: past.services.filter((one) => one.doneAt <= day(at)),
        };
        expect(standing(plan, past, day(at))).toEqual(standing(plan, upTo, day(at)));
      }),
    );
  });

  test('the order in which facts arrive does not matter', () => {
    fc.assert(
      fc.property(anyHistory, fc.integer({ min: 0, max: 600 }), fc.nat(), (past, at, turn) => {
        const rotate = <T>(list: readonly T[]) =>
          [...list.slice(turn % (list.length || 1)), ...list.slice(0, turn % (list.length || 1))].reverse();
        const shuffled = { ...past, readings: rotate(past.readings), services: rotate(past.services) };
        expect(standing(plan, shuffled, day(at))).toEqual(standing(plan, past, day(at)));
      }),
    );
  });

  test('every task with a starting point carries the point of each of its triggers', () => {
    fc.assert(
      fc.property(anyHistory, fc.integer({ min: 0, max: 600 }), (past, at) => {
        fc.pre(past.history === 'new');
        const { tasks } = standing(plan, past, day(at));
        expect(tasks.map((one) => one.code).sort()).toEqual([...codes].sort());
        for (const one of tasks) {
          expect(one.dueAtHours === null).toBe(one.code === 'relief-test');
          expect(one.remainingHours === null).toBe(one.code === 'relief-test');
          expect(one.dueOn === null).toBe(one.code === 'overhaul');
        }
      }),
    );
  });
});
