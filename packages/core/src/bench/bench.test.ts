import fc from 'fast-check';
import type { CheckValues, FieldDefinition } from '../checks/index.js';
import type { DataPlate } from '../machine/index.js';
import type { Result } from '../basics/index.js';
import {
  BenchValues,
  cascadeJob,
  costByShare,
  costFields,
  fillCurve,
  holeFields,
  holeLeak,
  interstageBench,
  interstageFields,
  stageFields,
  waterFields,
  waterNow,
  waterYearInput,
  yearFields,
  yearlyCostCents,
  type TypedJob,
} from './index.js';

const AIR = 1.01325;

function valueOf<T>(outcome: Result<T>): T {
  if (!outcome.ok) throw new Error(outcome.problem.sentence);
  return outcome.value;
}

const plate: DataPlate = {
  siteId: 's',
  tag: 'SP-1',
  family: 'high-pressure',
  commissionedOn: '2024-01-01',
  history: 'new',
  stages: 3,
  workingPressureBar: 300,
  fadLpm: 255,
};

const values = (fields: readonly FieldDefinition[], typed: CheckValues, of?: DataPlate) =>
  new BenchValues(fields, typed, of);

test('what is typed beats the plate; what neither says is missing by name', () => {
  const both = values(interstageFields, { workingBar: 200 }, plate);
  expect([both.number('workingBar'), both.number('fadLpm'), both.number('cooledTempC')]).toEqual([
    200,
    255,
    undefined,
  ]);
  expect(both.need('intakeTempC')).toMatchObject({
    ok: false,
    problem: { code: 'missing', field: 'intakeTempC', sentence: 'Still needed: “Intake air”.' },
  });
});

test('a fill takes its own time at its own flow, and half of it at twice the flow', () => {
  const run = { fromBar: 6, toBar: 8, seconds: 60, atmosphereBarAbs: AIR, tempC: 20 };
  expect(fillCurve(run).at(-1)).toEqual({ x: 60, y: 8 });
  expect(fillCurve(run, 2).at(-1)!.x).toBeCloseTo(30, 9);
  // Nearly an ideal gas: half the pressure in half the time.
  expect(fillCurve(run).find(({ y }) => y >= 7)!.x).toBeGreaterThan(29);
});

describe('leaks', () => {
  test('a 3 mm sharp hole at 7 bar, by hand', () => {
    // ṁ = 0.61·7.0686e-6·8.01325e5·√(1.4/(287.04·293.15))·0.5787 = 8.16e-3 kg/s; ÷ 1.2042 kg/m³ = 6.78 L/s = 407 L/min.
    const leak = valueOf(holeLeak(values(holeFields, { diameterMm: 3, pressureBar: 7, edge: 'sharp' }), AIR));
    expect(leak.flowLpm).toBeGreaterThan(403);
    expect(leak.flowLpm).toBeLessThan(411);
    // 0.407·6.5·8,760·0.25 = 5,790 a year.
    expect(leak.centsPerYear / 100).toBeGreaterThan(5740);
    expect(leak.centsPerYear / 100).toBeLessThan(5850);
    expect(leak.curve.at(-1)!.x).toBe(6);
  });

  test('more leak, more cost, whatever the prices', () => {
    const figure = (max: number) => fc.double({ min: 0.1, max, noNaN: true });
    fc.assert(
      fc.property(figure(5000), figure(5000), figure(30), figure(500), (a, b, specificPower, centsPerKwh) => {
        const prices = values(costFields, { specificPower, centsPerKwh });
        const cost = (flow: number) => valueOf(yearlyCostCents(flow, prices));
        expect(cost(Math.max(a, b))).toBeGreaterThanOrEqual(cost(Math.min(a, b)));
      }),
    );
    const curve = costByShare(1000, values(costFields, {}));
    expect(curve.every(({ y }, index) => index === 0 || y > curve[index - 1]!.y)).toBe(true);
  });

  test('too little pressure to choke is said beside the gauge', () => {
    const low = holeLeak(values(holeFields, { diameterMm: 3, pressureBar: 0.5 }), AIR);
    expect(low).toMatchObject({ ok: false, problem: { field: 'pressureBar' } });
  });
});

describe('the ladder', () => {
  const fields = [...interstageFields, ...stageFields(3)];

  test('as it should be, from the plate: three stages to 300 bar, by hand', () => {
    // r = (301.01/1.01325)^(1/3) = 6.672; after stage 1 6.76 bar absolute, 5.75 by gauge.
    const bench = valueOf(interstageBench(values(fields, { intakeTempC: 20 }, plate), plate, AIR));
    expect(bench.expected.ratio).toBeCloseTo(6.672, 2);
    expect(bench.reading).toBeNull();
    // Each stage 5·(6.672^0.2 − 1) = 2.309 times p·Q: 1.01325e5/60·2.309 = 3.90 kW per m³/min, warmed 303/293 after.
    expect(bench.powerKw! / 0.255).toBeCloseTo(3.9 * (1 + (2 * 303.15) / 293.15), 0);
  });

  test('read once every stage is there', () => {
    const typed = { intakeTempC: 20, stage1Bar: 5.8, stage2Bar: 58, stage3Bar: 300, stage3TempC: 195 };
    const bench = valueOf(interstageBench(values(fields, typed, plate), plate, AIR));
    expect(bench.reading!.suspects[0]).toMatchObject({ faults: [{ kind: 'valves', stage: 3 }] });
  });

  test('without a unit the stages are asked for, and a sixth is refused by its bounds', () => {
    expect(
      interstageBench(values(fields, { workingBar: 10, intakeTempC: 20 }), undefined, AIR),
    ).toMatchObject({
      problem: { field: 'stages' },
    });
    const six = values(fields, { stages: 6, workingBar: 10, intakeTempC: 20 });
    expect(interstageBench(six, undefined, AIR)).toMatchObject({ ok: false, problem: { field: 'stages' } });
    expect(stageFields(6)).toHaveLength(10);
  });
});

