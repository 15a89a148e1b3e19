import fc from 'fast-check';
import { predictLadder, type LadderDesign, type LadderFault } from './faulty-ladder.js';
import { readLadder, type LadderReading, type MeasuredLadder } from './index.js';

function read(measured: MeasuredLadder): LadderReading {
  const outcome = readLadder(measured);
  if (!outcome.ok) throw new Error(outcome.problem.sentence);
  return outcome.value;
}

/** Three stages from 1 to 343 bar: r = 7; equal ratios 7, 49, 343. */
const design: LadderDesign = {
  intakeBarAbs: 1,
  intakeTempC: 20,
  cooledTempC: 30,
  exponent: 1.25,
  designBarAbs: 343,
  pressuresBarAbs: [7, 49, 343],
  ownTempsC: [null, null, null],
};

function measuredWith(fault: LadderFault): MeasuredLadder {
  const { pressuresBarAbs, outletTempsC } = predictLadder(design, fault);
  return { intakeBarAbs: 1, intakeTempC: 20, pressuresBarAbs, outletTempsC };
}

describe('what a fault does to the ladder', () => {
  const sound = predictLadder(design, { kind: 'sound', stage: 0, size: 0 });

  test('a sound one by hand: 7, 49 and 343 bar; 293.15·7^0.2 = 432.6 K, 303.15·7^0.2 = 447.4 K', () => {
    expect(sound.pressuresBarAbs.map((one) => Math.round(one * 1e6) / 1e6)).toEqual([7, 49, 343]);
    expect(sound.outletTempsC[0]).toBeCloseTo(432.62 - 273.15, 0);
    expect(sound.outletTempsC[1]).toBeCloseTo(447.38 - 273.15, 0);
  });

  test('stage 3 losing a quarter: the pressure before it rises by near a third, it runs hotter', () => {
    const faulty = predictLadder(design, { kind: 'stage', stage: 3, size: 0.25 });
    // 1/0.75 = 1.333, a little less since stage 2 works against more and swallows less.
    expect(faulty.pressuresBarAbs[1]! / 49).toBeGreaterThan(1.25);
    expect(faulty.pressuresBarAbs[1]! / 49).toBeLessThan(1.34);
    expect(faulty.outletTempsC[2]! - sound.outletTempsC[2]!).toBeGreaterThan(10);
  });

  test('stage 1 losing a quarter: everything between is lower', () => {
    const faulty = predictLadder(design, { kind: 'stage', stage: 1, size: 0.25 });
    expect(faulty.pressuresBarAbs[0]! / 7).toBeLessThan(0.84);
    expect(faulty.pressuresBarAbs[1]! / 49).toBeLessThan(0.84);
    expect(faulty.outletTempsC[0]).toBeGreaterThan(sound.outletTempsC[0]!);
  });

  test('a warm cooler raises the temperature after it more than the pressure before', () => {
    const faulty = predictLadder(design, { kind: 'cooler', stage: 1, size: 40 });
    expect(faulty.pressuresBarAbs[0]! / 7).toBeLessThan(1.15);
    expect(faulty.outletTempsC[1]! - sound.outletTempsC[1]!).toBeGreaterThan(35);
  });
});

describe('reading it back', () => {
  test.each<[string, LadderFault]>([
    ['stage 1', { kind: 'stage', stage: 1, size: 0.25 }],
    ['stage 2', { kind: 'stage', stage: 2, size: 0.25 }],
    ['stage 3', { kind: 'stage', stage: 3, size: 0.25 }],
    ['the first cooler', { kind: 'cooler', stage: 1, size: 45 }],
    ['the second gauge', { kind: 'gauge', stage: 2, size: 0.3 }],
    ['nothing', { kind: 'sound', stage: 0, size: 0 }],
  ])('%s is named first', (_name, fault) => {
    const [first] = read(measuredWith(fault)).suspects;
    expect(first).toMatchObject({ kind: fault.kind, stage: fault.stage });
    expect(first!.probability).toBeGreaterThan(0.5);
  });

  test('the sketch of a three-stage set: 54 bar before stage 3 where 41 is expected, and it runs hot', () => {
    const reading = read({
      intakeBarAbs: 0.83,
      intakeTempC: 17,
      designBarAbs: 301,
      pressuresBarAbs: [5.85, 54.8, 298.8],
      outletTempsC: [141, 168, 196],
    });
    expect(reading.suspects[0]).toMatchObject({ kind: 'stage', stage: 3 });
    expect(reading.suspects[0]!.probability).toBeGreaterThan(0.6);
    expect(reading.stages[1]!.pressureOff).toBeGreaterThan(0.2);
  });

  test('without temperatures a high gauge may be the gauge: it is less sure', () => {
    const { outletTempsC: _temps, ...without } = measuredWith({ kind: 'stage', stage: 3, size: 0.25 });
    const [sure] = read(measuredWith({ kind: 'stage', stage: 3, size: 0.25 })).suspects;
    const unsure = read(without).suspects.find(({ kind, stage }) => kind === 'stage' && stage === 3)!;
    expect(unsure.probability).toBeLessThan(sure!.probability);
  });

  test('its own baseline beats what is reckoned', () => {
    const odd = { intakeTempC: 20, pressuresBarAbs: [5.5, 60, 343], outletTempsC: [120, 180, 150] };
    const measured = { ...odd, intakeBarAbs: 1, designBarAbs: 343 };
    expect(read(measured).suspects[0]!.kind).not.toBe('sound');
    expect(read({ ...measured, baseline: odd }).suspects[0]!.kind).toBe('sound');
  });

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

  test.each<[Partial<MeasuredLadder>, string]>([
    [{ pressuresBarAbs: [7] }, 'stages'],
    [{ pressuresBarAbs: [2, 4, 8, 16, 32, 64] }, 'stages'],
    [{ pressuresBarAbs: [7, 5, 343] }, 'stage2Bar'],
    [{ pressuresBarAbs: [7, 49, -1] }, 'stage3Bar'],
    [{ intakeTempC: 212 }, 'intakeTempC'],
    [{ outletTempsC: [140, 400, 150] }, 'stage2TempC'],
  ])('%j is refused beside its field', (more, field) => {
    expect(
      readLadder({ intakeBarAbs: 1, intakeTempC: 20, pressuresBarAbs: [7, 49, 343], ...more }),
    ).toMatchObject({ ok: false, problem: { field } });
  });

  test('a thermometer in the wrong scale is asked about', () => {
    const outcome = readLadder({ intakeBarAbs: 1, intakeTempC: 212, pressuresBarAbs: [7, 49, 343] });
    expect(outcome).toMatchObject({
      problem: { sentence: '212 °C at the intake? It lies between −40 and 60 °C. Was it read in °F?' },
    });
  });
});
