import fc from 'fast-check';
import {
  holeFlow,
  leakCostCents,
  leakDownFlow,
  leakShareByTimes,
  pumpUpFlow,
  sourcebookLeak,
  type ReceiverRun,
} from './index.js';

const valueOf = <T>(outcome: { ok: boolean; value?: T }): T => {
  if (!outcome.ok) throw new Error(JSON.stringify(outcome));
  return outcome.value!;
};

const run = (more: Partial<ReceiverRun> = {}): ReceiverRun => ({
  volumeL: 270,
  fromBarAbs: 7.01325,
  toBarAbs: 9.01325,
  seconds: 60,
  fromTempC: 20,
  toTempC: 20,
  ...more,
});

describe('a receiver timed', () => {
  test('worked by hand: 270 L from 6 to 8 bar gauge in a minute', () => {
    // 270·(9.01325/0.9977 − 7.01325/0.9982)/1.01325 = 270·(9.0340 − 7.0259)/1.01325 = 535 L/min; ideal 532.9.
    const { flowLpm } = valueOf(pumpUpFlow(run()));
    expect(flowLpm).toBeGreaterThan(533);
    expect(flowLpm).toBeLessThan(537);
  });

  test('warm air in the receiver is less air', () => {
    const warm = valueOf(pumpUpFlow(run({ toTempC: 40 }))).flowLpm;
    // 9.013·293.15/313.15 = 8.438 in place of 9.013: 270·(8.438 − 7.013)/1.01325 ≈ 380.
    expect(warm).toBeGreaterThan(375);
    expect(warm).toBeLessThan(385);
  });

  test('at 300 bar the gas law without Z would overstate by about a tenth', () => {
    const high = run({ volumeL: 50, fromBarAbs: 1.01325, toBarAbs: 301, seconds: 3600 });
    const ideal = (50 * (301 - 1.01325)) / 1.01325 / 60;
    expect(ideal / valueOf(pumpUpFlow(high)).flowLpm).toBeCloseTo(1.11, 1);
  });

  test('gauge and watch make it uncertain: by hand, steps of 0.2 bar and half a second', () => {
    // Gauge: 0.1/√3 = 0.0577 bar at each end, ·√2 = 0.0816 bar; of 2 bar 4.1 %. Watch: 0.5/60 = 0.8 %.
    const { flowLpm, uncertaintyLpm } = valueOf(pumpUpFlow(run({ gaugeStepBar: 0.2, watchS: 0.5 })));
    expect(uncertaintyLpm / flowLpm).toBeCloseTo(Math.hypot(0.0408, 0.0083), 3);
  });

  test('what leaks out is what would have to be pumped in', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 300, noNaN: true }),
        fc.double({ min: 0.1, max: 50, noNaN: true }),
        fc.double({ min: 1, max: 3600, noNaN: true }),
        (low, rise, seconds) => {
          const up = run({ fromBarAbs: low, toBarAbs: low + rise, seconds });
          const down = run({ fromBarAbs: low + rise, toBarAbs: low, seconds });
          expect(valueOf(leakDownFlow(down)).flowLpm).toBeCloseTo(valueOf(pumpUpFlow(up)).flowLpm, 6);
        },
      ),
    );
  });

  test.each<[string, Partial<ReceiverRun>, string, string]>([
    ['final below first', { toBarAbs: 6 }, 'final-below-first', 'toBarAbs'],
    ['no time', { seconds: 0 }, 'out-of-range', 'seconds'],
    ['negative absolute pressure', { fromBarAbs: -1 }, 'out-of-range', 'fromBarAbs'],
    ['no volume', { volumeL: 0 }, 'out-of-range', 'volumeL'],
    ['a thermometer in the wrong scale', { toTempC: 312 }, 'out-of-range', 'toTempC'],
    ['not a number', { seconds: NaN }, 'out-of-range', 'seconds'],
  ])('%s is refused beside the field', (_name, more, code, field) => {
    expect(pumpUpFlow(run(more))).toMatchObject({ ok: false, problem: { code, field } });
  });

  test('a pressure that rises is no leak', () => {
    expect(leakDownFlow(run())).toMatchObject({ ok: false, problem: { code: 'final-above-first' } });
  });
});

