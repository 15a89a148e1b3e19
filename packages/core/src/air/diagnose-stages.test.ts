import fc from 'fast-check';
import { predictStages, type StagesDesign, type StageFault } from './faulty-stages.js';
import { diagnoseStages, type StageDiagnosis, type MeasuredStages } from './index.js';

function read(measured: MeasuredStages): StageDiagnosis {
  const outcome = diagnoseStages(measured);
  if (!outcome.ok) throw new Error(outcome.problem.sentence);
  return outcome.value;
}

/** Three stages from 1 to 343 bar: r = 7; equal ratios 7, 49, 343. */
const design: StagesDesign = {
  intakeBarAbs: 1,
  intakeTempC: 20,
  cooledTempC: 30,
  exponent: 1.25,
  designBarAbs: 343,
  pressuresBarAbs: [7, 49, 343],
  warmerK: [0, 0, 0],
};

function measuredWith(...faults: StageFault[]): MeasuredStages {
  const { pressuresBarAbs, outletTempsC } = predictStages(design, faults);
  return { intakeBarAbs: 1, intakeTempC: 20, pressuresBarAbs, outletTempsC };
}

describe('what a fault does to the ladder', () => {
  const sound = predictStages(design, []);

  test('a sound one by hand: 7, 49 and 343 bar; 293.15·7^0.2 = 432.6 K, 303.15·7^0.2 = 447.4 K', () => {
    expect(sound.pressuresBarAbs.map((one) => Math.round(one * 1e6) / 1e6)).toEqual([7, 49, 343]);
    expect(sound.outletTempsC[0]).toBeCloseTo(432.62 - 273.15, 0);
    expect(sound.outletTempsC[1]).toBeCloseTo(447.38 - 273.15, 0);
  });

  test('stage 3 losing a quarter: the pressure before it rises by near a third, it runs hotter', () => {
    const faulty = predictStages(design, [{ kind: 'valves', stage: 3, size: 0.25 }]);
    // 1/0.75 = 1.333, a little less since stage 2 works against more and swallows less.
    expect(faulty.pressuresBarAbs[1]! / 49).toBeGreaterThan(1.25);
    expect(faulty.pressuresBarAbs[1]! / 49).toBeLessThan(1.34);
    expect(faulty.outletTempsC[2]! - sound.outletTempsC[2]!).toBeGreaterThan(10);
  });

  test('stage 1 losing a quarter: everything between is lower', () => {
    const faulty = predictStages(design, [{ kind: 'valves', stage: 1, size: 0.25 }]);
    expect(faulty.pressuresBarAbs[0]! / 7).toBeLessThan(0.84);
    expect(faulty.pressuresBarAbs[1]! / 49).toBeLessThan(0.84);
    expect(faulty.outletTempsC[0]).toBeGreaterThan(sound.outletTempsC[0]!);
  });

  test('a warm cooler raises the temperature after it more than the pressure before', () => {
    const faulty = predictStages(design, [{ kind: 'cooler', stage: 1, size: 40 }]);
    expect(faulty.pressuresBarAbs[0]! / 7).toBeLessThan(1.15);
    expect(faulty.outletTempsC[1]! - sound.outletTempsC[1]!).toBeGreaterThan(35);
  });
});

describe('a ring of a single-acting stage', () => {
  const sound = predictStages(design, []);

  test('the pressure before it hardly rises, its own falls, its outlet is no hotter', () => {
    const faulty = predictStages(design, [{ kind: 'ring', stage: 2, size: 0.3 }]);
    // Stage 3 gets seven tenths: 49 · 0.7 = 34.3 bar, a little more since it works against a higher ratio.
    expect(faulty.pressuresBarAbs[1]! / 49).toBeGreaterThan(0.68);
    expect(faulty.pressuresBarAbs[1]! / 49).toBeLessThan(0.78);
    expect(Math.abs(faulty.pressuresBarAbs[0]! / 7 - 1)).toBeLessThan(0.06);
    expect(faulty.outletTempsC[1]!).toBeLessThan(sound.outletTempsC[1]!);
    expect(faulty.outletTempsC[2]!).toBeGreaterThan(sound.outletTempsC[2]!);
  });
});

