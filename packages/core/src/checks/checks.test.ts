import fc from 'fast-check';
import { stationsOf, type DataPlate } from '../machine/index.js';
import {
  breathingAir,
  checkByCode,
  checkLibrary,
  checksFor,
  dewPointClasses,
  fieldsOf,
  howOf,
  judgeCheck,
  limitLines,
  oilClasses,
  verdicts,
  type CheckValues,
  type Verdict,
} from './index.js';

const plate = (more: Partial<DataPlate> = {}): DataPlate => ({
  siteId: 'site',
  tag: 'T-1',
  family: 'piston',
  commissionedOn: '2024-01-01',
  history: 'new',
  ...more,
});

const on = '2026-06-01';

function judge(check: string, values: CheckValues, more: Partial<DataPlate> = {}, context = {}) {
  const outcome = judgeCheck(check, values, { plate: plate(more), on, ...context });
  if (!outcome.ok) throw new Error(outcome.problem.sentence);
  return outcome.value;
}

const grave = (verdict: Verdict) => verdicts.indexOf(verdict);

describe('a verdict never improves as a figure moves away from its limit', () => {
  interface Slope {
    readonly check: string;
    readonly field: string;
    readonly from: number;
    readonly to: number;
    readonly rest: CheckValues;
    readonly machine?: Partial<DataPlate>;
  }
  const high: Partial<DataPlate> = { family: 'high-pressure', stages: 3, workingPressureBar: 300 };
  const screw: Partial<DataPlate> = { family: 'screw', fadLpm: 3000 };
  const pressed = {
    method: 'gauge',
    look: 'sound',
    spanMm: 480,
    deflectionMm: 7.5,
    leastForceN: 18,
    mostForceN: 25,
  };
  /** Figures from good to worse. */
  const slopes: readonly Slope[] = [
    { check: 'oil-pressure', field: 'pressureBar', from: 5, to: 0, rest: { leastBar: 1.5 } },
    { check: 'gauge-zero', field: 'readingBar', from: 0, to: 5, rest: { fullScaleBar: 16, kind: 'yes' } },
    { check: 'capacitor', field: 'measuredUf', from: 45, to: 0, rest: { labelUf: 45 } },
    { check: 'capacitor', field: 'measuredUf', from: 45, to: 200, rest: { labelUf: 45 } },
    {
      check: 'belt-deflection',
      field: 'deflectionMm',
      from: 7.5,
      to: 60,
      rest: { method: 'gauge', look: 'sound', spanMm: 480 },
    },
    {
      check: 'belt-deflection',
      field: 'deflectionMm',
      from: 7.5,
      to: 0,
      rest: { method: 'gauge', look: 'sound', spanMm: 480 },
    },
    {
      check: 'pump-up',
      field: 'seconds',
      from: 75,
      to: 2000,
      rest: { fromBar: 6, toBar: 8, volumeL: 270, fadLpm: 400, again: 'yes' },
    },
    {
      check: 'leak-down',
      field: 'seconds',
      from: 3600,
      to: 10,
      rest: { fromBar: 8, toBar: 6, volumeL: 270, fadLpm: 400 },
    },
    {
      check: 'leak-down',
      field: 'toBar',
      from: 8,
      to: 0.5,
      rest: { fromBar: 8, seconds: 600, volumeL: 270, fadLpm: 400 },
    },
    ...[
      ['piston', 1, 221],
      ['piston', 2, 201],
      ['piston-oil-free', 1, 201],
      ['high-pressure', 3, 206],
      ['high-pressure', 5, 186],
    ].map(([family, stages, to]) => ({
      check: 'discharge-temperature',
      field: 'tempC',
      from: 25,
      to: (to as number) + 100,
      rest: { ambientC: 20 },
      machine: { family, stages } as Partial<DataPlate>,
    })),
    {
      check: 'relief-valve',
      field: 'openedBar',
      from: 10,
      to: 600,
      rest: {
        opens: 'yes',
        reseats: 'tight',
        reliefBar: 10,
        maximumBar: 11,
        stopBar: 8,
        gaugeClass: 2.5,
        gaugeScaleBar: 16,
      },
    },
    {
      check: 'relief-valve',
      field: 'openedBar',
      from: 10,
      to: 0,
      rest: {
        opens: 'yes',
        reseats: 'tight',
        reliefBar: 10,
        maximumBar: 11,
        stopBar: 8,
        gaugeClass: 2.5,
        gaugeScaleBar: 16,
      },
    },
    { check: 'belt-deflection', field: 'forceN', from: 20, to: 500, rest: { ...pressed } },
    { check: 'belt-deflection', field: 'forceN', from: 20, to: 0, rest: { ...pressed } },
    { check: 'leak-load-cycle', field: 'onSeconds', from: 0.1, to: 900, rest: { offSeconds: 100 } },
    { check: 'highest-pressure', field: 'reachedBar', from: 8, to: 0, rest: { cutOutBar: 8 } },
    { check: 'highest-pressure', field: 'reachedBar', from: 8, to: 16, rest: { cutOutBar: 8 } },
    {
      check: 'discharge-temperature',
      field: 'tempC',
      from: 70,
      to: 200,
      rest: { ambientC: 20, mostRiseK: 60, tripC: 110 },
      machine: screw,
    },
    // A screw that stays cold keeps the water in its oil: too cold is worse than warm.
    {
      check: 'discharge-temperature',
      field: 'tempC',
      from: 70,
      to: 20,
      rest: { ambientC: 20, mostRiseK: 60, tripC: 110 },
      machine: screw,
    },
    { check: 'separator-drop', field: 'dropBar', from: 0.05, to: 5, rest: {}, machine: screw },
    {
      check: 'cartridge-weight',
      field: 'weightG',
      from: 1000,
      to: 1400,
      rest: { dryG: 1000, saturatedG: 1200 },
      machine: high,
    },
    { check: 'co', field: 'coPpm', from: 0, to: 100, rest: { standard: 'en-12021' }, machine: high },
    {
      check: 'air-quality',
      field: 'co2Ppm',
      from: 300,
      to: 5000,
      rest: { standard: 'cga-d', coPpm: 1, oilMgM3: 0.1 },
      machine: high,
    },
    { check: 'water-content', field: 'waterMgM3', from: 0, to: 500, rest: {}, machine: high },
    { check: 'dew-point', field: 'dewPointC', from: -80, to: 40, rest: { class: '4' }, machine: screw },
    {
      check: 'co-monitor',
      field: 'spanReadingPpm',
      from: 20,
      to: 200,
      rest: { zeroGasPpm: 0, zeroReadingPpm: 0, spanGasPpm: 20, stops: 'yes' },
      machine: high,
    },
    {
      check: 'cylinder',
      field: 'ratedBar',
      from: 400,
      to: 100,
      rest: { testedUntil: '2027-01-01' },
      machine: high,
    },
    {
      check: 'load-factor',
      field: 'loadedHours',
      from: 100,
      to: 0,
      rest: { totalHours: 100 },
      machine: screw,
    },
    {
      check: 'relief-valve',
      field: 'openedBar',
      from: 11,
      to: 30,
      rest: { opens: 'yes', reseats: 'tight', reliefBar: 11 },
    },
    { check: 'holding-valve', field: 'opensBar', from: 150, to: 0, rest: { setBar: 150 }, machine: high },
    { check: 'holding-valve', field: 'opensBar', from: 150, to: 600, rest: { setBar: 150 }, machine: high },
    {
      check: 'vessel-off-load',
      field: 'vesselBar',
      from: 2,
      to: 40,
      rest: { networkBar: 7 },
      machine: screw,
    },
    { check: 'vessel-off-load', field: 'vesselBar', from: 2, to: 0, rest: { networkBar: 7 }, machine: screw },
    { check: 'thermostat', field: 'opensC', from: 71, to: 150, rest: { markedC: 71 }, machine: screw },
    { check: 'thermostat', field: 'opensC', from: 71, to: -20, rest: {}, machine: screw },
    { check: 'unloaded-start', field: 'seconds', from: 12, to: 0, rest: { kind: 'timed', closes: 'yes' } },
    { check: 'unloaded-start', field: 'seconds', from: 1, to: 300, rest: { kind: 'bleed', closes: 'yes' } },
    {
      check: 'cooling-water',
      field: 'outC',
      from: 25,
      to: 120,
      rest: { inC: 20 },
      machine: { cooling: 'water' },
    },
    {
      check: 'lubricator-drops',
      field: 'drops',
      from: 10,
      to: 0,
      rest: { wantedDrops: 10 },
      machine: { cooling: 'water' },
    },
    {
      check: 'lubricator-drops',
      field: 'drops',
      from: 10,
      to: 300,
      rest: { wantedDrops: 10 },
      machine: { cooling: 'water' },
    },
    { check: 'oil-sample', field: 'ironPpm', from: 0, to: 100_000, rest: {}, machine: screw },
    { check: 'oil-sample', field: 'waterPpm', from: 0, to: 100_000, rest: { says: 'watch' }, machine: screw },
    { check: 'oil-sample', field: 'acid', from: 0, to: 20, rest: { newAcid: 0.1 }, machine: screw },
    {
      check: 'oil-sample',
      field: 'viscosity',
      from: 46,
      to: 460,
      rest: { newViscosity: 46 },
      machine: screw,
    },
    { check: 'oil-sample', field: 'viscosity', from: 46, to: 1, rest: { newViscosity: 46 }, machine: screw },
    { check: 'tilt', field: 'degrees', from: 0, to: 60, rest: {} },
    { check: 'line-filter-drop', field: 'dropBar', from: 0.01, to: 10, rest: { flowing: 'yes' } },
    { check: 'regulator', field: 'flowBar', from: 6, to: 0, rest: { setBar: 6, needBar: 5.8 } },
    { check: 'regulator', field: 'restBar', from: 6, to: 40, rest: { setBar: 6, flowBar: 6, ratedBar: 10 } },
    {
      check: 'line-lubricator',
      field: 'drops',
      from: 1,
      to: 0,
      rest: { kind: 'direct', holds: 'right' },
    },
    {
      check: 'line-lubricator',
      field: 'drops',
      from: 10,
      to: 300,
      rest: { kind: 'micro-mist', holds: 'right' },
    },
    { check: 'co-alarm', field: 'alarmPpm', from: 1, to: 1000, rest: { trips: 'yes' }, machine: high },
  ];

  test.each(slopes)(
    '$check by $field from $from to $to',
    ({ check, field, from, to, rest, machine = {} }) => {
      // Every share of the way, not a few drawn by lot: a dip between two limits is found each time.
      const along = Array.from({ length: 401 }, (_, index) => from + (index / 400) * (to - from));
      const graded = along.map((one) => grave(judge(check, { ...rest, [field]: one }, machine).verdict));
      graded.forEach((grade, index) => {
        expect([along[index], grade]).toEqual([along[index], Math.max(...graded.slice(0, index + 1))]);
      });
    },
  );

  test('every check with a figure has its slope, but those read as a whole', () => {
    const sloped = new Set(slopes.map(({ check }) => check));
    const rest = checkLibrary
      .filter(({ code, figure }) => figure && !sloped.has(code))
      .map(({ code }) => code);
    expect(rest).toEqual(['unloader', 'stage-pressures']);
  });
});

