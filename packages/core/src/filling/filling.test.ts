import fc from 'fast-check';
import type { DataPlate } from '../machine/index.js';
import { fillProblems, usualAim, type FillIntent, type FillSet } from './admit.js';
import { cylinderProblems, testedUntil, type FillCylinder } from './cylinder.js';
import { endFill, fillDoubts, forecastFill, sumFills, waterTakenUp } from './fill.js';

const plate = {
  tag: 'SP-1',
  family: 'high-pressure',
  workingPressureBar: 330,
  maximumPressureBar: 350,
} as DataPlate;
const set: FillSet = {
  plate,
  stops: [],
  tasks: [
    { code: 'cartridge-replace', name: 'New purifier cartridge', state: 'fresh' },
    { code: 'co-calibrate', name: 'Calibrate the CO monitor', state: 'nearing' },
  ],
};
const cylinder: FillCylinder = {
  tag: 'R-07',
  ratedBar: 300,
  volumeL: 6.8,
  connectorBar: 300,
  testedUntil: '2028-03-31',
  hasFailed: false,
};
const intent: FillIntent = { cylinder, fromBar: 96, toBar: 300, connectorBar: 300, today: '2026-11-24' };
const codes = (more: Partial<FillIntent> = {}, other: Partial<FillSet> = {}) =>
  fillProblems({ ...set, ...other }, { ...intent, ...more }).map(({ code }) => code);
const of = (more: Partial<FillCylinder>) => codes({ cylinder: { ...cylinder, ...more } });