/** What this machine showed when it was sound. */
const baseline = { intakeTempC: 20, ...predictStages(design, []) };
const named = (reading: StageDiagnosis) => reading.suspects[0]!.faults;

describe('reading it back, with its baseline', () => {
  test.each<[string, StageFault]>([
    ['valves of stage 1', { kind: 'valves', stage: 1, size: 0.25 }],
    ['valves of stage 2', { kind: 'valves', stage: 2, size: 0.25 }],
    ['valves of stage 3', { kind: 'valves', stage: 3, size: 0.25 }],
    ['the ring of stage 1', { kind: 'ring', stage: 1, size: 0.25 }],
    ['the ring of stage 2', { kind: 'ring', stage: 2, size: 0.25 }],
    ['the first cooler', { kind: 'cooler', stage: 1, size: 45 }],
    ['the second gauge', { kind: 'gauge', stage: 2, size: 0.3 }],
    ['the intake', { kind: 'intake', stage: 0, size: 0.25 }],
  ])('%s is named first', (_name, fault) => {
    const reading = read({ ...measuredWith(fault), baseline });
    expect(named(reading)).toMatchObject([{ kind: fault.kind, stage: fault.stage }]);
    expect(reading.suspects[0]!.probability).toBeGreaterThan(0.5);
  });

  test('nothing wrong', () => {
    const reading = read({ ...measuredWith(), baseline });
    expect(named(reading)).toEqual([]);
    expect(reading.next).toBeNull();
  });

  test('two faults at once are both named', () => {
    const two = measuredWith({ kind: 'valves', stage: 3, size: 0.3 }, { kind: 'cooler', stage: 1, size: 40 });
    const kinds = named(read({ ...two, baseline })).map(({ kind, stage }) => `${kind} ${stage}`);
    expect(kinds.sort()).toEqual(['cooler 1', 'valves 3']);
  });

  test('its own baseline beats what is reckoned', () => {
    const odd = { intakeTempC: 20, pressuresBarAbs: [5.5, 60, 343], outletTempsC: [120, 180, 150] };
    const measured = { ...odd, intakeBarAbs: 1, designBarAbs: 343 };
    expect(named(read({ ...measured, baseline: odd }))).toEqual([]);
    expect(read(measured).suspects[0]!.probability).toBeLessThan(0.9);
  });
});

describe('without a baseline', () => {
  test('a set that was built a tenth off equal ratios is not sure to be faulty', () => {
    const built = { ...design, pressuresBarAbs: [7.7, 46, 343] };
    const { pressuresBarAbs, outletTempsC } = predictStages(built, []);
    const reading = read({ intakeBarAbs: 1, intakeTempC: 20, pressuresBarAbs, outletTempsC });
    expect(named(reading)).toEqual([]);
    expect([reading.hasBaseline, reading.bothFit]).toEqual([false, false]);
  });

  test('the sketch of a three-stage set: 54 bar before stage 3 where 41 is expected, and it runs hot', () => {
    const reading = read({
      intakeBarAbs: 0.83,
      intakeTempC: 17,
      designBarAbs: 301,
      pressuresBarAbs: [5.85, 54.8, 298.8],
      outletTempsC: [141, 168, 196],
    });
    expect(named(reading)).toMatchObject([{ kind: 'valves', stage: 3 }]);
    expect(reading.stages[1]!.pressureOff).toBeGreaterThan(0.2);
    expect(reading.bothFit).toBe(true);
  });
});

