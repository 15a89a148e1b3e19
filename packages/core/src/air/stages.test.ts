import fc from 'fast-check';
import {
  cartridgeLifeHours,
  cascade,
  condensateGPerM3,
  drainIntervalMin,
  expectedLadder,
  freeAirIn,
  freeAirToFill,
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
    const ladder = valueOf(expectedLadder({ stages: 2, intakeBarAbs: 1, finalBarAbs: 8, intakeTempC: 20 }));
    expect(ladder.ratio).toBeCloseTo(2.8284, 4);
    expect(ladder.rungs.map(({ toBarAbs }) => toBarAbs)).toEqual([
      expect.closeTo(2.8284, 3),
      expect.closeTo(8, 9),
    ]);
    expect(ladder.rungs[0]!.outletTempC).toBeCloseTo(87.8, 1);
    expect(ladder.powerKwPerM3Min).toBeCloseTo(3.852, 2);
  });

  test('a warm cooler costs power and temperature in the stage after it', () => {
    const input = { stages: 3, intakeBarAbs: 1, finalBarAbs: 226, intakeTempC: 20 };
    const [, second] = valueOf(expectedLadder({ ...input, cooledTempC: 45 })).rungs;
    const [, cold] = valueOf(expectedLadder(input)).rungs;
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
            valueOf(expectedLadder({ stages: count, intakeBarAbs: 1, finalBarAbs, intakeTempC: 20 }));
          expect(at(stages + 1).powerKwPerM3Min).toBeLessThanOrEqual(at(stages).powerKwPerM3Min + 1e-9);
          expect(at(stages + 1).rungs[0]!.outletTempC).toBeLessThanOrEqual(at(stages).rungs[0]!.outletTempC);
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
    expect(expectedLadder(input)).toMatchObject({ ok: false, problem: { field } });
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

  test('banks are used lowest first, and give no more than they have', () => {
    const banks = [
      { volumeL: 50, pressureBarAbs: 300 },
      { volumeL: 50, pressureBarAbs: 120 },
      { volumeL: 50, pressureBarAbs: 200 },
    ];
    const cylinder = { volumeL: 10, pressureBarAbs: 30 };
    const filled = valueOf(cascade(cylinder, banks, 250, 20));
    expect(filled.steps.map(({ bank }) => bank)).toEqual([1, 2, 0]);
    expect(filled.cylinderBarAbs).toBeCloseTo(250, 6);
    const mass = (vessels: readonly { volumeL: number; pressureBarAbs: number }[]) =>
      vessels.reduce(
        (sum, { volumeL, pressureBarAbs }) => sum + massInVolume(volumeL, pressureBarAbs, 20),
        0,
      );
    const after = [{ ...cylinder, pressureBarAbs: filled.cylinderBarAbs }, ...filled.banks];
    expect(mass(after)).toBeCloseTo(mass([cylinder, ...banks]), 6);
  });

  test('a cascade leaves more in the high bank than opening it alone', () => {
    const pressures = fc.double({ min: 50, max: 300, noNaN: true });
    fc.assert(
      fc.property(pressures, pressures, fc.double({ min: 1, max: 200, noNaN: true }), (a, b, start) => {
        const banks = [
          { volumeL: 50, pressureBarAbs: Math.min(a, b) },
          { volumeL: 50, pressureBarAbs: Math.max(a, b) },
        ];
        const cylinder = { volumeL: 12, pressureBarAbs: start };
        const both = valueOf(cascade(cylinder, banks, 232, 20));
        const alone = valueOf(cascade(cylinder, banks.slice(1), 232, 20));
        expect(both.cylinderBarAbs).toBeGreaterThanOrEqual(alone.cylinderBarAbs - 1e-6);
        if (both.cylinderBarAbs >= 232) {
          expect(both.banks[1]!.pressureBarAbs).toBeGreaterThanOrEqual(alone.banks[0]!.pressureBarAbs - 1e-6);
        }
      }),
    );
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