describe('before air flows', () => {
  test('a cylinder in date, rated and fitting is filled', () => {
    expect(codes()).toEqual([]);
    // On the last day of its test it may still be filled, on the day after not.
    expect(codes({ today: '2028-03-31' })).toEqual([]);
    expect(codes({ today: '2028-04-01' })).toEqual(['cylinder-out-of-date']);
  });

  test.each<[string, Partial<FillCylinder>, string[]]>([
    ['no test on record', { testedUntil: null }, ['cylinder-untested']],
    ['failed', { hasFailed: true }, ['cylinder-failed']],
    ['a composite past its life', { lifeEndsOn: '2026-11-23' }, ['cylinder-past-life']],
    ['out of use from today on', { retiredOn: '2026-11-24' }, ['cylinder-retired']],
    ['for oxygen', { gas: 'oxygen' }, ['cylinder-other-gas']],
    ['for nitrox', { gas: 'nitrox' }, ['cylinder-other-gas']],
    ['stamped 232', { ratedBar: 232 }, ['over-rating']],
    ['stamp unknown', { ratedBar: null }, ['cylinder-unrated']],
    ['volume unknown', { volumeL: undefined }, ['cylinder-no-volume']],
    ['valve unknown', { connectorBar: null }, ['cylinder-no-connector']],
    ['a valve for 200', { connectorBar: 200 }, ['wrong-connector']],
  ])('refused: %s', (_what, more, expected) => {
    expect(of(more)).toEqual(expected);
  });

  test('what was last found to be mended first is mended first: of the air where it is breathed, of the hose anywhere', () => {
    const found = (check: string, more: Partial<DataPlate> = {}) =>
      codes(
        {},
        { plate: { ...plate, ...more }, findings: [{ check, reason: 'The gases are out of date.' }] },
      );
    expect(found('co-monitor')).toEqual(['co-monitor-found']);
    expect(found('co-alarm')).toEqual(['co-alarm-found']);
    expect(found('tower-ring')).toEqual(['tower-ring-found']);
    expect(found('fill-hose')).toEqual(['fill-hose-found']);
    expect(found('co-monitor', { airUse: 'technical' })).toEqual([]);
    expect(found('fill-hose', { airUse: 'technical' })).toEqual(['fill-hose-found']);
    // What a fill does not hang on stands against none.
    expect(found('oil-level')).toEqual([]);
  });

  test('everything that stands against it is said at once', () => {
    expect(of({ hasFailed: true, testedUntil: '2020-01-01', gas: 'oxygen', ratedBar: 200 })).toEqual([
      'cylinder-failed',
      'cylinder-other-gas',
      'cylinder-out-of-date',
      'over-rating',
    ]);
  });

  test('both ends of what is in it, and of where it goes', () => {
    expect(codes({ fromBar: 0 })).toEqual(['found-empty']);
    expect(codes({ fromBar: 0.9 })).toEqual(['found-empty']);
    // 5 ppm is the most of EN 12021; nothing read stands against nothing.
    expect(codes({ coPpm: 5 })).toEqual([]);
    expect(codes({ coPpm: 5.1 })).toEqual(['co-high']);
    expect(codes({ coPpm: null })).toEqual([]);
    expect(codes({ fromBar: 1 })).toEqual([]);
    expect(codes({ fromBar: 300 })).toEqual(['full-already']);
    expect(codes({ toBar: 301 })).toEqual(['over-rating', 'over-connector']);
    const strong = { ...cylinder, ratedBar: 500 };
    expect(codes({ cylinder: strong, toBar: 351, connectorBar: 300 })).toEqual([
      'over-set',
      'over-connector',
    ]);
  });

  test('before it was read, what is in it stands against nothing; all else does', () => {
    expect(codes({ fromBar: null })).toEqual([]);
    expect(codes({ fromBar: null, toBar: 301 })).toEqual(['over-rating', 'over-connector']);
  });

  test('it is to stop at the weakest of stamp, connector and set; by hand a tenth under', () => {
    const aim = (more: Partial<DataPlate>, one: Partial<FillCylinder> = {}) =>
      usualAim({ ...set, plate: { ...plate, ...more } }, { ...cylinder, ...one });
    expect(aim({})).toBe(300);
    expect(aim({ cutOutBar: 225 })).toBe(225);
    expect(aim({}, { ratedBar: 200 })).toBe(200);
    expect(aim({ stopsBy: 'hand' })).toBe(270);
    const nothing = { ...plate, workingPressureBar: undefined };
    expect(usualAim({ ...set, plate: nothing }, { ...cylinder, ratedBar: null, connectorBar: null })).toBe(0);
  });

  test.each<[string, Partial<FillSet>, string[]]>([
    [
      'a cartridge past its point',
      { tasks: [{ ...set.tasks[0]!, state: 'due' }] },
      ['cartridge-replace-due'],
    ],
    [
      'a cartridge that nobody knows of',
      { tasks: [{ ...set.tasks[0]!, state: 'unknown' }] },
      ['cartridge-replace-due'],
    ],
    [
      'a CO monitor past its calibration',
      { tasks: [{ ...set.tasks[1]!, state: 'overdue' }] },
      ['co-calibrate-due'],
    ],
    [
      'the unit out of service',
      { stops: [{ scope: 'unit', place: null, why: 'Relief valve.' }] },
      ['out-of-service'],
    ],
    ['not for breathing', { stops: [{ scope: 'breathing', place: null, why: 'CO.' }] }, ['out-of-service']],
    [
      'its side of the panel',
      { stops: [{ scope: 'side', place: '300 bar', why: 'Hose.' }] },
      ['out-of-service'],
    ],
    ['a side nobody named', { stops: [{ scope: 'side', place: 'left', why: 'Hose.' }] }, ['out-of-service']],
    ['the other side', { stops: [{ scope: 'side', place: '200 bar', why: 'Hose.' }] }, []],
  ])('%s', (_what, other, expected) => {
    expect(codes({}, other)).toEqual(expected);
  });

  test('air for tools hangs on no cartridge; a screw fills nothing', () => {
    const technical = { ...plate, airUse: 'technical' as const };
    const spent = [{ ...set.tasks[0]!, state: 'overdue' }];
    expect(codes({}, { plate: technical, tasks: spent })).toEqual([]);
    expect(codes({}, { plate: { ...plate, family: 'screw' } })).toContain('no-filling-set');
  });

  test('whatever is on record of it, nothing dangerous is let through', () => {
    const figures = fc.double({ min: -10, max: 700, noNaN: true });
    const day = fc.constantFrom('2020-01-01', '2026-11-23', '2026-11-24', '2030-01-01');
    const any = fc.record({
      ratedBar: fc.option(figures),
      connectorBar: fc.constantFrom(200, 300, null),
      testedUntil: fc.option(day),
      lifeEndsOn: fc.option(day),
      hasFailed: fc.boolean(),
      gas: fc.constantFrom('air', 'oxygen', 'nitrox', null) as fc.Arbitrary<'air'>,
    });
    fc.assert(
      fc.property(any, figures, figures, fc.constantFrom(200, 300), (more, fromBar, toBar, connectorBar) => {
        const one = { ...cylinder, ...more };
        if (fillProblems(set, { ...intent, cylinder: one, fromBar, toBar, connectorBar }).length > 0) return;
        expect(toBar).toBeLessThanOrEqual(Math.min(one.ratedBar!, connectorBar, 350));
        expect(one.testedUntil! >= '2026-11-24' && !one.hasFailed).toBe(true);
        expect(one.connectorBar).toBe(connectorBar);
        expect(fromBar).toBeGreaterThanOrEqual(1);
        expect(one.gas ?? 'air').toBe('air');
      }),
    );
  });

  test('a cylinder alone says what stands against it before anybody carries it over', () => {
    expect(cylinderProblems({ ...cylinder, testedUntil: '2026-11-01' }, '2026-11-24')).toMatchObject([
      { sentence: 'Its test ran out on 1 Nov 2026.' },
    ]);
  });
});