describe('which checks a machine has', () => {
  const codes = (more: Partial<DataPlate>) => checksFor(plate(more)).map(({ code }) => code);

  test('follows from its data plate', () => {
    expect(codes({})).not.toContain('cartridge-weight');
    expect(codes({})).not.toContain('stage-pressures');
    expect(codes({ stages: 2 })).toContain('stage-pressures');
    expect(codes({ family: 'piston-oil-free' })).not.toContain('oil-level');
    expect(codes({ family: 'screw' })).toContain('separator-drop');
    expect(codes({ family: 'screw', motor: 'diesel' })).not.toContain('rotation');
    expect(codes({ drive: 'direct' })).not.toContain('belt-deflection');
    expect(codes({ family: 'high-pressure' })).toEqual(
      expect.arrayContaining(['co', 'cylinder', 'co-monitor']),
    );
    const technical = codes({ family: 'high-pressure', airUse: 'technical' });
    expect(technical).not.toContain('co-monitor');
    expect(technical).toContain('co');
  });

  test('what is breathed is checked as breathing air, whatever the family', () => {
    const breathed = ['co', 'air-quality', 'co-monitor'];
    for (const family of ['piston', 'piston-oil-free', 'screw'] as const) {
      expect(codes({ family, airUse: 'breathing' })).toEqual(expect.arrayContaining(breathed));
      expect(codes({ family }).filter((code) => breathed.includes(code))).toEqual([]);
    }
  });

  test('each stands at a station that the machine has', () => {
    const machines = (['piston', 'piston-oil-free', 'screw', 'high-pressure'] as const).flatMap((family) => [
      plate({ family }),
      plate({ family, stages: family === 'high-pressure' ? 5 : 2, hasDryer: true, airUse: 'technical' }),
      plate({ family, airUse: 'breathing' }),
    ]);
    for (const machine of machines) {
      const { path, beside } = stationsOf(machine);
      const stations = [...path, ...beside].map(({ code }) => code);
      for (const check of checksFor(machine)) {
        expect([machine.family, check.code, stations]).toEqual([
          machine.family,
          check.code,
          expect.arrayContaining([check.station(machine)]),
        ]);
      }
    }
  });

  test('a ladder asks for as many stages as there are', () => {
    const expected = checkByCode('stage-pressures')!;
    const asked = (stages: number) =>
      fieldsOf(expected, plate({ family: 'high-pressure', stages })).filter(({ code }) =>
        /^stage\dBar$/.test(code),
      ).length;
    expect([asked(3), asked(4), asked(5)]).toEqual([3, 4, 5]);
  });
});

