import { explain } from './explain.js';
import { day, done, history, measured, only, read, task } from './fixtures.js';
import { describeExplanation } from './describe-explanation.js';
import { onPracticeOnly, type ServicePlan, type Trigger } from './service-plan.js';
import { describeTrigger } from './triggers/index.js';

const upTo = (days: number) => [read(0, 0), read(days, days * 8)];
const lines = (plan: ServicePlan, past: ReturnType<typeof history>, at: number) =>
  describeExplanation(explain(plan, 'oil', past, day(at))!, 'UTC').map(({ text }) => text);

describe('why this date', () => {
  const plan: ServicePlan = {
    tasks: [
      task('oil', {
        triggers: [
          { kind: 'hours', every: 500 },
          { kind: 'calendar', every: { months: 3 } },
        ],
        severity: [{ kind: 'dust', times: 0.5, because: 'Dust halves its life.' }],
        because: 'Oil ages by standing, too.',
      }),
    ],
  };

  test('rule, factor, last done, each trigger, and which comes first', () => {
    // Done on day 20 (21 January, 160 h): 250 h on is 410 h, at 8 h a day on day 51.25, 21 February.
    // Half of three months is 45 days: 7 March.
    const past = history({ readings: upTo(40), services: [done(20, ['oil'])], place: { dust: 'dusty' } });
    const text = lines(plan, past, 40);
    expect(text.slice(0, 3)).toEqual([
      'Every 500 h or every 3 months, whichever comes first: common practice. Oil ages by standing, too.',
      'Dust halves its life. (× 0.5)',
      'Last done on 21 Jan 2026, at 160 h.',
    ]);
    expect(text[3]).toMatch(
      /^Every 250 h: at 410 h, about 21 Feb 2026, between \d+ Feb 2026 and \d+ (Feb|Mar) 2026\.$/,
    );
    expect(text[4]).toBe('Every 45 days: 7 Mar 2026.');
    expect(text[5]).toBe('The hours come first: due at 410 h, about 21 Feb 2026.');
    expect(text).toHaveLength(6);
  });

  test('what is done a single time does not come every so often', () => {
    const first = {
      tasks: [task('oil', { once: true, triggers: [{ kind: 'hours', every: 150 }] })],
    } as const;
    const text = lines(first, history({ readings: upTo(10) }), 10);
    expect(text[0]).toBe('Once, after 150 h: common practice.');
    expect(text[2]).toMatch(/^Once, after 150 h: at 150 h, about /);
  });

  test('what other sources say stands beside it, and who decided', () => {
    const [oil] = plan.tasks;
    const chosen = {
      tasks: [
        {
          ...oil!,
          origin: 'book' as const,
          triggers: [{ kind: 'hours' as const, every: 300 }],
          others: [
            { origin: 'practice' as const, triggers: oil!.triggers },
            { origin: 'label' as const, triggers: [{ kind: 'hours' as const, every: 250 }] },
          ],
          choice: { because: 'It is under warranty.', by: 'Ida Norling' },
        },
      ],
    };
    expect(lines(chosen, history({ readings: upTo(40) }), 40).slice(0, 2)).toEqual([
      'Every 300 h: by the maker’s manual. Oil ages by standing, too.',
      'Common practice: every 500 h or every 3 months. Label: every 250 h. Chosen: manual, by Ida Norling: It is under warranty.',
    ]);
    expect(onPracticeOnly(chosen)).toEqual([]);
    expect(onPracticeOnly(plan).map(({ code }) => code)).toEqual(['oil']);
  });

  test('a figure of hours is the one that the meter will show', () => {
    // The first meter came off at 160 h on day 20; the next began at 0.
    const replaced = history({
      readings: [read(0, 0), read(20, 160), read(40, 160)],
      meterChanges: [
        {
          changedAt: day(20) + 1,
          oldFinalHours: 160,
          newStartHours: 0,
          reason: 'replaced',
          recordedAt: day(20),
        },
      ],
      services: [done(30, ['oil'])],
    });
    const text = lines(plan, replaced, 40);
    expect(text[1]).toBe('Last done on 31 Jan 2026, at 80 h.');
    expect(text[2]).toMatch(/^Every 500 h: at 580 h on the meter, 740 h total, /);
  });

  test('as data', () => {
    const past = history({ readings: upTo(40), services: [done(20, ['oil'])] });
    expect(explain(plan, 'oil', past, day(40))).toMatchObject({
      origin: 'practice',
      factors: [],
      start: { basis: 'done', on: '2026-01-21', hours: 160 },
      triggers: [
        { rule: { every: 500 }, dueAtHours: 660, dueOn: null, isRuling: true },
        { rule: { every: { months: 3 } }, dueAtHours: null, dueOn: '2026-04-21', isRuling: false },
      ],
      due: { dueAtHours: 660, dueOn: '2026-04-21', rule: 'hours' },
    });
    expect(explain(plan, 'belt', past, day(40))).toBeNull();
  });

  test('what is not known is said so', () => {
    expect(lines(plan, history({ history: 'unknown', readings: upTo(40) }), 40)).toEqual([
      'Every 500 h or every 3 months, whichever comes first: common practice. Oil ages by standing, too.',
      'No record of when it was last done: inspect it first.',
      'Every 500 h: nothing to count from.',
      'Every 3 months: nothing to count from.',
      'So nobody can say when it is due.',
    ]);
  });

  test('a decided factor, a grid, a putting off', () => {
    const decided: ServicePlan = {
      tasks: [
        { ...plan.tasks[0]!, triggers: [{ kind: 'hours', every: 500 }], counting: 'grid', origin: 'book' },
      ],
      overrides: { oil: { dust: { times: 0.8, reason: 'Extraction fitted.' } } },
    };
    const past = history({
      readings: upTo(50),
      place: { dust: 'dusty' },
      deferrals: [
        {
          task: 'oil',
          deferredAt: day(50),
          recordedAt: day(50),
          reason: 'No oil aboard',
          untilHours: 440,
          untilOn: '2026-03-01',
        },
      ],
    });
    const text = lines(decided, past, 50);
    expect(text[0]).toBe('Every 500 h: by the maker’s manual. Oil ages by standing, too.');
    expect(text[1]).toBe('Decided here × 0.8, instead of × 0.5: Extraction fitted.');
    expect(text[2]).toBe(
      'No record yet; counted from commissioning on 1 Jan 2026, at 0 h. It keeps to fixed multiples: doing one late does not move the next.',
    );
    expect(text.at(-1)).toBe('Put off until 440 h or 1 Mar 2026: No oil aboard');
  });

  test('a condition names what was measured and its limit', () => {
    const drop: ServicePlan = {
      tasks: [task('oil', { triggers: [{ kind: 'condition', check: 'separator-drop', limit: 1 }] })],
    };
    const twice = [measured(10, 'separator-drop', 0.2), measured(20, 'separator-drop', 0.3)];
    const past = history({ readings: upTo(30), measurements: twice });
    expect(lines(drop, past, 30)[2]).toBe(
      'When pressure drop reaches 1 bar: within its limit; three measurements make a trend (0.3 bar on 21 Jan 2026, limit 1 bar).',
    );
    const climbing = history({
      readings: upTo(30),
      measurements: [...twice, measured(30, 'separator-drop', 0.4)],
    });
    expect(lines(drop, climbing, 30)[2]).toMatch(
      /^When pressure drop reaches 1 bar \(0\.4 bar on 31 Jan 2026, limit 1 bar\): at 70\d h, about 30 Mar 2026, between /,
    );
    expect(Math.round(only(drop, climbing, 30).dueAtHours!)).toBe(
      Number(/at (\d+) h/.exec(lines(drop, climbing, 30)[2]!)![1]),
    );
  });
});

