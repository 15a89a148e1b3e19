import fc from 'fast-check';
import {
  cartridgeLifeHours,
  condensateGPerM3,
  drainIntervalMin,
  interstagePressures,
  compressibility,
  cylinderRefusal,
  fillPressureFor,
  freeAirIn,
  freeAirToFill,
  hotFillTemp,
  massInVolume,
  settledPressure,
  vapourGPerM3,
} from './index.js';

const valueOf = <T>(outcome: { ok: boolean; value?: T }): T => {
  if (!outcome.ok) throw new Error(JSON.stringify(outcome));
  return outcome.value!;
};

describe('the compression ladder', () => {
  test('worked by hand: two stages from 1 to 8 bar at 20 °C, exponent 1.25', () => {
    // r = √8 = 2.8284; r^0.2 = 1.2311; T₂ = 293.15·1.2311 = 360.9 K = 87.8 °C.
    // Power: 1e5/60 W per m³/min · 5 · 0.2311 = 1.926 kW a stage, 3.852 kW in all.
    const expected = valueOf(
      interstagePressures({ stages: 2, intakeBarAbs: 1, finalBarAbs: 8, intakeTempC: 20 }),
    );
    expect(expected.ratio).toBeCloseTo(2.8284, 4);
    expect(expected.states.map(({ toBarAbs }) => toBarAbs)).toEqual([
      expect.closeTo(2.8284, 3),
      expect.closeTo(8, 9),
    ]);
    expect(expected.states[0]!.outletTempC).toBeCloseTo(87.8, 1);
    expect(expected.powerKwPerM3Min).toBeCloseTo(3.852, 2);
  });

  test('a warm cooler costs power and temperature in the stage after it', () => {
    const input = { stages: 3, intakeBarAbs: 1, finalBarAbs: 226, intakeTempC: 20 };
    const [, second] = valueOf(interstagePressures({ ...input, cooledTempC: 45 })).states;
    const [, cold] = valueOf(interstagePressures(input)).states;
    expect(second!.powerKwPerM3Min / cold!.powerKwPerM3Min).toBeCloseTo(318.15 / 293.15, 6);
    expect(second!.outletTempC).toBeGreaterThan(cold!.outletTempC);
  });

  test('more stages never take more power, nor run hotter', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.double({ min: 2, max: 300, noNaN: true }),
        (stages, finalBarAbs) => {
          const at = (count: number) =>
            valueOf(interstagePressures({ stages: count, intakeBarAbs: 1, finalBarAbs, intakeTempC: 20 }));
          expect(at(stages + 1).powerKwPerM3Min).toBeLessThanOrEqual(at(stages).powerKwPerM3Min + 1e-9);
          expect(at(stages + 1).states[0]!.outletTempC).toBeLessThanOrEqual(
            at(stages).states[0]!.outletTempC,
          );
        },
      ),
    );
  });

  test.each([
    [{ stages: 6 }, 'stages'],
    [{ stages: 1.5 }, 'stages'],
    [{ intakeTempC: 212 }, 'intakeTempC'],
    [{ finalBarAbs: 0.9 }, 'finalBarAbs'],
    [{ intakeBarAbs: -1 }, 'intakeBarAbs'],
  ])('%j is refused beside its field', (more, field) => {
    const input = { stages: 2, intakeBarAbs: 1, finalBarAbs: 8, intakeTempC: 20, ...more };
    expect(interstagePressures(input)).toMatchObject({ ok: false, problem: { field } });
  });
});

const intake = { pressureBarAbs: 1.01325, tempC: 20, relativeHumidity: 0.7 };

describe('condensate', () => {
  test('worked by hand: 20 °C at 70 %, compressed to 8 bar and cooled to 30 °C', () => {
    // W_in = 0.622·0.01637/(1.01325 − 0.01637) = 0.01022; at 8 bar 0.622·0.04247·1.024/(8 − 0.0435) = 0.00340;
    // dry air (1.01325 − 0.01637)e5/(287.04·293.15) = 1.185 kg/m³: 1.185·(0.01022 − 0.00340) = 8.08 g/m³.
    expect(valueOf(condensateGPerM3(intake, { pressureBarAbs: 8, tempC: 30 }))).toBeCloseTo(8.08, 1);
  });

  test('what falls out and what stays is what was taken in', () => {
    const after = { pressureBarAbs: 40, tempC: 25 };
    const dry = { ...intake, relativeHumidity: 0 };
    const taken = valueOf(vapourGPerM3(intake, { pressureBarAbs: 1.02, tempC: 60 }));
    const sum = valueOf(condensateGPerM3(intake, after)) + valueOf(vapourGPerM3(intake, after));
    expect(sum).toBeCloseTo(taken, 9);
    expect(valueOf(condensateGPerM3(dry, after))).toBe(0);
  });

  test('a separator of 150 ml at 8 g/m³ and 200 L/min, half of it used, is drained every 47 min', () => {
    // 75 ml ÷ (8·0.2 ml/min) = 46.9 min.
    expect(valueOf(drainIntervalMin(150, 8, 200))).toBeCloseTo(46.875, 6);
    expect(drainIntervalMin(0, 8, 200)).toMatchObject({ ok: false, problem: { field: 'holdsMl' } });
  });
});