test('until when a test holds: the shorter of test and inspection, from the last that was passed', () => {
  const test_ = (doneOn: string, passed = true) => ({ kind: 'test' as const, doneOn, passed });
  const inspection = (doneOn: string) => ({ kind: 'inspection' as const, doneOn, passed: true });
  const months = { testEveryMonths: 60, inspectEveryMonths: 30 };
  expect(testedUntil([], months)).toEqual({ testedUntil: null, hasFailed: false });
  expect(testedUntil([test_('2024-02-29')], { testEveryMonths: 60 })).toEqual({
    testedUntil: '2029-02-28',
    hasFailed: false,
  });
  // Where inspections are asked and none is on record, a test alone is not enough.
  expect(testedUntil([test_('2024-02-29')], months).testedUntil).toBeNull();
  expect(testedUntil([test_('2024-03-10'), inspection('2025-01-05')], months).testedUntil).toBe('2027-07-05');
  expect(testedUntil([test_('2024-03-10')], {}).testedUntil).toBeNull();
  // What failed last has failed, whatever was passed before; passed again, it has not.
  expect(
    testedUntil([test_('2020-01-01'), test_('2025-01-01', false)], { testEveryMonths: 60 }).hasFailed,
  ).toBe(true);
  expect(testedUntil([test_('2025-01-01', false), test_('2025-02-01')], { testEveryMonths: 60 })).toEqual({
    testedUntil: '2030-02-01',
    hasFailed: false,
  });
});

const run = { volumeL: 6.8, fromBar: 96, toBar: 300, ambientC: 26.85, atmosphereBarAbs: 1.01325 };

