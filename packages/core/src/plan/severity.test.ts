import { day, done, history, measured, only, read, task } from './fixtures.js';
import { oilLifeShare } from './severity.js';
import type { ServicePlan, SeverityRule } from './service-plan.js';
import { standing } from './standing.js';

const upTo = (days: number, perDay = 8) => [read(0, 0), read(days, days * perDay)];

describe('oil keeps half of its life for every 10 °C above its rating (rule of thumb)', () => {
  test.each([
    [85, 1],
    [90, 1],
    [100, 0.5],
    [110, 0.25],
    // 2^−0.7
    [97, 0.6156],
  ])('%i °C: %d', (tempC, share) => {
    expect(oilLifeShare(tempC, 90)).toBeCloseTo(share, 4);
  });

  const heat: SeverityRule = { kind: 'heat', on: 'hours', because: 'Its life halves for every 10 °C above.' };
  const plan: ServicePlan = {
    tasks: [
      task('oil', {
        triggers: [
          { kind: 'hours', every: 8000 },
          { kind: 'calendar', every: { months: 24 } },
        ],
        severity: [heat],
      }),
    ],
  };

  test('8,000 h become 4,000 h at 100 °C; the months stay', () => {
    const hot = history({
      readings: upTo(10),
      measurements: [measured(9, 'discharge-temperature', 70, { tempC: 100 })],
    });
    expect(only(plan, hot, 10)).toMatchObject({ dueAtHours: 4000, dueOn: '2028-01-01' });
    expect(only(plan, { ...hot, place: { oilRatedTempC: 100 } }, 10).dueAtHours).toBe(8000);
  });

  test('the middle of the last five temperatures counts, not one hot afternoon', () => {
    const temperatures = [88, 91, 118, 89, 90, 90];
    const measurements = temperatures.map((tempC, index) =>
      measured(index + 1, 'discharge-temperature', 60, { tempC }),
    );
    expect(only(plan, history({ readings: upTo(10), measurements }), 10).dueAtHours).toBe(8000);
  });
});

describe('the place and the use', () => {
  const rules: SeverityRule[] = [
    { kind: 'dust', times: 0.5, because: 'Dust.' },
    { kind: 'damp', times: 0.5, because: 'Damp.' },
    { kind: 'light-use', times: 4, on: 'calendar', because: 'Light use.' },
  ];
  const triggers = [
    { kind: 'hours', every: 250 },
    { kind: 'calendar', every: { months: 3 } },
  ] as const;
  const plan: ServicePlan = { tasks: [task('it', { triggers, severity: rules })] };

  test.each<[string, object, number, string]>([
    ['an ordinary place', {}, 250, '2026-04-01'],
    // Half of three months is a month and a half: 45 days from 1 January.
    ['dust halves all of it', { dust: 'dusty' }, 125, '2026-02-15'],
    ['clean is no better than normal', { dust: 'clean' }, 250, '2026-04-01'],
    ['dust and damp multiply', { dust: 'dusty', humidity: 'damp' }, 63, '2026-01-24'],
  ])('%s', (_name, place, hours, dueOn) => {
    expect(only(plan, history({ readings: upTo(10), place }), 10)).toMatchObject({
      dueAtHours: hours,
      dueOn,
    });
  });

  test('light use stretches the months, but not in damp', () => {
    // 0.4 h a day is 2.8 h a week over the forty days read.
    const light = history({ readings: upTo(40, 0.4) });
    expect(only(plan, light, 40).dueOn).toBe('2027-01-01');
    expect(only(plan, { ...light, place: { humidity: 'damp' } }, 40).dueOn).toBe('2026-02-15');
    // 0.6 h a day is 4.2 h a week.
    expect(only(plan, history({ readings: upTo(40, 0.6) }), 40).dueOn).toBe('2026-04-01');
  });

  test('a factor decided by hand stands, with its reason', () => {
    const decided: ServicePlan = {
      ...plan,
      overrides: { it: { dust: { times: 0.8, reason: 'Extraction fitted.' } } },
    };
    const dusty = history({ readings: upTo(10), place: { dust: 'dusty' } });
    expect(only(decided, dusty, 10).dueAtHours).toBe(200);
    // It holds whatever the plate says of the place.
    expect(only(decided, history({ readings: upTo(10) }), 10).dueAtHours).toBe(200);
  });

  test('in damp, drains come twice as often', () => {
    const drains: ServicePlan = {
      tasks: [
        task('drain', {
          triggers: [
            { kind: 'run', when: 'while-running', everyMinutes: 15 },
            { kind: 'run', when: 'at-stop' },
          ],
          severity: [rules[1]!],
        }),
      ],
    };
    const damp = history({ readings: upTo(10), place: { humidity: 'damp' } });
    expect(standing(drains, damp, day(10)).routine[0]).toMatchObject({
      triggers: [{ everyMinutes: 8 }, { when: 'at-stop' }],
      factors: [{ kind: 'damp', times: 0.5, because: 'Damp.' }],
    });
  });

  test('a service done before a place became dusty is judged by the place of today', () => {
    const past = history({ readings: upTo(30), services: [done(10, ['it'])], place: { dust: 'dusty' } });
    expect(only(plan, past, 30)).toMatchObject({ dueAtHours: 205, state: 'overdue' });
  });
});
