import fc from 'fast-check';
import { gradesFor, isoGradeOf, isoGrades, oilLifeFactor, viscosityAt, viscosityIndex } from './index.js';

const valueOf = (outcome: { ok: boolean; value?: number }) => {
  if (!outcome.ok) throw new Error(JSON.stringify(outcome));
  return outcome.value!;
};

test('grades are within a tenth of their middle (ISO 3448)', () => {
  // The middles as the standard has them; the limits beside them, by hand.
  const middles = [2.2, 3.2, 4.6, 6.8, 10, 15, 22, 32, 46, 68, 100, 150, 220, 320, 460];
  for (const [index, grade] of isoGrades.entries()) {
    const middle = middles[index]!;
    expect([grade, isoGradeOf(middle * 0.9), isoGradeOf(middle), isoGradeOf(middle * 1.1)]).toEqual([
      grade,
      grade,
      grade,
      grade,
    ]);
  }
  expect([1.98, 2.42, 2.88, 3.52, 4.14, 5.06, 6.12, 7.48].map(isoGradeOf)).toEqual([2, 2, 3, 3, 5, 5, 7, 7]);
  expect([1.97, 2.5, 3.6, 5.2, 7.6].map(isoGradeOf)).toEqual([null, null, null, null, null]);
  expect([isoGradeOf(55), isoGradeOf(80), isoGradeOf(1000)]).toEqual([null, null, null]);
});

describe('viscosity over temperature (ASTM D341)', () => {
  const oil = { at40: 100, at100: 11.2 };

  test('goes through both points', () => {
    expect(valueOf(viscosityAt(oil, 40))).toBeCloseTo(100, 9);
    expect(valueOf(viscosityAt(oil, 100))).toBeCloseTo(11.2, 9);
  });

  test('worked by hand: at 70 °C', () => {
    // log T: 2.495752 at 40, 2.571884 at 100, 2.535484 at 70. Walther: lg lg 100.7 = 0.301688,
    // lg lg 11.9 = 0.031711; slope 3.546; y = 0.301688 − 3.546·0.039732 = 0.160797; 10^10^y − 0.7 = 27.4.
    expect(valueOf(viscosityAt(oil, 70))).toBeCloseTo(27.4, 0);
  });

  test('falls with temperature, always', () => {
    fc.assert(
      fc.property(fc.double({ min: -30, max: 149, noNaN: true }), (tempC) => {
        expect(valueOf(viscosityAt(oil, tempC + 1))).toBeLessThan(valueOf(viscosityAt(oil, tempC)));
      }),
    );
  });

  test.each([
    [viscosityAt({ at40: 10, at100: 12 }, 40), 'at100'],
    [viscosityAt({ at40: 0, at100: 12 }, 40), 'at40'],
    [viscosityAt(oil, 212), 'tempC'],
  ])('what is no oil is refused beside its field', (outcome, field) => {
    expect(outcome).toMatchObject({ ok: false, problem: { field } });
  });
});

test('oil life halves for every ten kelvin above its rating, and is no longer below it', () => {
  expect(oilLifeFactor(100, 90)).toBeCloseTo(0.5, 12);
  expect(oilLifeFactor(110, 90)).toBeCloseTo(0.25, 12);
  expect(oilLifeFactor(60, 90)).toBe(1);
});

test.each([
  [73.3, 8.86, 92],
  [22.83, 5.05, 156],
])('an oil of %d mm²/s at 40 °C and %d at 100 °C has VI %d (ASTM D2270, memory)', (at40, at100, index) => {
  expect(viscosityIndex({ at40, at100 })).toEqual({ ok: true, value: index });
});

test('an oil that thins less has the higher index', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 30, max: 300, noNaN: true }),
      fc.double({ min: 4, max: 12, noNaN: true }),
      (at40, at100) => {
        const [lower, higher] = [
          viscosityIndex({ at40, at100 }),
          viscosityIndex({ at40, at100: at100 * 1.1 }),
        ];
        if (lower.ok && higher.ok) expect(higher.value).toBeGreaterThanOrEqual(lower.value);
      },
    ),
  );
});

test.each([
  [{ at40: 40, at100: 1.5 }, 'at100'],
  [{ at40: 5, at100: 8 }, 'at100'],
  [{ at40: 0, at100: 8 }, 'at40'],
])('no index for %j', (oil, field) => {
  expect(viscosityIndex(oil)).toMatchObject({ ok: false, problem: { field } });
});

describe('choosing a grade', () => {
  const duty = { startTempC: 5, mostAtStart: 1200, runningTempC: 80, leastRunning: 12 };

  test('cold start and warm running leave the grades between', () => {
    const outcome = gradesFor(duty);
    if (!outcome.ok) throw new Error();
    // VG 100 at index 95 has 11.1 mm²/s at 100 °C, near 20 at 80 °C, and by Walther 1,140 at 5 °C.
    expect(outcome.value).toContain(100);
    expect(outcome.value).not.toContain(32);
    expect(outcome.value).not.toContain(220);
  });

  test('a colder start never allows a thicker oil', () => {
    const grades = (startTempC: number) => {
      const outcome = gradesFor({ ...duty, startTempC });
      return outcome.ok ? Math.max(0, ...outcome.value) : NaN;
    };
    expect(grades(-15)).toBeLessThan(grades(20));
    expect(gradesFor({ ...duty, runningTempC: 0 })).toMatchObject({ problem: { field: 'runningTempC' } });
  });
});
