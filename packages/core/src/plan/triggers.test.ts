import type { MeasuredFact } from './history.js';
import { cartridgeHoursAt } from './season-wear.js';
import { day, done, history, measured, only, read, task } from './fixtures.js';
import type { Trigger } from './service-plan.js';
import { standing } from './standing.js';

/** 8 h a day from 1 January 2026, which is day 0 at 0 h. */
const upTo = (days: number) => [read(0, 0), read(days, days * 8)];
const planOf = (...triggers: Trigger[]) => ({ tasks: [task('it', { triggers })] });

describe('fixed milestones of run hours', () => {
  const plan = planOf({ kind: 'milestone', at: [500, 2000, 8000] });

  test.each<[string, number, number, number | null]>([
    // Done on so many hours; what comes next. Windows: a tenth of the way from the milestone before.
    ['never done', -1, 10, 500],
    ['inside the window of 50 h', 56.25, 57, 2000], // 450 h
    ['far too early', 55, 57, 500], // 440 h
    ['late', 75, 76, 2000], // 600 h
    ['the second inside its window of 150 h', 231.5, 232, 8000], // 1,852 h
    ['the last', 1000, 1001, null], // 8,000 h
  ])('%s', (_name, doneOn, at, due) => {
    const past = history({
      readings: upTo(Math.max(at, 1)),
      services: doneOn < 0 ? [] : [done(doneOn, ['it'])],
    });
    expect(only(plan, past, at).dueAtHours).toBe(due);
  });

  test('with none left, nothing is due any more', () => {
    const past = history({ readings: upTo(1001), services: [done(1000, ['it'])] });
    expect(only(plan, past, 1001)).toMatchObject({ state: 'fresh', likelyOn: null, ruledBy: null });
  });
});

describe('hours by season', () => {
  const plan = planOf({ kind: 'season', warm: 20, cold: 30 });

  test('in the cold 30 h, in the warm 20 h', () => {
    expect(only(plan, history({ readings: upTo(2) }), 2)).toMatchObject({ dueAtHours: 30, rule: 'season' });
    // Day 150 is 31 May.
    const warm = history({ readings: upTo(151), services: [done(150, ['it'])] });
    expect(only(plan, warm, 151).dueAtHours).toBeCloseTo(1220, 6);
  });

  test('across the first of May the rest of the life passes faster', () => {
    // Done on 29 April (day 118, 944 h). 16 h until May are 16/30 of it; the other 14/30 take 9.33 h of 20.
    const past = history({ readings: upTo(119), services: [done(118, ['it'])] });
    const found = only(plan, past, 119);
    expect(found.dueAtHours).toBeCloseTo(944 + 16 + (14 / 30) * 20, 6);
    expect(found.usedFraction).toBeCloseTo(8 / 30, 6);
    // The same once May has come and been read.
    const later = history({ readings: upTo(121), services: [done(118, ['it'])] });
    expect(only(plan, later, 121).dueAtHours).toBeCloseTo(969.3333, 3);
    expect(only(plan, later, 121).usedFraction).toBeCloseTo(16 / 30 + 8 / 20, 6);
  });

  test('past its point the share goes on', () => {
    const past = history({ readings: upTo(5) });
    const found = only(plan, past, 5);
    expect(found.usedFraction).toBeCloseTo(1 + 10 / 30, 6);
    expect(found.state).toBe('overdue');
  });

  test('a machine that stands still keeps what is left of the season it stands in', () => {
    const idle = history({ readings: [read(0, 0), read(2, 15), read(60, 15), read(90, 15)] });
    expect(only(plan, idle, 90)).toMatchObject({ dueAtHours: 30, state: 'fresh' });
    // It may be started again: but not soon is it likely to.
    expect(only(plan, idle, 90).likelyOn! > '2027').toBe(true);
    // In June half of it is left, at 20 h for a whole one.
    expect(only(plan, history({ readings: [...idle.readings, read(160, 15)] }), 160).dueAtHours).toBeCloseTo(
      25,
      6,
    );
  });

  test('warm months may run over the turn of the year', () => {
    const south = planOf({ kind: 'season', warm: 20, cold: 30, warmMonths: [11, 3] });
    expect(only(south, history({ readings: upTo(2) }), 2).dueAtHours).toBe(20);
  });
});