describe('what to look at next', () => {
  const leaking = measuredWith({ kind: 'valves', stage: 3, size: 0.25 });

  test('the outlet temperatures, where they were not taken: a high gauge may be the gauge', () => {
    const { outletTempsC: _temps, ...without } = leaking;
    const reading = read({ ...without, baseline });
    expect(reading.next).toEqual({ kind: 'temperatures', stage: 0 });
    const share = (of: StageDiagnosis) =>
      of.suspects.find(
        ({ faults }) => faults.length === 1 && faults[0]!.kind === 'valves' && faults[0]!.stage === 3,
      )!.probability;
    expect(share(reading)).toBeLessThan(share(read({ ...leaking, baseline })));
  });

  test('a breather that puffs speaks for the ring, a gauge that rises after the stop for the valves after it', () => {
    // Of the last stage a ring shows nothing in the ladder.
    const still = { ...measuredWith(), baseline };
    const ring = (of: StageDiagnosis) =>
      of.suspects
        .filter(({ faults }) => faults.some(({ kind, stage }) => kind === 'ring' && stage === 3))
        .reduce((sum, { probability }) => sum + probability, 0);
    expect(ring(read({ ...still, looks: { breatherPuffs: true } }))).toBeGreaterThan(4 * ring(read(still)));
    const valves = (of: StageDiagnosis) =>
      of.suspects
        .filter(({ faults }) => faults.some(({ kind, stage }) => kind === 'valves' && stage === 3))
        .reduce((sum, { probability }) => sum + probability, 0);
    const small = { ...measuredWith({ kind: 'valves', stage: 3, size: 0.05 }), baseline };
    expect(valves(read({ ...small, looks: { risesAfterStop: 2 } }))).toBeGreaterThan(valves(read(small)));
    expect(valves(read({ ...small, looks: { risesAfterStop: 0 } }))).toBeLessThan(valves(read(small)));
  });
});

describe('always', () => {
  test('far under its pressure the last stage tells nothing, and it says so', () => {
    const low = { intakeBarAbs: 1, intakeTempC: 20, designBarAbs: 343, pressuresBarAbs: [7, 49, 200] };
    expect(read(low).lastStageTells).toBe(false);
    expect(read({ ...low, pressuresBarAbs: [7, 49, 330] }).lastStageTells).toBe(true);
  });

  test('the suspects share one certainty, whatever was measured', () => {
    const share = fc.double({ min: 0.5, max: 1.9, noNaN: true });
    fc.assert(
      fc.property(share, share, fc.double({ min: 80, max: 230, noNaN: true }), (first, second, temp) => {
        const pressuresBarAbs = [7 * first, 49 * second, 343];
        if (pressuresBarAbs[0]! >= pressuresBarAbs[1]!) return;
        const { suspects } = read({
          intakeBarAbs: 1,
          intakeTempC: 20,
          pressuresBarAbs,
          outletTempsC: [null, null, temp],
        });
        expect(suspects.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9);
      }),
    );
  });

  test.each<[Partial<MeasuredStages>, string]>([
    [{ pressuresBarAbs: [7] }, 'stages'],
    [{ pressuresBarAbs: [2, 4, 8, 16, 32, 64] }, 'stages'],
    [{ pressuresBarAbs: [7, 5, 343] }, 'stage2Bar'],
    [{ pressuresBarAbs: [7, 49, -1] }, 'stage3Bar'],
    [{ intakeTempC: 212 }, 'intakeTempC'],
    [{ outletTempsC: [140, 400, 150] }, 'stage2TempC'],
  ])('%j is refused beside its field', (more, field) => {
    expect(
      diagnoseStages({ intakeBarAbs: 1, intakeTempC: 20, pressuresBarAbs: [7, 49, 343], ...more }),
    ).toMatchObject({ ok: false, problem: { field } });
  });

  test('a thermometer in the wrong scale is asked about', () => {
    const outcome = diagnoseStages({ intakeBarAbs: 1, intakeTempC: 212, pressuresBarAbs: [7, 49, 343] });
    expect(outcome).toMatchObject({
      problem: { sentence: '212 °C at the intake? It lies between −40 and 60 °C. Was it read in °F?' },
    });
  });
});
