import { cheapestSeparatorHours, energyShareOfPressure, repairOrReplace } from './index.js';

test('0.14 bar cost one per cent of the energy, 0.7 bar five (US DOE, memory)', () => {
  expect(energyShareOfPressure(0.14)).toMatchObject({ value: expect.closeTo(0.01, 12) });
  expect(energyShareOfPressure(0.7)).toMatchObject({ value: expect.closeTo(0.05, 12) });
  expect(energyShareOfPressure(-1)).toMatchObject({ ok: false, problem: { field: 'bar' } });
});

describe('the cheapest hour to replace a separator element', () => {
  const costs = { priceCents: 40_000, growthBarPerHour: 0.0002, powerKw: 22, priceCentsPerKwh: 25 };

  test('worked by hand', () => {
    // A bar for an hour: 0.0714·22·25 = 39.29 cents. √(2·40,000/(0.0002·39.29)) = √(1.0182e7) = 3,191 h.
    expect(cheapestSeparatorHours(costs)).toMatchObject({ value: expect.closeTo(3191, -1) });
  });

  test('costs more an hour when it is done sooner or later', () => {
    const outcome = cheapestSeparatorHours(costs);
    if (!outcome.ok) throw new Error(outcome.problem.sentence);
    const perHour = (hours: number) =>
      costs.priceCents / hours + (0.0002 * hours * (0.01 / 0.14) * 22 * 25) / 2;
    const best = perHour(outcome.value);
    for (const factor of [0.5, 0.9, 1.1, 2]) expect(perHour(outcome.value * factor)).toBeGreaterThan(best);
  });

  test('a drop that does not grow is refused', () => {
    const flat = { ...costs, growthBarPerHour: 0 };
    expect(cheapestSeparatorHours(flat)).toMatchObject({ ok: false, problem: { field: 'growthBarPerHour' } });
  });
});

test('repair or replace, by hand: 500 + 4 h at 80 over 4 years; 4,000 over 10, saving 1,000 kWh at 25 cents', () => {
  const repair = { partsCents: 50_000, labourHours: 4, labourCentsPerHour: 8000, furtherYears: 4 };
  const replacement = {
    priceCents: 400_000,
    lifeYears: 10,
    savedKwhPerYear: 1000,
    priceCentsPerKwh: 25,
    downtimeCents: 20_000,
  };
  // (50,000 + 32,000)/4 = 20,500; (400,000 + 20,000)/10 − 25,000 = 17,000.
  expect(repairOrReplace(repair, replacement)).toEqual({
    ok: true,
    value: { repairCentsPerYear: 20_500, replaceCentsPerYear: 17_000 },
  });
  expect(repairOrReplace({ ...repair, furtherYears: 0 }, replacement)).toMatchObject({
    problem: { field: 'furtherYears' },
  });
});