describe('bad input', () => {
  const refusal = (check: string, values: CheckValues, more: Partial<DataPlate> = {}) => {
    const outcome = judgeCheck(check, values, { plate: plate(more), on });
    return outcome.ok ? null : outcome.problem;
  };

  test.each<[string, string, CheckValues, string, string]>([
    ['no such check', 'phase-of-moon', {}, 'unknown-check', 'check'],
    ['a check that this unit does not have', 'separator-drop', { dropBar: 1 }, 'not-this-unit', 'check'],
    ['values of another check', 'gauge-zero', { dropBar: 1 }, 'unknown-field', 'dropBar'],
    ['a figure left out', 'gauge-zero', { readingBar: 0, kind: 'yes' }, 'missing', 'fullScaleBar'],
    ['a choice left out', 'check-valve', {}, 'missing', 'air'],
    ['a choice that is none', 'check-valve', { air: 'perhaps' }, 'wrong-kind', 'air'],
    [
      'a text for a figure',
      'highest-pressure',
      { reachedBar: 'eight', cutOutBar: 8 },
      'wrong-kind',
      'reachedBar',
    ],
    ['negative pressure', 'highest-pressure', { reachedBar: -1, cutOutBar: 8 }, 'out-of-range', 'reachedBar'],
    ['not a number', 'highest-pressure', { reachedBar: NaN, cutOutBar: 8 }, 'wrong-kind', 'reachedBar'],
    ['no time', 'pump-up', { volumeL: 100, fromBar: 6, toBar: 8, seconds: 0 }, 'out-of-range', 'seconds'],
    [
      'final below first',
      'pump-up',
      { volumeL: 100, fromBar: 8, toBar: 6, seconds: 60 },
      'final-below-first',
      'toBar',
    ],
    [
      'a rise for a leak',
      'leak-down',
      { volumeL: 100, fromBar: 6, toBar: 8, seconds: 60, fadLpm: 100 },
      'final-above-first',
      'toBar',
    ],
    [
      'a leak without delivery',
      'leak-down',
      { volumeL: 100, fromBar: 8, toBar: 6, seconds: 60 },
      'missing',
      'fadLpm',
    ],
    [
      'colder than the air',
      'discharge-temperature',
      { tempC: 10, ambientC: 20, mostRiseK: 60 },
      'colder-than-air',
      'tempC',
    ],
  ])('%s: %s', (_name, check, values, code, field) => {
    expect(refusal(check, values)).toMatchObject({ code, field });
  });

  test('a thermometer in the wrong scale is asked about', () => {
    const values = { intakeTempC: 212, stage1Bar: 5, stage2Bar: 35 };
    expect(refusal('stage-pressures', values, { stages: 2 })).toMatchObject({
      field: 'intakeTempC',
      sentence: 'Intake air: 212 °C? It lies between -40 °C and 60 °C. Was it read in °F?',
    });
  });

  test('a sixth stage is no figure of any machine', () => {
    expect(refusal('stage-pressures', { intakeTempC: 20, stage6Bar: 300 }, { stages: 2 })).toMatchObject({
      code: 'unknown-field',
      field: 'stage6Bar',
    });
  });

  test('whatever is sent, the answer is a judgement or a sentence beside a field', () => {
    const anything = fc.oneof(fc.double(), fc.string(), fc.constantFrom('yes', 'no', 'good', '2026-01-01'));
    fc.assert(
      fc.property(fc.constantFrom(...checkLibrary), fc.infiniteStream(anything), (check, stream) => {
        const values = Object.fromEntries(check.fields.map(({ code }) => [code, stream.next().value!]));
        const outcome = judgeCheck(check.code, values, { on });
        if (outcome.ok) expect(JSON.parse(JSON.stringify(outcome.value))).toEqual(outcome.value);
        else expect(outcome.problem.sentence.length).toBeGreaterThan(10);
      }),
      { numRuns: 500 },
    );
  });
});

