import { describe, expect, it } from '@jest/globals';
import seedrandom from 'seedrandom';
import { Planner, type PlanProblem } from './index.js';

const still = [
  [0, 0, 0],
  [0, 0, 0],
  [0, 0, 0],
];

function repairsAlone(minutes: readonly number[]): PlanProblem {
  return {
    repairs: minutes.map((one) => ({ minutes: one, state: 0 })),
    tests: [],
    switching: still,
    verifying: 0,
    unclear: 0,
  };
}

/** Expected minutes of repairing in an order. */
function minutesInOrder(
  order: readonly number[],
  minutes: readonly number[],
  chances: readonly number[],
): number {
  let left = 1;
  return order.reduce((sum, at) => {
    const spent = left * minutes[at]!;
    left -= chances[at]!;
    return sum + spent;
  }, 0);
}

function orders(of: readonly number[]): number[][] {
  if (of.length === 0) return [[]];
  return of.flatMap((one) => orders(of.filter((other) => other !== one)).map((rest) => [one, ...rest]));
}

describe('repairs alone', () => {
  // Chance over minutes: 0.5/40 = 0.0125, 0.3/10 = 0.03, 0.15/30 = 0.005, 0.05/2 = 0.025. So b, d, a, c:
  // 10 + 0.7·2 + 0.65·40 + 0.15·30 = 41.9 minutes.
  const minutes = [40, 10, 30, 2];
  const chances = [0.5, 0.3, 0.15, 0.05];

  it('come in the classical order of chance over minutes', () => {
    const planner = new Planner(repairsAlone(minutes));
    expect(planner.withoutTests(Float64Array.from(chances), 0)).toBeCloseTo(41.9, 9);
    const order: number[] = [];
    let belief = Float64Array.from(chances);
    while (order.length < 4) {
      const { repair, test } = planner.choose({ belief, state: 0, asked: [] });
      expect(test).toBeNull();
      order.push(repair);
      const left = belief.reduce((sum, one, at) => sum + (at === repair ? 0 : one), 0);
      belief = belief.map((one, at) => (at === repair ? 0 : one / left));
    }
    expect(order).toEqual([1, 3, 0, 2]);
  });

  it('take the least minutes of all orders', () => {
    const random = seedrandom('orders');
    for (let k = 0; k < 40; k++) {
      const costs = Array.from({ length: 5 }, () => 2 + 100 * random());
      const raw = costs.map(() => random() + 0.02);
      const shares = raw.map((one) => one / raw.reduce((sum, other) => sum + other, 0));
      const best = Math.min(...orders([0, 1, 2, 3, 4]).map((order) => minutesInOrder(order, costs, shares)));
      expect(new Planner(repairsAlone(costs)).withoutTests(Float64Array.from(shares), 0)).toBeCloseTo(
        best,
        9,
      );
    }
  });

  it('keep that order where each test is a repair that shows whether it was the one', () => {
    const problem: PlanProblem = {
      ...repairsAlone(minutes),
      tests: minutes.map((one, at) => ({
        minutes: one,
        states: [0],
        penalty: 0,
        danger: 0,
        chances: [
          Float64Array.from(minutes, (_other, i) => (i === at ? 1 : 0)),
          Float64Array.from(minutes, (_other, i) => (i === at ? 0 : 1)),
        ],
      })),
    };
    const choice = new Planner(problem).choose({
      belief: Float64Array.from(chances),
      state: 0,
      asked: minutes.map(() => false),
    });
    // A look that costs what the repair costs is worth nothing: the repair itself comes first.
    expect(choice).toMatchObject({ test: null, repair: 1 });
  });
});

describe('tests', () => {
  const telling = (danger: number, minutes: number) => ({
    minutes,
    states: [0],
    penalty: 0,
    danger,
    chances: [Float64Array.from([0.95, 0.05]), Float64Array.from([0.05, 0.95])],
  });
  const twoRepairs = (tests: PlanProblem['tests']): PlanProblem => ({
    repairs: [
      { minutes: 100, state: 0 },
      { minutes: 110, state: 0 },
    ],
    tests,
    switching: still,
    verifying: 0,
    unclear: 0.1,
  });
  const even = { belief: Float64Array.from([0.5, 0.5]), state: 0 };

  it('are made where they save more than they take', () => {
    const cheap = new Planner(twoRepairs([telling(0, 5)]));
    expect(cheap.choose({ ...even, asked: [false] }).test).toBe(0);
    const dear = new Planner(twoRepairs([telling(0, 80)]));
    expect(dear.choose({ ...even, asked: [false] }).test).toBeNull();
  });

  it('of danger wait for a safer one within three times the minutes, and no longer', () => {
    const within = new Planner(twoRepairs([telling(2, 5), telling(1, 14)]));
    expect(within.choose({ ...even, asked: [false, false] }).test).toBe(1);
    const beyond = new Planner(twoRepairs([telling(2, 5), telling(1, 16)]));
    expect(beyond.choose({ ...even, asked: [false, false] }).test).toBe(0);
    // Once the safer one was asked it holds nothing up.
    expect(within.choose({ ...even, asked: [false, true] }).test).toBe(0);
  });

  it('are not proposed where they are not allowed', () => {
    const planner = new Planner(twoRepairs([telling(0, 5), telling(0, 9)]));
    expect(planner.choose({ ...even, asked: [false, false] }, 2, (at) => at === 1).test).toBe(1);
    expect(planner.choose({ ...even, asked: [false, false] }, 2, () => false).test).toBeNull();
  });
});