describe('the purifier cartridge', () => {
  const life = (tempC: number) =>
    valueOf(cartridgeLifeHours(200, valueOf(vapourGPerM3(intake, { pressureBarAbs: 151, tempC })), 200));

  test('worked by hand: 200 g, 30 °C at 150 bar, 200 L/min', () => {
    // 0.622·0.04247·1.55/151 = 2.71e-4 kg/kg; ·1.185 = 0.321 g/m³; ·12 m³/h = 3.86 g/h: 52 h.
    expect(life(30)).toBeGreaterThan(50);
    expect(life(30)).toBeLessThan(54);
  });

  test('six degrees hotter cost roughly a third of the life', () => {
    const lost = 1 - life(36) / life(30);
    expect(lost).toBeGreaterThan(0.25);
    expect(lost).toBeLessThan(0.36);
  });

  test('without the enhancement of dense air the life would be half as long again', () => {
    const ideal = 200 / (((0.622 * 0.04247) / 151) * 1.185 * 12 * 1000);
    expect(ideal / life(30)).toBeGreaterThan(1.5);
  });
});

describe('cylinders and banks', () => {
  test('a 10 L cylinder at 300 bar holds about 2,680 L, not the 2,970 of an ideal gas', () => {
    const free = valueOf(freeAirIn({ volumeL: 10, pressureBarAbs: 301 }, 26.85));
    // 10·301/1.01325/1.109 = 2,679.
    expect(free / (3010 / 1.01325 / 1.109)).toBeCloseTo(1, 2);
    expect(free).toBeLessThan(2800);
  });

  test('filled hot it settles lower, with the same air in it', () => {
    const settled = valueOf(settledPressure(301, 60, 20));
    expect(settled).toBeLessThan(270);
    expect(massInVolume(1, settled, 20)).toBeCloseTo(massInVolume(1, 301, 60), 6);
  });

  test('the way there and back: filled to what settles at 300 bar, it settles at 300 bar', () => {
    const fill = valueOf(fillPressureFor(301, 55, 20));
    expect(fill).toBeGreaterThan(330);
    expect(valueOf(settledPressure(fill, 55, 20))).toBeCloseTo(301, 6);
  });

  test('a fast fill, against the energy balance taken in twenty-five thousand steps', () => {
    // 12 L, 15 kg of steel, from 50 to 301 bar at 20 °C.
    const [volume, wall, start] = [12e-3, 15 * 470, 293.15];
    const z = (bar: number, at = kelvin) => valueOf(compressibility(bar, at - 273.15));
    let kelvin = start;
    let mass = (50e5 * volume) / (z(50) * 287.042 * start);
    const pressure = () => {
      let bar = last;
      for (let round = 0; round < 6; round++) bar = (mass * z(bar) * 287.042 * kelvin) / volume / 1e5;
      return (last = bar);
    };
    let last = 50;
    while (pressure() < 301) {
      const added = 1e-4;
      // What flows in brings c_p·T₀; what is there warms by the rest.
      kelvin += (added * (1004.6 * start - 717.6 * kelvin)) / ((mass + added) * 717.6 + wall);
      mass += added;
    }
    const hotC = valueOf(hotFillTemp({ volumeL: 12, fromBarAbs: 50, toBarAbs: 301, tempC: 20, wallKg: 15 }));
    expect(Math.abs(hotC - (kelvin - 273.15))).toBeLessThan(0.5);
    const settled = valueOf(settledPressure(301, hotC, 20));
    let bar = 250;
    for (let round = 0; round < 30; round++) bar = (mass * z(bar, start) * 287.042 * start) / volume / 1e5;
    expect(Math.abs(settled / bar - 1)).toBeLessThan(0.002);
  });

  test('without a wall to warm, a fast fill from empty is hotter by nearly γ', () => {
    // Ideal: T = γT₀ = 410 K from a vacuum; a start at 1 bar and real air take off little.
    const hot = valueOf(
      hotFillTemp({ volumeL: 10, fromBarAbs: 1.01325, toBarAbs: 50, tempC: 20, wallKg: 0 }),
    );
    expect(hot + 273.15).toBeGreaterThan(400);
    expect(hot + 273.15).toBeLessThan(1.4 * 293.15);
  });

  test.each([
    [{ ratedBar: 300, testedUntil: '2026-05-31' }, 'cylinder-out-of-date'],
    [{ ratedBar: 200, testedUntil: '2027-05-31' }, 'cylinder-under-rated'],
    [{ ratedBar: 300, testedUntil: '2026-06-01' }, undefined],
  ])('%j on 1 June 2026 for 300 bar: %s', (stamp, code) => {
    expect(cylinderRefusal(stamp, 300, '2026-06-01')?.code).toBe(code);
  });

  test.each([
    [freeAirIn({ volumeL: 0, pressureBarAbs: 200 }, 20), 'volumeL'],
    [freeAirToFill({ volumeL: 10, pressureBarAbs: 200 }, 100, 20), 'toBarAbs'],
    [settledPressure(900, 60, 20), 'pressureBarAbs'],
    [settledPressure(200, 300, 20), 'tempC'],
  ])('what cannot be is refused beside its field', (outcome, field) => {
    expect(outcome).toMatchObject({ ok: false, problem: { field } });
  });
});
