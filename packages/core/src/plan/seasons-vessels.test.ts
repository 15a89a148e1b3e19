import { day, history, only, read, task } from './fixtures.js';
import { standing } from './standing.js';
import { hourClockOf } from './clock.js';
import { readingNeed } from './reading-need.js';
import { useWarning } from './use-warning.js';
import type { Trigger } from './triggers/index.js';
import type { VesselHistory, VesselRecord } from './vessel-history.js';

/** 8 h a day from the first of January, the cold season. */
const readings = [read(0, 0), read(20, 160)];
const season = (more: object = {}) => ({ kind: 'season', warm: 100, cold: 200, ...more }) as Trigger;
const by = (trigger: Trigger, more: object = {}) => ({
  tasks: [task('cartridge', { triggers: [trigger], ...more })],
});

describe('hours by season', () => {
  test('in the cold season the cold life counts', () => {
    expect(only(by(season()), history({ readings }), 20)).toMatchObject({
      dueAtHours: 200,
      usedFraction: 0.8,
    });
  });

  test('a tenth of it before the end it is near, not two tenths', () => {
    const at = (days: number) =>
      only(by(season()), history({ readings: [read(0, 0), read(days, days * 8)] }), days).state;
    // 176 and 184 of 200 h.
    expect([at(22), at(23)]).toEqual(['fresh', 'nearing']);
  });

  test('a life shorter than two hours nears for half of itself', () => {
    const short = season({ cold: 1, warm: 1 });
    const at = (hours: number) =>
      only(by(short), history({ readings: [read(0, 0), read(1, hours)] }), 1).state;
    expect([at(0.4), at(0.6)]).toEqual(['fresh', 'nearing']);
  });

  test('what shortens the hours shortens both lives', () => {
    const dusty = {
      severity: [{ kind: 'dust', times: 0.5, on: 'hours', because: 'Dust.' }] as const,
    };
    const past = history({ readings, place: { dust: 'dusty' } });
    expect(only(by(season(), dusty), past, 20).dueAtHours).toBe(100);
    // In July the warm life counts: half of a hundred.
    const july = history({ readings: [read(0, 0), read(190, 0), read(200, 40)], place: { dust: 'dusty' } });
    expect(only(by(season(), dusty), july, 200).usedFraction).toBeGreaterThan(0.7);
  });
});

describe('vessels', () => {
  const record = (doneOn: string, more: Partial<VesselRecord> = {}): VesselRecord => ({
    kind: 'test',
    doneOn,
    passed: true,
    recordedAt: day(0),
    ...more,
  });
  const vessel = (more: Partial<VesselHistory>): VesselHistory => ({
    id: 'v',
    tag: 'R-1',
    kind: 'receiver',
    recordedAt: day(0),
    testEveryMonths: 12,
    records: [],
    ...more,
  });
  const judged = (more: Partial<VesselHistory>, at = 40) =>
    standing({ tasks: [] }, history({ readings, vessels: [vessel(more)] }), day(at)).tasks[0];

  test('the latest test counts, whatever order they became known in', () => {
    const [first, last] = [record('2025-06-01'), record('2026-01-15')];
    expect(judged({ records: [last, first] })!.dueOn).toBe('2027-01-15');
    expect(judged({ records: [first, last] })!.dueOn).toBe('2027-01-15');
  });

  test('of two on one day the one that became known later', () => {
    const passed = record('2026-01-15', { recordedAt: day(15) });
    const failed = record('2026-01-15', { recordedAt: day(16), passed: false });
    expect(judged({ records: [failed, passed] })!.state).toBe('overdue');
    expect(judged({ records: [{ ...failed, recordedAt: day(14) }, passed] })!.state).toBe('fresh');
  });

  test('what is dated in the future was not done yet', () => {
    expect(judged({ records: [record('2025-06-01'), record('2026-08-01')] })!.dueOn).toBe('2026-06-01');
  });

  test('failed it is out of date at once, whatever its months say', () => {
    expect(judged({ records: [record('2026-01-15', { passed: false })] })).toMatchObject({
      state: 'overdue',
      usedFraction: 1,
      dueOn: '2026-01-15',
    });
  });

  test('out of service nothing is due on it; without months nothing ever', () => {
    const records = [record('2020-01-01')];
    expect(judged({ records })!.state).toBe('overdue');
    expect(judged({ records, retiredOn: '2026-02-01' }, 40)).toBeUndefined();
    expect(judged({ records, retiredOn: '2026-03-01' }, 40)!.state).toBe('overdue');
    expect(judged({ records, testEveryMonths: undefined })).toBeUndefined();
  });
});

describe('whether a reading is worth taking', () => {
  const need = (lastOn: number, at: number, every = 2000) => {
    const weeks = Array.from({ length: Math.floor(lastOn / 7) + 1 }, (_, week) =>
      read(week * 7, week * 7 * 8),
    );
    const past = history({ readings: weeks });
    const { tasks } = standing(
      { tasks: [task('oil', { triggers: [{ kind: 'hours', every }] })] },
      past,
      day(at),
    );
    return readingNeed(hourClockOf(past, day(at)), tasks, day(at));
  };

  test('read within the week it is not', () => {
    expect(need(140, 146)).toBeNull();
  });

  test('where nothing comes by hours it is not', () => {
    const past = history({ readings: [read(0, 0), read(20, 160)] });
    const { tasks } = standing(
      { tasks: [task('inspect', { triggers: [{ kind: 'calendar', every: { months: 12 } }] })] },
      past,
      day(60),
    );
    expect(readingNeed(hourClockOf(past, day(60)), tasks, day(60))).toBeNull();
  });

  test('a machine that nobody ever read is worth it', () => {
    const past = history();
    expect(readingNeed(hourClockOf(past, day(60)), [], day(60))).toMatchObject({ daysSince: null });
  });
});

describe('used more than before', () => {
  // A year at 1 h a day, then a hundred days at 6.
  const past = history({
    readings: [
      ...Array.from({ length: 53 }, (_, week) => read(week * 7, week * 7)),
      ...Array.from({ length: 12 }, (_, week) => read(371 + week * 7, 371 + week * 42)),
    ],
  });
  const warned = (at: number, everies: readonly number[]) => {
    const tasks = everies.map((every, index) => task(`t${index}`, { triggers: [{ kind: 'hours', every }] }));
    const found = standing({ tasks }, past, day(at));
    return useWarning(hourClockOf(past, day(at)), found.tasks, day(at), 'UTC');
  };

  test('the task that comes first of those pulled nearer is named', () => {
    const pulls = warned(450, [3000, 2000])?.pulls;
    expect(pulls?.code).toBe('t1');
    expect(pulls!.likelyOn < pulls!.wouldBeOn).toBe(true);
  });

  test('what comes within days is not news', () => {
    expect(warned(450, [840])?.pulls ?? null).toBeNull();
  });

  test('after a while it is no news any more', () => {
    expect(warned(450, [2000])).not.toBeNull();
    expect(warned(371 + 11 * 7 + 130, [2000])).toBeNull();
  });
});