describe('leaks', () => {
  // 100 psig = 114.696 psia = 7.908 bar; standard air of the table at 60 °F (15.6 °C) and one atmosphere.
  const psig100 = { pressureBarAbs: 114.696 / 14.5038, tempC: 15.6, coefficient: 1, intakeTempC: 15.6 };
  const CFM = 28.3168;

  test.each([
    [1 / 64, 0.41],
    [1 / 32, 1.62],
    [1 / 16, 6.49],
    [1 / 8, 26],
    [1 / 4, 104],
    [3 / 8, 234],
  ])(
    'a hole of %d inch at 100 psig loses %d scfm (Compressed Air and Gas Institute, memory)',
    (inch, scfm) => {
      const flow = valueOf(holeFlow({ ...psig100, diameterMm: inch * 25.4 }));
      expect(Math.abs(flow / CFM / scfm - 1)).toBeLessThan(0.02);
    },
  );

  test.each([
    [1 / 8, 18.62],
    [1 / 4, 74.4],
  ])('a hole of %d inch at 70 psig loses %d scfm, within 4 % (US DOE tip sheet 3, memory)', (inch, scfm) => {
    const hole = { ...psig100, pressureBarAbs: 84.696 / 14.5038, diameterMm: inch * 25.4 };
    expect(Math.abs(valueOf(holeFlow(hole)) / CFM / scfm - 1)).toBeLessThan(0.04);
  });

  test('below the critical ratio the formula does not hold, and says so', () => {
    expect(holeFlow({ ...psig100, pressureBarAbs: 1.5, diameterMm: 2 })).toMatchObject({
      ok: false,
      problem: { code: 'out-of-range', field: 'pressureBarAbs' },
    });
  });

  test('the sourcebook’s form: 1,000 L from 7 to 3.5 bar in 10 minutes (US DOE, memory)', () => {
    // 1,000·3.5/(10·1.01325)·1.25 = 431.8 L/min. In its own units: 35.31 ft³·50.76 psi/(10·14.7)·1.25 = 15.24 cfm; 431.8/28.317 = 15.25.
    const fall = { volumeL: 1000, fromBar: 7, toBar: 3.5, minutes: 10 };
    expect(valueOf(sourcebookLeak(fall))).toBeCloseTo(431.78, 1);
    expect(valueOf(sourcebookLeak(fall)) / CFM).toBeCloseTo(15.25, 2);
    expect(sourcebookLeak({ ...fall, toBar: 8 })).toMatchObject({ problem: { field: 'toBar' } });
    expect(sourcebookLeak({ ...fall, minutes: 0 })).toMatchObject({ problem: { field: 'minutes' } });
  });

  test('more leak, more cost; a wider hole, more leak', () => {
    const more = fc.double({ min: 0.1, max: 50, noNaN: true });
    fc.assert(
      fc.property(more, more, (a, b) => {
        const [small, large] = [Math.min(a, b), Math.max(a, b)];
        const flow = (diameterMm: number) => valueOf(holeFlow({ ...psig100, diameterMm }));
        expect(flow(small)).toBeLessThanOrEqual(flow(large));
        const cost = (flowLpm: number) =>
          valueOf(
            leakCostCents({
              flowLpm,
              specificPowerKwPerM3Min: 6.5,
              hoursPerYear: 6000,
              priceCentsPerKwh: 25,
            }),
          );
        expect(cost(small)).toBeLessThanOrEqual(cost(large));
      }),
    );
  });

  test('by times of work and rest', () => {
    expect(valueOf(leakShareByTimes(60, 240))).toBeCloseTo(0.2, 12);
    expect(valueOf(leakShareByTimes(60, 0))).toBe(1);
    expect(leakShareByTimes(0, 10)).toMatchObject({ ok: false, problem: { field: 'onSeconds' } });
  });

  test('cost a year: 100 L/min at 6.5 kW per m³/min, 6,000 h, 25 cents', () => {
    // 0.1·6.5·6000·25 = 97,500 cents.
    const cost = { flowLpm: 100, specificPowerKwPerM3Min: 6.5, hoursPerYear: 6000, priceCentsPerKwh: 25 };
    expect(valueOf(leakCostCents(cost))).toBeCloseTo(97_500, 6);
    expect(leakCostCents({ ...cost, hoursPerYear: 9000 })).toMatchObject({
      problem: { field: 'hoursPerYear' },
    });
  });
});
