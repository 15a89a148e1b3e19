import fc from 'fast-check';
import type { Result } from '../basics/index.js';
import { predictStages, type StagesDesign } from './faulty-stages.js';
import {
  CascadeBench,
  condensateGPerM3,
  interstagePressures,
  fillPressureFor,
  freeAirToFill,
  hotFillTemp,
  pumpUpFlow,
  settledPressure,
  vapourGPerM3,
  type CascadeJob,
} from './index.js';

function valueOf<T>(outcome: Result<T>): T {
  if (!outcome.ok) throw new Error(outcome.problem.sentence);
  return outcome.value;
}

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const sorted = (a: number, b: number): [number, number] => [Math.min(a, b), Math.max(a, b)];

/** Holds for any two figures: what is asked of the smaller is no more than what is asked of the larger. */
function grows(range: fc.Arbitrary<number>, of: (figure: number) => number, share = 1e-9): void {
  fc.assert(
    fc.property(range, range, (a, b) => {
      const [small, large] = sorted(a, b);
      expect(of(small)).toBeLessThanOrEqual(of(large) + share * Math.abs(of(large)));
    }),
    { numRuns: 30 },
  );
}

describe('water', () => {
  const intake = (relativeHumidity: number, tempC = 20) => ({ pressureBarAbs: 1, tempC, relativeHumidity });

  test('damper air brings more of it', () => {
    grows(between(0, 1), (humidity) =>
      valueOf(condensateGPerM3(intake(humidity), { pressureBarAbs: 9, tempC: 25 })),
    );
  });

  test('a colder separator and a higher pressure leave less of it in the air', () => {
    grows(between(0, 60), (tempC) => valueOf(vapourGPerM3(intake(0.7), { pressureBarAbs: 200, tempC })));
    // Up to where the enhancement of dense air outgrows the pressure.
    grows(between(1 / 200, 1 / 2), (perBar) =>
      valueOf(vapourGPerM3(intake(0.7), { pressureBarAbs: 1 / perBar, tempC: 25 })),
    );
  });

  test('what falls out and what stays is what came in, whatever the pressure', () => {
    fc.assert(
      fc.property(between(0, 1), between(2, 300), between(0, 50), (humidity, pressureBarAbs, tempC) => {
        const cooled = { pressureBarAbs, tempC };
        const came = valueOf(vapourGPerM3(intake(humidity), { pressureBarAbs: 1, tempC: 60 }));
        const falls = valueOf(condensateGPerM3(intake(humidity), cooled));
        expect(falls + valueOf(vapourGPerM3(intake(humidity), cooled))).toBeCloseTo(came, 9);
      }),
    );
  });
});

describe('receivers and cylinders', () => {
  const run = { volumeL: 270, fromBarAbs: 7, toBarAbs: 9, seconds: 60, fromTempC: 20, toTempC: 20 };

  test('twice the time is half the flow, twice the volume twice the flow', () => {
    fc.assert(
      fc.property(between(1, 5000), between(1, 5000), (seconds, volumeL) => {
        const flow = (more: object) => valueOf(pumpUpFlow({ ...run, seconds, volumeL, ...more })).flowLpm;
        expect(flow({ seconds: 2 * seconds }) / flow({})).toBeCloseTo(0.5, 9);
        expect(flow({ volumeL: 2 * volumeL }) / flow({})).toBeCloseTo(2, 9);
      }),
    );
  });

  test('a coarser gauge never makes a result surer', () => {
    grows(between(0, 2), (gaugeStepBar) => valueOf(pumpUpFlow({ ...run, gaugeStepBar })).uncertaintyLpm);
  });

  test('a fuller cylinder takes less; filled hot it settles lower, and there is a way back', () => {
    grows(between(1, 299), (bar) => -valueOf(freeAirToFill({ volumeL: 10, pressureBarAbs: bar }, 300, 20)));
    fc.assert(
      fc.property(between(20, 330), between(25, 90), (bar, hotC) => {
        const settled = valueOf(settledPressure(bar, hotC, 20));
        expect(settled).toBeLessThan(bar);
        expect(valueOf(fillPressureFor(settled, hotC, 20))).toBeCloseTo(bar, 4);
      }),
      { numRuns: 30 },
    );
  });

  test('more wall to warm leaves a fast fill cooler', () => {
    const fill = { volumeL: 10, fromBarAbs: 20, toBarAbs: 301, tempC: 20 };
    grows(between(0, 60), (wallKg) => -valueOf(hotFillTemp({ ...fill, wallKg })));
  });

  test('fuller banks never leave more to pump, in the same order', () => {
    const job = (bar: number): CascadeJob => ({
      banks: [
        { volumeL: 50, pressureBarAbs: bar },
        { volumeL: 50, pressureBarAbs: 250 },
      ],
      cylinders: [40, 90, 150].map((pressureBarAbs) => ({ volumeL: 12, pressureBarAbs, fullBarAbs: 301 })),
      tempC: 20,
    });
    grows(between(50, 330), (bar) => {
      const bench = new CascadeBench(job(bar));
      return -bench.run(bench.plainOrder()).missingL;
    });
  });
});

describe('the ladder', () => {
  const design: StagesDesign = {
    intakeBarAbs: 1,
    intakeTempC: 20,
    cooledTempC: 30,
    exponent: 1.25,
    designBarAbs: 625,
    pressuresBarAbs: [5, 25, 125, 600],
    warmerK: [0, 0, 0, 0],
  };

  test.each([2, 3, 4])(
    'the further stage %d is gone, the higher the pressure before it and the hotter it runs',
    (stage) => {
      const at = (size: number) => predictStages(design, [{ kind: 'valves', stage, size }]);
      // The pressures are settled by steps, to a millionth.
      grows(between(0, 0.6), (size) => at(size).pressuresBarAbs[stage - 2]!, 1e-5);
      grows(between(0, 0.6), (size) => at(size).outletTempsC[stage - 1]!, 1e-5);
    },
  );

  test('a choked intake lowers every stage', () => {
    for (const stage of [0, 1, 2]) {
      grows(
        between(0, 0.6),
        (size) => -predictStages(design, [{ kind: 'intake', stage: 0, size }]).pressuresBarAbs[stage]!,
        1e-6,
      );
    }
  });

  test('a gauge that is out moves nothing but its own figure', () => {
    const sound = predictStages(design, []);
    const off = predictStages(design, [{ kind: 'gauge', stage: 2, size: 0.2 }]);
    expect(off.outletTempsC).toEqual(sound.outletTempsC);
    expect(off.pressuresBarAbs[1]! / sound.pressuresBarAbs[1]!).toBeCloseTo(1.2, 12);
    expect([off.pressuresBarAbs[0], off.pressuresBarAbs[2]]).toEqual([
      sound.pressuresBarAbs[0],
      sound.pressuresBarAbs[2],
    ]);
  });

  test('a higher final pressure takes more power, warmer intake hotter outlets', () => {
    const expected = (more: object) =>
      valueOf(
        interstagePressures({ stages: 3, intakeBarAbs: 1, finalBarAbs: 300, intakeTempC: 20, ...more }),
      );
    grows(between(2, 400), (finalBarAbs) => expected({ finalBarAbs }).powerKwPerM3Min);
    grows(between(-20, 50), (intakeTempC) => expected({ intakeTempC }).states[0]!.outletTempC);
  });
});
