import { learnPrior, practicePrior, WANDER_WINDOWS, type LearntFrom } from './index.js';

const machine = (more: Partial<LearntFrom> = {}): LearntFrom => ({
  intervals: 30,
  typical: 5,
  scatter: 1,
  windowDays: 350,
  seasonTrust: null,
  ...more,
});
const fleet = (count: number, more: Partial<LearntFrom> = {}) =>
  Array.from({ length: count }, () => machine(more));

describe('what a fleet teaches', () => {
  test('nothing, while there are few machines with readings enough', () => {
    expect(learnPrior(fleet(9), practicePrior)).toBeNull();
    expect(
      learnPrior([...fleet(9), machine({ intervals: 11 }), machine({ typical: null })], practicePrior),
    ).toBeNull();
  });

  test('its own spread, the more machines the more; twenty weigh as much as what was believed', () => {
    // Each machine scatters by 1/5 of its use a day; believed was 0.7. Half way between, by ratio: √(0.2·0.7).
    expect(learnPrior(fleet(20), practicePrior)!.spread).toBeCloseTo(Math.sqrt(0.2 * 0.7), 9);
    expect(learnPrior(fleet(2000), practicePrior)!.spread).toBeCloseTo(0.2, 1);
  });

  test('one odd machine does not move it', () => {
    const odd = [...fleet(20), machine({ scatter: 1e6 })];
    expect(learnPrior(odd, practicePrior)!.spread).toBeLessThan(0.4);
  });

  test('which windows are usual; they still sum to 1, and none is ruled out', () => {
    const { windows } = learnPrior(fleet(40), practicePrior)!;
    expect(windows.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 12);
    expect(windows[WANDER_WINDOWS.indexOf(350)]).toBe(Math.max(...windows));
    expect(Math.min(...windows)).toBeGreaterThan(0);
  });

  test('how far seasons can be trusted, by the machines that have one', () => {
    expect(learnPrior(fleet(20), practicePrior)!.seasonTrust).toBe(practicePrior.seasonTrust);
    expect(learnPrior(fleet(20, { seasonTrust: 0.9 }), practicePrior)!.seasonTrust).toBeCloseTo(0.65, 9);
  });
});