describe('what a fill comes to', () => {
  test('air and minutes', () => {
    // By hand at 300 K, where Z is 1.109 at 300 bar and 0.993 at 100 (Perry, memory):
    // 6.8 × (301 ÷ 1.109 − 97 ÷ 0.993) ÷ 1.013 = 1,166 L of free air; at 250 L/min 4.66 min, 43.7 bar a minute.
    const forecast = forecastFill(run, 250);
    if (!forecast.ok) throw new Error(forecast.problem.sentence);
    const { airL, minutes, barPerMinute } = forecast.value;
    expect(airL).toBeGreaterThan(1166 * 0.985);
    expect(airL).toBeLessThan(1166 * 1.015);
    expect(minutes).toBeCloseTo(airL / 250, 9);
    expect(barPerMinute).toBeCloseTo(204 / minutes!, 9);
    expect(forecastFill(run, undefined)).toMatchObject({ value: { minutes: null, barPerMinute: null } });
  });

  test('filled hot it settles lower, and holds less than it seemed', () => {
    // By hand: n ~ p ÷ (Z·T): 301 ÷ (1.133 × 323.15) = 0.822; at 293.15 K and about 256 bar Z is 1.06: 255 bar.
    const hot = endFill({ ...run, ambientC: 20, ratedBar: 300, minutes: 6, wallC: 50 });
    if (!hot.ok) throw new Error(hot.problem.sentence);
    expect(hot.value.settledBar).toBeGreaterThan(250);
    expect(hot.value.settledBar).toBeLessThan(260);
    const cold = endFill({ ...run, ambientC: 20, ratedBar: 300, minutes: 6, wallC: null });
    expect(cold).toMatchObject({ value: { settledBar: expect.closeTo(300, 6), marks: [] } });
    if (cold.ok) expect(hot.value.airL).toBeLessThan(cold.value.airL);
  });

  test('past its stamp, air has to go before it is on record; hot and over, it may settle within', () => {
    const over = endFill({ ...run, toBar: 310, ratedBar: 300, minutes: 6 });
    expect(over).toMatchObject({ ok: false, problem: { code: 'over-stamp', field: 'toBar' } });
    expect(endFill({ ...run, toBar: 310, ratedBar: 300, minutes: 6, wallC: 50 }).ok).toBe(true);
    // A gauge's line is none.
    expect(endFill({ ...run, toBar: 302, ratedBar: 300, minutes: 6 }).ok).toBe(true);
    expect(endFill({ ...run, toBar: 97, fromBar: 96, ratedBar: 300, minutes: 6, wallC: 60 })).toMatchObject({
      problem: { code: 'nothing-went-in' },
    });
  });

  test('too fast and too hot are on record, and said', () => {
    const quick = endFill({ ...run, ratedBar: 300, minutes: 3, wallC: 61 });
    if (!quick.ok) throw new Error(quick.problem.sentence);
    expect(quick.value.marks).toEqual(['fast', 'hot']);
    expect(fillDoubts(quick.value).map(({ sentence }) => sentence)).toEqual([
      'That was 68 bar a minute: open the valve less. 40 are enough.',
      'Above 60 °C a wall has had enough. Let it cool, look at it and its papers before it is used.',
    ]);
    expect(endFill({ ...run, ratedBar: 300, minutes: 204 / 40, wallC: 60 })).toMatchObject({
      value: { marks: [] },
    });
  });

  test('hours behind many fills, and how sure', () => {
    const fills = Array.from({ length: 100 }, () => ({ airL: 1200, volumeL: 6.8 }));
    const { hours, hoursSd, airSdL } = sumFills(fills, 250);
    // 120,000 L ÷ 250 L/min ÷ 60 = 8 h. Gauges: √2 × 2 bar × 6.8 L × √100 = 192 L of 120,000; the plate: 8 %.
    expect(hours).toBeCloseTo(8, 9);
    expect(airSdL).toBeCloseTo(192.3, 1);
    expect(hoursSd).toBeCloseTo(0.64, 2);
    // One small fill is less sure by its gauges.
    const one = sumFills([{ airL: 60, volumeL: 6.8 }], 250);
    expect(one.hoursSd! / one.hours!).toBeCloseTo(Math.hypot(19.23 / 60, 0.08), 3);
    expect(sumFills([], 250)).toMatchObject({ count: 0, hours: 0, hoursSd: null });
    expect(sumFills(fills, undefined).hours).toBeNull();
  });

  test('water that the cartridge took up', () => {
    // Saturated at 30 °C and 150 bar: ideal 30.4 g/m³ × 1.013 ÷ 151 = 0.204 g per m³ of free air; dense air holds
    // some 1.3 to 1.9 times as much.
    const water = waterTakenUp(100_000, { ambientC: 20, holdingBar: 150, atmosphereBarAbs: 1.01325 });
    if (!water.ok) throw new Error(water.problem.sentence);
    expect(water.value).toBeGreaterThan(20.4 * 1.2);
    expect(water.value).toBeLessThan(20.4 * 2);
  });
});
