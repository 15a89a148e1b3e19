import { beforeAfter, judgeCheck, trendOf, type CheckValues } from './index.js';
import { hoursOnItsSide } from './trend.js';
import type { DataPlate } from '../machine/index.js';

const DAY = 86_400_000;
const plate = (more: Partial<DataPlate>): DataPlate => ({
  siteId: 's',
  tag: 'T-1',
  family: 'screw',
  commissionedOn: '2024-01-01',
  history: 'new',
  ...more,
});
const code = (check: string, values: CheckValues, more: Partial<DataPlate>) => {
  const outcome = judgeCheck(check, values, { plate: plate(more), on: '2026-06-01' });
  return outcome.ok ? outcome.value.verdict : outcome.problem.code;
};

describe('what is sent of a check', () => {
  test('a reason of blanks is none, and no text is too long', () => {
    const water = { waterMgM3: 30, limitMgM3: 40, limitBy: 'Mara Vell', pressureBar: 225, at: 'outlet' };
    const breathing = { family: 'high-pressure', airUse: 'breathing' } as const;
    expect(code('water-content', { ...water, limitReason: '   ' }, breathing)).toBe('wrong-kind');
    expect(code('water-content', { ...water, limitReason: 'x'.repeat(201) }, breathing)).toBe('wrong-kind');
    expect(code('water-content', { ...water, limitReason: 'By the maker' }, breathing)).toBe('watch');
  });

  test('a stage in the middle is not left out', () => {
    const stages = { family: 'high-pressure', stages: 3, workingPressureBar: 300 } as const;
    expect(code('stage-pressures', { intakeTempC: 20, stage1Bar: 5.7, stage3Bar: 300 }, stages)).toBe(
      'missing',
    );
  });
});

describe('before and after work', () => {
  const one = (id: string, days: number, value = 1) => ({ id, at: days * DAY, value, uncertainty: 0.1 });
  const work = (days: number) => ({ at: days * DAY, tasks: ['oil-change'] });
  const ids = (found: ReturnType<typeof beforeAfter>) =>
    found.map(({ before, after }) => [before.id, after.id]);

  test('what was measured at the moment of the work was before it', () => {
    expect(ids(beforeAfter([one('at', 10), one('after', 12)], [work(10)]))).toEqual([['at', 'after']]);
    expect(beforeAfter([one('before', 8), one('at', 10)], [work(10)])).toEqual([]);
  });

  test('within thirty days on each side, and not beyond other work', () => {
    expect(ids(beforeAfter([one('b', 0), one('a', 60)], [work(30)]))).toEqual([['b', 'a']]);
    expect(beforeAfter([one('b', -1), one('a', 40)], [work(30)])).toEqual([]);
    expect(beforeAfter([one('b', 20), one('a', 61)], [work(30)])).toEqual([]);
    expect(beforeAfter([one('b', 20), one('a', 45)], [work(30), work(40)])).toEqual([]);
  });

  test('it changed where it moved by more than twice what both may be off', () => {
    const moved = (by: number) =>
      beforeAfter([one('b', 8, 1), one('a', 12, 1 + by)], [work(10)])[0]!.isBeyondNoise;
    // Twice √(0.1² + 0.1²) = 0.283.
    expect([moved(0.28), moved(0.29), moved(-0.29)]).toEqual([false, true, true]);
  });
});

describe('a trend', () => {
  const points = (...pairs: readonly (readonly [number, number])[]) =>
    pairs.map(([hours, value]) => ({ hours, value, uncertainty: 0.2 }));

  test('that worsens by no more than measuring tells foresees nothing', () => {
    // A slope of about one deviation: up, and not to be told from none.
    const trend = trendOf(
      points([0, 1], [1000, 1.4], [2000, 1.1], [3000, 1.5], [4000, 1.25]),
      [],
      10,
      'higher',
    )!;
    expect(trend.isForeseeable).toBe(false);
    const clear = trendOf(points([0, 1], [1000, 2], [2000, 3], [3000, 4], [4000, 5]), [], 10, 'higher')!;
    expect(clear.isForeseeable).toBe(true);
  });

  test('what was measured just before the work is on its side, what was at its moment is after it', () => {
    const works = [{ at: 100, hours: 500 }];
    expect(hoursOnItsSide({ at: 99, hours: 500 }, works)).toBeLessThan(500);
    expect(hoursOnItsSide({ at: 100, hours: 500 }, works)).toBe(500);
    expect(hoursOnItsSide({ at: 101, hours: 500 }, works)).toBe(500);
  });
});
