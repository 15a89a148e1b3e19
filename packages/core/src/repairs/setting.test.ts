import fc from 'fast-check';
import type { DataPlate } from '../machine/index.js';
import {
  adviseSetting,
  attemptText,
  proceduresFor,
  readAttempt,
  settingCeiling,
  stepsOn,
  type SettingAttempt,
} from './index.js';

const found = (actsBar: number): SettingAttempt => ({ turned: 'none', turns: 0, actsBar });
const turned = (way: 'in' | 'out', turns: number, actsBar: number): SettingAttempt => ({
  turned: way,
  turns,
  actsBar,
});
const advice = (wanted: number, attempts: readonly SettingAttempt[], ceiling: number | null = null) => {
  const answer = adviseSetting(wanted, attempts, ceiling);
  if (!answer.ok) throw new Error(answer.problem.code);
  return answer.value;
};

describe('what to do next with a screw', () => {
  // Wanted 10 bar: 3 % are 0.3 bar.
  test.each([
    [[found(9.7)], 'set', null],
    [[found(10.3)], 'set', null],
    [[found(9.6)], 'turn-in', 0.25],
    [[found(10.4)], 'turn-out', 0.25],
    // A quarter gave 0.5 bar: 2 bar a turn. 1 bar off is half a turn, nine tenths of it 0.45: three eighths.
    [[found(8.5), turned('in', 0.25, 9)], 'turn-in', 0.375],
    // 4 bar off would be two turns: half a turn at most.
    [[found(5.5), turned('in', 0.25, 6)], 'turn-in', 0.5],
    // Turned in, and it acts lower.
    [[found(9), turned('in', 0.25, 8.5)], 'odd', null],
    [[found(11), turned('out', 0.25, 11.5)], 'odd', null],
    // It did not move at all: nobody knows yet what a turn does.
    [[found(9), turned('in', 0.25, 9)], 'turn-in', 0.25],
  ])('%j: %s', (attempts, next, turns) => {
    expect(advice(10, attempts as SettingAttempt[])).toMatchObject({ next, turns });
  });

  test('nothing is set above the weakest part, and what acts above it does not run', () => {
    expect(adviseSetting(11.1, [found(9)], 11)).toMatchObject({
      ok: false,
      problem: { code: 'above-ceiling' },
    });
    expect(advice(11, [found(11.2)], 11).next).toBe('stop-now');
    expect(advice(11, [found(11)], 11).next).toBe('set');
    expect(adviseSetting(10, [], null)).toMatchObject({ ok: false, problem: { code: 'no-attempt' } });
  });

  test('the weakest of maximum, connected parts and, for a stop, the relief valve', () => {
    const plate = { maximumPressureBar: 12, reliefBar: 11 };
    expect(settingCeiling(plate, 'relief')).toBe(12);
    expect(settingCeiling(plate, 'relief', 10)).toBe(10);
    expect(settingCeiling(plate, 'stop')).toBe(11);
    expect(settingCeiling({}, 'relief')).toBeNull();
  });

  test('whatever was seen, it never asks for more than half a turn, nor toward what is worse', () => {
    const attempt = fc.record({
      turned: fc.constantFrom('in' as const, 'out' as const),
      turns: fc.double({ min: 0.05, max: 4, noNaN: true }),
      actsBar: fc.double({ min: 0.1, max: 500, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 400, noNaN: true }),
        fc.array(attempt, { minLength: 1, maxLength: 5 }),
        fc.option(fc.double({ min: 0.1, max: 500, noNaN: true })),
        (wanted, attempts, ceiling) => {
          const answer = adviseSetting(wanted, attempts, ceiling);
          if (!answer.ok) return;
          const { next, turns } = answer.value;
          const { actsBar } = attempts.at(-1)!;
          if (turns !== null) expect(turns).toBeLessThanOrEqual(0.5);
          if (next === 'turn-in') expect(actsBar).toBeLessThan(wanted);
          if (next === 'turn-out') expect(actsBar).toBeGreaterThan(wanted);
          if (ceiling !== null && actsBar > ceiling) expect(next).toBe('stop-now');
        },
      ),
      { seed: 5 },
    );
  });

  test('a look is read back as it was written', () => {
    for (const kind of ['relief', 'stop'] as const)
      for (const attempt of [found(10.25), turned('in', 0.125, 9), turned('out', 2, 330)])
        expect(readAttempt(attemptText(kind, attempt))).toEqual({ of: kind, ...attempt });
    expect(readAttempt('Setting of the heart: as found, opens at 1 bar')).toBeNull();
  });
});

describe('the overhaul as a set is built', () => {
  const plate: DataPlate = {
    siteId: 's',
    tag: 'T',
    family: 'piston',
    cooling: 'water',
    commissionedOn: '2020-01-01',
    history: 'unknown',
  };
  const codes = (more: Partial<DataPlate>) => {
    const machine = { ...plate, ...more };
    const guide = proceduresFor(machine).find(({ code }) => code === 'water-cooled-overhaul')!;
    return stepsOn(guide, machine).map(({ code }) => code);
  };

  test('nobody said: every way is named in one step', () => {
    expect(codes({})).toEqual(expect.arrayContaining(['lp-valve', 'hp-valves', 'coolers', 'lubricator']));
    expect(codes({})).not.toEqual(expect.arrayContaining(['hp-in-line']));
  });

  test('a low-pressure valve under its own cover comes before the head', () => {
    const own = codes({ lowPressureValve: 'own-cover' });
    expect(own.indexOf('lp-valve-first')).toBeLessThan(own.indexOf('head'));
    expect(own).not.toContain('lp-valve');
    const under = codes({ lowPressureValve: 'under-head' });
    expect(under.indexOf('lp-valve')).toBeGreaterThan(under.indexOf('head'));
  });

  test.each([
    [{ highPressureValves: 'in-line' }, 'hp-in-line', 'hp-valves'],
    [{ highPressureValves: 'own-covers' }, 'hp-covers', 'hp-valves'],
    [{ coolersAre: 'inside' }, 'coolers-inside', 'coolers'],
    [{ coolersAre: 'beside' }, 'coolers-beside', 'coolers'],
    [{ cylinderOilFrom: 'oil-pump' }, 'oil-to-cylinder', 'lubricator'],
    [{ cylinderOilFrom: 'own-tank' }, 'lubricator', 'oil-to-cylinder'],
    [{ coolingWaterFrom: 'own-pump' }, 'water-own', 'water-building'],
    [{ coolingWaterFrom: 'building' }, 'water-building', 'water-own'],
  ] as const)('%j: %s and not %s', (more, has, hasNot) => {
    expect(codes(more)).toContain(has);
    expect(codes(more)).not.toContain(hasNot);
  });
});