describe('a cartridge reckoned from the water it takes up', () => {
  const cartridge = { moistureCapacityG: 48, fadLpm: 200, maintainingValveBar: 150 };

  test('20 °C, 150 bar, 200 L/min, 48 g: worked by hand', () => {
    // Saturation 2.339 kPa (IAPWS), times 1.555 for dense air (worked in the tests of moist air): 0.03626 bar; humidity ratio
    // 0.622 × 0.03626 / 151 = 0.0001494; a cubic metre of saturated intake air holds 1.177 kg of dry air:
    // 0.1758 g; 12 m³ an hour bring 2.11 g: 48 g last 22.8 h.
    expect(cartridgeHoursAt(cartridge, 20)).toBeGreaterThan(22.8 * 0.97);
    expect(cartridgeHoursAt(cartridge, 20)).toBeLessThan(22.8 * 1.03);
  });

  test('six degrees hotter cost more than a quarter of it', () => {
    // Saturation 1.4376 times, enhancement 1.524 for 1.557, dry air 0.970 of it: 1/1.4376/0.979/0.970 = 0.7326.
    const share = cartridgeHoursAt(cartridge, 26)! / cartridgeHoursAt(cartridge, 20)!;
    expect(share).toBeCloseTo(0.7326, 2);
  });

  test('as a trigger it is due when that is used up, by season', () => {
    const trigger: Trigger = { kind: 'water', ...cartridge, warmC: 26, coldC: 20 };
    const due = only(planOf(trigger), history({ readings: upTo(2) }), 2);
    expect(due.dueAtHours).toBeCloseTo(cartridgeHoursAt(cartridge, 20)!, 9);
    expect(due.rule).toBe('water');
  });
});

describe('condition: the trend of a check to its limit', () => {
  const trigger: Trigger = { kind: 'condition', check: 'separator-drop', limit: 1 };
  // 0.2 bar at 80 h, then a tenth more every 80 h: 1 bar at 720 h, which is day 90, 1 April.
  const climbing = [
    measured(10, 'separator-drop', 0.2),
    measured(20, 'separator-drop', 0.3),
    measured(30, 'separator-drop', 0.4),
  ];

  test('a straight climb is forecast, the spread of the line in early and late', () => {
    const found = only(planOf(trigger), history({ readings: upTo(30), measurements: climbing }), 30);
    // Three measurements over two of nine steps: that it may quicken brings it some days nearer than the line.
    expect(found.dueAtHours! / 720).toBeGreaterThan(0.93);
    expect(found.dueAtHours! / 720).toBeLessThan(1.02);
    expect(found).toMatchObject({
      likelyOn: '2026-03-30',
      ruledBy: 'hours',
      rule: 'condition',
      state: 'fresh',
    });
    expect(found.earlyAt!).toBeLessThan(found.likelyAt!);
    expect(found.lateAt!).toBeGreaterThan(found.likelyAt!);
  });

  test('noisier measurements widen it', () => {
    const noisy = climbing.map((one) => ({ ...one, uncertainty: 0.05 }));
    const [sure, unsure] = [climbing, noisy].map((measurements) =>
      only(planOf(trigger), history({ readings: upTo(30), measurements }), 30),
    );
    expect(unsure!.lateAt! - unsure!.earlyAt!).toBeGreaterThan(sure!.lateAt! - sure!.earlyAt!);
    expect(unsure!.earlyAt!).toBeLessThan(sure!.earlyAt!);
  });

  test('what is measured past its limit is due where it was measured', () => {
    const past = history({
      readings: upTo(41),
      measurements: [...climbing, measured(39, 'separator-drop', 1.02), measured(40, 'separator-drop', 1.1)],
    });
    expect(only(planOf(trigger), past, 41)).toMatchObject({ dueAtHours: 312, state: 'due' });
  });

  test.each([
    ['never measured', [], 'unknown'],
    ['measured twice', climbing.slice(0, 2), 'fresh'],
    ['not worsening', climbing.map((one) => ({ ...one, value: 0.2 })), 'fresh'],
  ])('%s: no date', (_name, measurements, state) => {
    const found = only(planOf(trigger), history({ readings: upTo(30), measurements }), 30);
    expect(found).toMatchObject({ state, likelyOn: null, dueAtHours: null });
  });

  test('new work begins it anew: by itself, and by the tasks that reset its check', () => {
    for (const code of ['it', 'separator-replace']) {
      const plan = { tasks: [task('it', { triggers: [trigger] }), task('separator-replace')] };
      const past = history({ readings: upTo(35), measurements: climbing, services: [done(33, [code])] });
      expect(only(plan, past, 35, 'it')).toMatchObject({ dueAtHours: null, likelyOn: null });
    }
  });

  test('what was measured just before the work belongs to what it ended, though the machine stood between', () => {
    const past = history({
      // Read on arrival and on leaving: 320 h both times.
      readings: [read(0, 0), read(40, 320), read(40.4, 320), read(60, 476.8)],
      services: [done(40.2, ['separator-replace'])],
      measurements: [
        measured(40.1, 'separator-drop', 1.1),
        measured(40.3, 'separator-drop', 0.2),
        measured(48, 'separator-drop', 0.3),
        measured(56, 'separator-drop', 0.4),
      ],
    });
    // 0.2 in some 125 h: the rest of 0.6 takes about 370 h more.
    const found = only(planOf(trigger), past, 60);
    expect(found.dueAtHours).toBeGreaterThan(600);
    expect(found.dueAtHours).toBeLessThan(1100);
  });

  test('a share of the baseline: pump-up down to four fifths', () => {
    const share: Trigger = { kind: 'condition', check: 'pump-up', limit: 0.8, of: 'baseline' };
    // 700 at 80 h, 20 less every 80 h; four fifths are 560: seven steps on, at 640 h.
    const slipping = [700, 680, 660].map((value, index) =>
      measured(10 + index * 10, 'pump-up', value, { uncertainty: 4, baseline: index === 0 }),
    );
    const found = only(planOf(share), history({ readings: upTo(30), measurements: slipping }), 30);
    // A third of the way at 240 h by three measurements of ±4: not later than the line, not half of it.
    expect(found.dueAtHours!).toBeGreaterThan(400);
    expect(found.dueAtHours!).toBeLessThan(650);
  });

  test('hours beside it rule where they come first', () => {
    const both = planOf(trigger, { kind: 'hours', every: 600 });
    const found = only(both, history({ readings: upTo(30), measurements: climbing }), 30);
    expect(found).toMatchObject({ dueAtHours: 600, rule: 'hours' });
  });

  test('it is known of a machine whose history nobody knows', () => {
    const past = history({ history: 'unknown', readings: upTo(30), measurements: climbing });
    expect(only(planOf(trigger), past, 30).likelyOn).toBe('2026-03-30');
  });
});