describe('condensate and cartridge', () => {
  const typed = { intakeTempC: 20, humidity: 70, fadLpm: 200, finalBar: 225, separatorTempC: 30 };
  const all = [...waterFields, ...yearFields];

  test('by hand: what falls out of 200 L/min at 20 °C and 70 %, held at 30 °C under 225 bar', () => {
    // In: 0.62195·0.016446/(1.01325 − 0.016446) = 0.010261 kg/kg; dry 1.1846 kg/m³: 12.16 g/m³.
    // Left: ln f at 226 bar, 30 °C: Poynting 0.162, 2ρB 0.475, 1.5ρ²C −0.086, ln Z 0.056, dissolved −0.003: f = 1.831;
    // 0.62195·0.042470·1.831/(226.01 − 0.08) = 2.141e-4; ·1184.6 = 0.2536 g/m³.
    const now = valueOf(waterNow(values(all, { ...typed, holdsMl: 150, cartridgeG: 150 }), AIR));
    expect(now.vapourGPerM3).toBeCloseTo(0.2536, 3);
    expect(now.condensateMlPerHour).toBeCloseTo((12.16 - 0.2536) * 12, 0);
    // 75 ml at 2.381 ml/min: 31.5 min. 150 g ÷ (0.2536·12) = 49.3 h.
    expect(now.drainMin).toBeCloseTo(31.5, 0);
    expect(now.cartridge!.hours).toBeCloseTo(49.3, 0);
    expect(now.cartridge!.fills).toBeNull();
  });

  test('fills of a 10 L cylinder are what the air of its life fills', () => {
    const { cartridge } = valueOf(waterNow(values(all, { ...typed, cartridgeG: 150, cylinderL: 10 }), AIR));
    // From 22.5 to 225 bar a 10 L cylinder takes close to 1.94 m³ of free air.
    expect(cartridge!.freeAirM3 / cartridge!.fills!).toBeGreaterThan(1.8);
    expect(cartridge!.freeAirM3 / cartridge!.fills!).toBeLessThan(2.05);
  });

  test('hotter air in the separator, shorter life', () => {
    const { lifeCurve } = valueOf(waterNow(values(all, { ...typed, cartridgeG: 150 }), AIR));
    expect(lifeCurve.length).toBeGreaterThan(20);
    expect(lifeCurve.every(({ y }, index) => index === 0 || y <= lifeCurve[index - 1]!.y)).toBe(true);
  });

  test('the year asks for its own figures', () => {
    expect(waterYearInput(values(all, typed), AIR)).toMatchObject({ problem: { field: 'warmMonthC' } });
    const year = valueOf(
      waterYearInput(values(all, { ...typed, warmMonthC: 18, coldMonthC: 0, hoursPerWeek: 10 }), AIR),
    );
    expect(year).toMatchObject({ separatorAboveK: 10, climate: { daySwingK: 8, humidity: 0.7 } });
  });
});

describe('a job of banks and cylinders as it is typed', () => {
  const cylinder = { volumeL: '12', bar: '50', ratedBar: '300', testedUntil: '2027-03-31' };
  const job: TypedJob = {
    banks: [{ volumeL: '50', bar: '200' }],
    cylinders: [cylinder],
    fillBar: 300,
    tempC: 20,
    atmosphereBarAbs: AIR,
    today: '2026-06-01',
  };

  test('is understood, gauge made absolute', () => {
    expect(valueOf(cascadeJob(job))).toEqual({
      banks: [{ volumeL: 50, pressureBarAbs: 200 + AIR }],
      cylinders: [{ volumeL: 12, pressureBarAbs: 50 + AIR, fullBarAbs: 300 + AIR }],
      tempC: 20,
    });
  });

  test.each<[string, Partial<TypedJob>, string]>([
    [
      'out of date',
      { cylinders: [cylinder, { ...cylinder, testedUntil: '2026-05-31' }] },
      'cylinders.1.testedUntil',
    ],
    ['under-rated', { cylinders: [{ ...cylinder, ratedBar: '232' }] }, 'cylinders.0.ratedBar'],
    ['no volume', { banks: [{ volumeL: '', bar: '200' }] }, 'banks.0.volumeL'],
    ['no figure', { banks: [{ volumeL: '50', bar: 'full' }] }, 'banks.0.bar'],
    ['no such pressure', { banks: [{ volumeL: '50', bar: '900' }] }, 'banks.0.bar'],
    ['no date', { cylinders: [{ ...cylinder, testedUntil: '' }] }, 'cylinders.0.testedUntil'],
    ['no banks', { banks: [] }, 'banks'],
  ])('%s is refused beside its field', (_name, more, field) => {
    expect(cascadeJob({ ...job, ...more })).toMatchObject({ ok: false, problem: { field } });
  });
});
