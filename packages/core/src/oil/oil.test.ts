import fc from 'fast-check';
import { isoGradeOf, isoGrades, oilLifeFactor, viscosityAt } from './index.js';

const valueOf = (outcome: { ok: boolean; value?: number }) => {
  if (!outcome.ok) throw new Error(JSON.stringify(outcome));
  return outcome.value!;
};

test('grades are within a tenth of their number (ISO 3448)', () => {
  for (const grade of isoGrades) {
    expect([isoGradeOf(grade), isoGradeOf(grade * 0.9), isoGradeOf(grade * 1.1)]).toEqual([
      grade,
      grade,
      grade,
    ]);
  }
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