describe('a measured share', () => {
  const weighed = {
    tasks: [
      task('cartridge', {
        triggers: [
          {
            kind: 'condition',
            check: 'cartridge-weight',
            limit: 100,
            unmeasured: { kind: 'hours', every: 40 },
          },
        ],
      }),
    ],
  } as const;
  // 2 h a day; changed on day 10, at 20 h.
  const readings = Array.from({ length: 14 }, (_, index) => read(index * 5, index * 10));
  const at = (on: number, measurements: MeasuredFact[]) =>
    only(weighed, history({ readings, services: [done(10, ['cartridge'])], measurements }), on);

  test('without a weighing the hours hold', () => {
    expect(at(20, [])).toMatchObject({ dueAtHours: 60, state: 'fresh', usedFraction: 0.5 });
  });

  test('one weighing fills the drop and says when to weigh again', () => {
    // Half full at 40 h: the other half takes half of 40 h, by 60 h.
    expect(at(20, [measured(20, 'cartridge-weight', 50)])).toMatchObject({
      usedFraction: 0.5,
      dueAtHours: 60,
      state: 'fresh',
    });
    // Three tenths at 40 h: 28 h more, 68 h. At 50 h 10 of the 28 are gone: 0.3 + 0.7·10/28 = 0.55.
    expect(at(25, [measured(20, 'cartridge-weight', 30)])).toMatchObject({
      dueAtHours: 68,
      usedFraction: expect.closeTo(0.55, 9),
    });
  });

  test.each([
    [79, 'fresh'],
    [80, 'nearing'],
    [97, 'nearing'],
    [100, 'due'],
  ] as const)('at %d % it is %s', (value, state) => {
    const { usedFraction, ...found } = at(20, [measured(20, 'cartridge-weight', value)]);
    expect([found.state, usedFraction]).toEqual([state, expect.closeTo(value / 100, 9)]);
    expect(found.likelyOn).not.toBeNull();
  });

  test('a new cartridge begins anew, whatever the old one weighed', () => {
    expect(at(12, [measured(8, 'cartridge-weight', 97)])).toMatchObject({ state: 'fresh', dueAtHours: 60 });
  });

  test('a figure that falls: the share of the way from its baseline', () => {
    const valves = {
      tasks: [
        task('valves', {
          triggers: [{ kind: 'condition', check: 'pump-up', limit: 0.8, of: 'baseline' }],
        }),
      ],
    } as const;
    const flows = [
      measured(5, 'pump-up', 400, { baseline: true }),
      measured(40, 'pump-up', 348, { uncertainty: 4 }),
    ];
    // 52 of the 80 L/min that it may fall.
    const found = only(valves, history({ readings, measurements: flows }), 40);
    expect([found.usedFraction, found.state]).toEqual([expect.closeTo(0.65, 9), 'fresh']);
  });
});