describe('judging', () => {
  const pump = { volumeL: 270, fromBar: 6, toBar: 8 };

  test('against the baseline as well as the plate: the comparison that looks worse rules', () => {
    // 535 L in 88 s are 365 L/min: 91 % of the plate’s 400, 81 % of the 450 it once delivered.
    const values = { ...pump, seconds: 88, fadLpm: 400 };
    expect(judge('pump-up', values).verdict).toBe('good');
    const found = judge('pump-up', values, {}, { baseline: { values: {}, figure: 450 } });
    expect([found.verdict, found.limit!.origin]).toEqual(['watch', 'baseline']);
  });

  test('a difference within what gauge and watch can tell is said to be so', () => {
    // 89 s: 361 L/min, 90.2 % of 400; a gauge read to 0.2 bar leaves about 4 % open.
    const close = judge('pump-up', { ...pump, seconds: 89, fadLpm: 400, gaugeStepBar: 0.2 });
    expect(close.reason).toContain('Gauge and watch leave it open');
    const far = judge('pump-up', { ...pump, seconds: 140, fadLpm: 400, gaugeStepBar: 0.05 });
    expect(far.reason).not.toContain('leave it open');
  });

  test('with nothing to compare with it says so, unless it is to be the baseline', () => {
    const alone = judge('pump-up', { ...pump, seconds: 80 });
    expect([alone.verdict, alone.noComparison, alone.reason]).toEqual([
      'good',
      true,
      'Delivers 402 L/min. There is no comparison yet: make it the baseline.',
    ]);
    const baseline = judge('pump-up', { ...pump, seconds: 80 }, {}, { isBaseline: true });
    expect([baseline.verdict, baseline.noComparison]).toEqual(['good', undefined]);
  });

  test('a rise is held against the baseline’s, so that a warm day is no fault', () => {
    // 85 °C in 20 °C once: a rise of 65. In 35 °C: 100 is as it was, 115 is 15 K more, 125 is 25 K more.
    const baseline = { values: { tempC: 85, ambientC: 20 }, figure: 65 };
    const portable: Partial<DataPlate> = { family: 'piston-oil-free' };
    const at = (tempC: number) =>
      judge('discharge-temperature', { tempC, ambientC: 35 }, portable, { baseline }).verdict;
    expect([at(100), at(114), at(115), at(124), at(125)]).toEqual(['good', 'good', 'watch', 'watch', 'act']);
    const onSurface = judge(
      'discharge-temperature',
      { tempC: 95, ambientC: 35, place: 'surface' },
      portable,
      { baseline },
    );
    expect([onSurface.verdict, onSurface.figure!.value]).toEqual(['watch', 80]);
  });

  test('air is called within a standard only when all of it was measured', () => {
    const high: Partial<DataPlate> = { family: 'high-pressure', workingPressureBar: 300 };
    const sample = { standard: 'en-12021', coPpm: 1, co2Ppm: 380, oilMgM3: 0.1 };
    expect(judge('air-quality', sample, high).reason).toContain(
      'so far within EN 12021; not in it: oxygen, water, smell.',
    );
    const whole = { ...sample, oxygenPercent: 20.9, waterMgM3: 15, odour: 'none' };
    expect(judge('air-quality', whole, high).reason).toMatch(/: within EN 12021\.$/);
  });

  test('every answer is looked at: the worst rules, and what else is wrong is said', () => {
    const { verdict, reason, limit } = judge(
      'relief-valve',
      { opens: 'yes', reseats: 'weeps', openedBar: 12 },
      { reliefBar: 10, maximumBar: 11, maximumPressureBar: 11 } as Partial<DataPlate>,
    );
    expect([verdict, limit!.value]).toEqual(['stop', expect.closeTo(11.33, 3)]);
    expect(reason).toMatch(/^It opened at 12 bar, .*above the maximum allowed.* It weeps/);
  });

  test('no slipping belt is suspected where there is none', () => {
    const tasks = (more: Partial<DataPlate>) =>
      judge('pump-up', { ...pump, seconds: 103, fadLpm: 400 }, more).suggests.map(({ task }) => task);
    expect(tasks({})).toContain('belt-check');
    expect(tasks({ drive: 'direct' })).not.toContain('belt-check');
  });

  test('the level is asked for as this unit shows it', () => {
    const level = checkByCode('oil-level')!;
    expect(howOf(level, plate({ levelRead: 'bubble', levelSeenBy: 'phone held below' }))).toBe(
      'Right is with the bubble at the top. To see it: phone held below. Wipe a glass and see the line move; wipe a dipstick first.',
    );
  });

  test('thinner air at a height: the same minutes on the same gauge are more free air there', () => {
    const values = { ...pump, seconds: 80, fadLpm: 450 };
    const low = judge('pump-up', values).figure!.value;
    const high = judge('pump-up', values, {}, { atmosphereBarAbs: 0.8 }).figure!.value;
    expect(high / low).toBeCloseTo(1.01325 / 0.8, 2);
  });

  test('the reason is written in the units that the reader likes', () => {
    const { reason } = judge(
      'highest-pressure',
      { reachedBar: 7, cutOutBar: 8 },
      {},
      { units: { pressure: 'psi' } },
    );
    expect(reason).toBe('It stalls at 102 psi, below its cut-out of 116 psi.');
  });

  test('a ladder with a suspect names it, how sure, and where to look', () => {
    const high: Partial<DataPlate> = { family: 'high-pressure', stages: 3, workingPressureBar: 300 };
    const found = judge(
      'stage-pressures',
      { intakeTempC: 20, stage1Bar: 5.9, stage2Bar: 60, stage3Bar: 300, stage3TempC: 195 },
      high,
    );
    expect(found.reason).toMatch(
      /^The valves of stage 3 let gas back, \d+ % sure\. The pressure before it is 3\d % high/,
    );
    expect(found.suggests.map(({ station, task }) => station ?? task)).toEqual(['stage-3', 'valves-upper']);
  });
});

test('every check says its limits in the handbook, each with its source', () => {
  expect(Object.keys(limitLines).sort()).toEqual(checkLibrary.map(({ code }) => code).sort());
  for (const lines of Object.values(limitLines))
    for (const { when, source } of lines)
      expect([when, source]).toEqual([expect.any(String), expect.stringMatching(/\S/)]);
});

describe('limits of the standards (memory)', () => {
  test.each([
    ['en-12021', 5, 500, 0.5],
    ['cga-d', 10, 1000, 5],
    ['cga-e', 10, 1000, 5],
  ] as const)('%s: %d ppm CO, %d ppm CO₂, %d mg/m³ oil', (standard, coPpm, co2Ppm, oilMgM3) => {
    expect(breathingAir[standard]).toMatchObject({ coPpm, co2Ppm, oilMgM3 });
  });

  test('ISO 8573-1: pressure dew points of classes 1 to 6, oil of classes 1 to 4', () => {
    expect(dewPointClasses).toEqual({ 1: -70, 2: -40, 3: -20, 4: 3, 5: 7, 6: 10 });
    expect(oilClasses).toEqual({ 1: 0.01, 2: 0.1, 3: 1, 4: 5 });
  });
});
