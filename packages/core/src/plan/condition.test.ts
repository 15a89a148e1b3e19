import { done, history, measured, only, read, task } from './fixtures.js';
import type { Trigger } from './triggers/index.js';

/** 8 h a day. */
const readings = [read(0, 0), read(400, 3200)];
const by = (more: object) =>
  ({ kind: 'condition', check: 'discharge-temperature', limit: 60, ...more }) as Trigger;
const plan = (trigger: Trigger) => ({ tasks: [task('cooling-clean', { triggers: [trigger] })] });
const temperature = (on: number, value: number, more: object = {}) =>
  measured(on, 'discharge-temperature', value, more);
const at = (trigger: Trigger, measurements: ReturnType<typeof temperature>[], more: object = {}) =>
  only(plan(trigger), history({ readings, measurements, ...more }), 400);

describe('a measured limit', () => {
  test('on the limit it is due, under it by the least it is not', () => {
    expect(at(by({}), [temperature(100, 60)])).toMatchObject({ usedFraction: 1 });
    expect(['due', 'overdue']).toContain(at(by({}), [temperature(100, 60)]).state);
    expect(at(by({}), [temperature(100, 59.9)]).state).toBe('nearing');
    expect(at(by({}), [temperature(100, 47)]).state).toBe('fresh');
  });

  test('on its lower side likewise', () => {
    const least = by({ check: 'oil-pressure', limit: 1.5 });
    const pressure = (value: number) => [measured(100, 'oil-pressure', value)];
    expect(['due', 'overdue']).toContain(at(least, pressure(1.5)).state);
    expect(at(least, pressure(4)).state).toBe('fresh');
  });

  test('eight tenths of the way to it is near', () => {
    expect(at(by({}), [temperature(100, 47.9)]).state).toBe('fresh');
    expect(at(by({}), [temperature(100, 48)]).state).toBe('nearing');
  });

  test('a share of the baseline goes by the latest baseline, not by the first measurement', () => {
    const half = by({ limit: 1.5, of: 'baseline' });
    const measurements = [temperature(50, 20), temperature(60, 40, { baseline: true }), temperature(300, 50)];
    // 1.5 × 40 = 60 is not reached; 1.5 × 20 would have been long past.
    expect(at(half, measurements).state).not.toBe('overdue');
    expect(at(half, [...measurements, temperature(350, 60)]).usedFraction).toBe(1);
  });

  test('without a baseline its first measurement stands for one', () => {
    const half = by({ limit: 1.5, of: 'baseline' });
    expect(at(half, [temperature(50, 20), temperature(300, 30)]).usedFraction).toBe(1);
    expect(at(half, [temperature(50, 20), temperature(300, 20)]).state).toBe('fresh');
  });

  test('the latest by its moment counts, whatever order they became known in', () => {
    const [first, last] = [temperature(100, 20), temperature(300, 59)];
    expect(at(by({}), [last, first]).usedFraction).toBeCloseTo(59 / 60, 3);
    expect(at(by({}), [first, last]).usedFraction).toBeCloseTo(59 / 60, 3);
  });

  test('what was measured before the work that resets it is of another life', () => {
    const services = [done(200, ['cooling-clean'])];
    expect(at(by({}), [temperature(100, 70)], { services }).state).toBe('fresh');
    expect(at(by({}), [temperature(100, 70), temperature(300, 30)], { services })).toMatchObject({
      state: 'fresh',
      usedFraction: 0.5,
    });
    // Other work resets nothing.
    const other = [done(200, ['belt-check'])];
    expect(at(by({}), [temperature(100, 70)], { services: other }).usedFraction).toBeGreaterThanOrEqual(1);
  });

  test('it was due when it was first past it for good, not when it was last seen so', () => {
    const measurements = [temperature(100, 30), temperature(200, 61), temperature(300, 65)];
    expect(at(by({}), measurements).dueAtHours).toBeCloseTo(1600, 0);
    // Better in between: it counts from the last time that it came past.
    const between = [temperature(100, 61), temperature(200, 50), temperature(300, 65)];
    expect(at(by({}), between).dueAtHours).toBeCloseTo(2400, 0);
  });

  test('what does not worsen has no date, and is not foreseen', () => {
    const same = [50, 100, 150, 200, 250, 300].map((on) => temperature(on, 30, { uncertainty: 1 }));
    expect(at(by({}), same)).toMatchObject({ state: 'fresh', likelyOn: null });
  });

  test('until it is measured the interval holds', () => {
    const until = by({ unmeasured: { kind: 'hours', every: 2000 } });
    expect(at(until, []).dueAtHours).toBe(2000);
    const found = at(until, [temperature(300, 30)]);
    // Half of the way at 2,400 h: what is left of it passes by the interval.
    expect(found.dueAtHours).toBeCloseTo(2400 + 0.5 * 2000, 0);
  });
});