describe('not before', () => {
  const climbing = [80, 160, 240].map((hours, index) =>
    measured(hours / 8, 'separator-drop', 0.2 + index * 0.1),
  );
  const trigger = { kind: 'condition', check: 'separator-drop', limit: 1 } as const;
  const past = history({ readings: upTo(30), measurements: climbing });

  test.each([
    [1000, 1000],
    [500, only(planOf(trigger), past, 30).dueAtHours!],
  ])('a floor of %i h: due at %d h', (floor, due) => {
    const held = planOf({ kind: 'not-before', trigger, floor: { kind: 'hours', every: floor } });
    expect(due).toBeGreaterThan(500);
    expect(only(held, past, 30).dueAtHours).toBeCloseTo(due, 3);
  });

  test('what is past its limit waits for its floor', () => {
    const worn = history({ readings: upTo(41), measurements: [measured(40, 'separator-drop', 1.2)] });
    const held = planOf({ kind: 'not-before', trigger, floor: { kind: 'calendar', every: { months: 3 } } });
    expect(only(held, worn, 41)).toMatchObject({ state: 'fresh', likelyOn: '2026-04-01' });
    expect(only(held, worn, 90).state).toBe('due');
  });
});

test('what belongs to a run is no task with a date', () => {
  const plan = {
    tasks: [
      task('drain', { triggers: [{ kind: 'run', when: 'while-running', everyMinutes: 15 }] }),
      task('oil'),
    ],
  };
  const found = standing(plan, history({ readings: upTo(10) }), day(10));
  expect(found.tasks.map(({ code }) => code)).toEqual(['oil']);
  expect(found.routine).toMatchObject([{ code: 'drain', triggers: [{ everyMinutes: 15 }] }]);
});

test('of two triggers on the grid one does not settle the other’s points', () => {
  // Done on day 23: every 3 days leads to day 27 (24 lies within the day and a half before it), whatever else
  // there is. Every 9 days is settled up to day 27, which counts for a task that it covers, not for itself.
  const days = (count: number): Trigger => ({ kind: 'calendar', every: { days: count } });
  const past = history({ readings: upTo(24), services: [done(23, ['it'])] });
  for (const triggers of [[days(3)], [days(3), days(9)]]) {
    const plan = { tasks: [task('it', { triggers, counting: 'grid' })] };
    expect(only(plan, past, 24).likelyOn).toBe('2026-01-28');
  }
});

describe('bigger and smaller on the grid', () => {
  const plan = {
    tasks: [
      task('minor', { triggers: [{ kind: 'hours', every: 500 }], counting: 'grid' }),
      task('major', { triggers: [{ kind: 'hours', every: 1000 }], counting: 'grid', covers: ['minor'] }),
    ],
  };

  test('when both are due only the bigger shows, the smaller behind it', () => {
    const past = history({ readings: upTo(125), services: [done(62.5, ['minor'])] });
    const { tasks } = standing(plan, past, day(125));
    expect(tasks.map(({ code, state, coveredBy }) => [code, state, coveredBy])).toEqual([
      ['major', 'due', null],
      ['minor', 'due', 'major'],
    ]);
    // At 1,056 h the smaller is late (past its tenth, 50 h), the bigger (100 h) not: it takes that over.
    const late = standing(plan, history({ ...past, readings: upTo(132) }), day(132)).tasks;
    expect(late[0]).toMatchObject({ code: 'major', state: 'overdue' });
  });

  test('a bigger one done early for its own grid point counts for the smaller there, too', () => {
    // 940 h: inside the bigger one's window of 100 h, outside the smaller one's of 50 h.
    const early = history({ readings: upTo(126), services: [done(62.5, ['minor']), done(117.5, ['major'])] });
    expect(only(plan, early, 126, 'minor').dueAtHours).toBe(1500);
    expect(only(plan, early, 126, 'major').dueAtHours).toBe(2000);
    // 880 h is far too early for either.
    const tooEarly = history({
      readings: upTo(126),
      services: [done(62.5, ['minor']), done(110, ['major'])],
    });
    expect(only(plan, tooEarly, 126, 'minor').dueAtHours).toBe(1000);
    expect(only(plan, tooEarly, 126, 'major').dueAtHours).toBe(1000);
  });
});
