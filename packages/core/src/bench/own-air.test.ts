import type { CheckValues } from '../checks/index.js';
import { BenchValues, ownAir, ownAirFields } from './index.js';

const AIR = 1.01325;
const typed = {
  cylinderL: 10,
  fromBar: 50,
  toBar: 200,
  fadLpm: 200,
  powerKw: 7.5,
  cartridgePrice: 120,
  cartridgeHours: 40,
  servicePrice: 400,
  setPrice: 9000,
  fills: 500,
  boughtPrice: 4,
};
const bench = (more: CheckValues = {}) =>
  ownAir(new BenchValues(ownAirFields, { ...typed, ...more }, undefined), AIR);
const valueOf = (outcome: ReturnType<typeof bench>) => {
  if (!outcome.ok) throw new Error(outcome.problem.sentence);
  return outcome.value;
};

test('worked by hand: 10 L from 50 to 200 bar', () => {
  // p/Z: 201.0/1.035 − 51.0/0.988 = 142.6 bar, over 1.013 bar and times 10 L some 1,407 L (Z from Perry, memory).
  const own = valueOf(bench());
  expect(own.freeAirL / 1407).toBeCloseTo(1, 1);
  // 7.04 min at 200 L/min; 7.5 kW at 25 ct: 22 ct; 120 € over 40 h: 35 ct.
  expect(own.minutes / 7.04).toBeCloseTo(1, 1);
  expect(own.energyCents / 22).toBeCloseTo(1, 1);
  expect(own.cartridgeCents / 35.2).toBeCloseTo(1, 1);
  // 400 € and 9,000 € over 15 years are 1,000 € a year: 2 € a fill.
  expect(own.fixedCents).toBeCloseTo(200, 9);
  expect(own.ownCents).toBeCloseTo(own.energyCents + own.cartridgeCents + 200, 9);
  expect(own.boughtCents).toBe(400);
  // 1,000 € over 4 € less 57 ct: from about 292 fills on.
  expect(own.worthFromFills! / 292).toBeCloseTo(1, 1);
});

test('at its worth both cost the same; one fill fewer and the bought one is cheaper', () => {
  const { worthFromFills } = valueOf(bench());
  const at = (fills: number) => {
    const { ownCents, boughtCents } = valueOf(bench({ fills }));
    return ownCents <= boughtCents;
  };
  expect([at(worthFromFills!), at(worthFromFills! - 1)]).toEqual([true, false]);
});

test('where a fill elsewhere costs less than energy and cartridge it is never worth it; the way counts', () => {
  expect(valueOf(bench({ boughtPrice: 0.5 })).worthFromFills).toBeNull();
  expect(valueOf(bench({ boughtPrice: 0.5, wayPrice: 10 })).worthFromFills).toBeGreaterThan(0);
  expect(valueOf(bench({ servicePrice: 0, setPrice: 0 })).worthFromFills).toBe(0);
});

test('what cannot be is refused beside its field, what is missing by its name', () => {
  const problem = (more: CheckValues) => {
    const outcome = bench(more);
    return outcome.ok ? null : [outcome.problem.code, outcome.problem.field];
  };
  expect(problem({ toBar: 50 })).toEqual(['full-already', 'toBar']);
  const none = ownAir(new BenchValues(ownAirFields, {}, undefined), AIR);
  expect(none).toMatchObject({ ok: false, problem: { code: 'missing', field: 'cylinderL' } });
});

test('a fill gets cheaper with every further one', () => {
  const { curve } = valueOf(bench());
  expect(curve.every(({ y }, index) => index === 0 || y < curve[index - 1]!.y)).toBe(true);
});