test.each<[Trigger, string]>([
  [{ kind: 'hours', every: 2000 }, 'every 2,000 h'],
  [{ kind: 'hours', every: 500, first: 50 }, 'first at 50 h, then every 500 h'],
  [{ kind: 'calendar', every: { months: 1 } }, 'every month'],
  [{ kind: 'calendar', every: { days: 15 }, first: { days: 7 } }, 'first after 7 days, then every 15 days'],
  [{ kind: 'milestone', at: [500, 2000] }, 'at 500, 2,000 h'],
  [{ kind: 'season', warm: 20, cold: 30 }, '20 h warm, 30 h cold'],
  [
    { kind: 'water', moistureCapacityG: 48, fadLpm: 200, maintainingValveBar: 150, warmC: 30, coldC: 15 },
    'when 48 g of water are taken up',
  ],
  [{ kind: 'condition', check: 'separator-drop', limit: 1 }, 'when pressure drop reaches 1 bar'],
  [
    { kind: 'condition', check: 'pump-up', limit: 0.8, of: 'baseline' },
    'when free air delivered falls to 80 % of the baseline',
  ],
  [{ kind: 'condition', check: 'cartridge-weight', limit: 100 }, 'when cartridge used reaches 100 %'],
  [
    {
      kind: 'not-before',
      trigger: { kind: 'condition', check: 'separator-drop', limit: 1 },
      floor: { kind: 'hours', every: 2000 },
    },
    'when pressure drop reaches 1 bar, not before 2,000 h',
  ],
  [{ kind: 'run', when: 'while-running', everyMinutes: 15 }, 'every 15 min of running'],
  [{ kind: 'run', when: 'at-stop' }, 'at each stop'],
])('%j in words', (trigger, text) => {
  expect(describeTrigger(trigger)).toBe(text);
});
