import { checkByCode, checkLibrary } from '../../checks/index.js';
import { families, stationsOf, type DataPlate } from '../../machine/index.js';
import type { ServiceTask } from '../service-plan.js';
import { defaultPlan } from './default-plan.js';

function plate(more: Partial<DataPlate>): DataPlate {
  return { siteId: 's', tag: 'T-1', family: 'piston', commissionedOn: '2024-03-01', history: 'new', ...more };
}

function find(one: Partial<DataPlate>, code: string): ServiceTask | undefined {
  return defaultPlan(plate(one)).tasks.find((task) => task.code === code);
}

describe('default plans follow the handbook', () => {
  test.each([
    // Worked from the table of tasks and intervals: hours first, then months.
    ['piston oil: first at 50 h, then 500 h or 3 months', {}, 'oil-change', [500, 50], 3],
    ['piston belt 500 h', { drive: 'belt' }, 'belt-check', [500], null],
    ['piston valves 1,000 h', {}, 'valves-inspect', [1000], null],
    ['piston intake yearly', {}, 'intake-replace', [], 12],
    ['oil-free element 250 h or yearly', { family: 'piston-oil-free' }, 'intake-replace', [250], 12],
    ['screw first service 150 h', { family: 'screw' }, 'first-service', [150], null],
    ['screw oil, unknown kind, as mineral 2,000 h', { family: 'screw' }, 'oil-change', [2000], 24],
    [
      'screw oil, semi-synthetic 4,000 h',
      { family: 'screw', oilGrade: 'VG 46 semi-synthetic' },
      'oil-change',
      [4000],
      24,
    ],
    [
      'screw oil, synthetic 8,000 h',
      { family: 'screw', oilGrade: 'VG 46 Synthetic' },
      'oil-change',
      [8000],
      24,
    ],
    ['screw filters 2,000 h or yearly', { family: 'screw' }, 'oil-filter', [2000], 12],
    ['diesel engine 500 h or yearly', { family: 'screw', motor: 'diesel' }, 'engine-oil-change', [500], 12],
    [
      'high-pressure oil: 25 h, then 100 h or yearly',
      { family: 'high-pressure' },
      'oil-change',
      [100, 25],
      12,
    ],
    [
      'pump-lubricated high pressure 1,000 h',
      { family: 'high-pressure', lubrication: 'pump' },
      'oil-change',
      [1000, 25],
      12,
    ],
    ['belt 200 h electric', { family: 'high-pressure', motor: 'three-phase' }, 'belt-check', [200], null],
    ['belt 100 h petrol', { family: 'high-pressure', motor: 'petrol' }, 'belt-check', [100], null],
    ['upper valves 500 h', { family: 'high-pressure' }, 'valves-upper', [500], null],
    ['all valves 1,000 h', { family: 'high-pressure' }, 'valves-all', [1000], null],
    ['intake inspected at 25 h', { family: 'high-pressure' }, 'intake-inspect', [25], null],
    ['intake replaced at 125 h', { family: 'high-pressure' }, 'intake-replace', [125], null],
    ['CO monitor monthly', { family: 'high-pressure', airUse: 'breathing' }, 'co-calibrate', [], 1],
  ] as const)('%s', (_name, one, code, hours, months) => {
    const triggers = find(one, code)!.triggers;
    const byHours = triggers.flatMap((trigger) =>
      trigger.kind === 'hours' ? [trigger.every, ...(trigger.first ? [trigger.first] : [])] : [],
    );
    const byMonths = triggers.flatMap((trigger) =>
      trigger.kind === 'calendar' && 'months' in trigger.every ? [trigger.every.months] : [],
    );
    expect(byHours).toEqual(hours);
    expect(byMonths).toEqual(months === null ? [] : [months]);
  });

  test('work that a machine does not have is left out', () => {
    expect(find({ drive: 'direct' }, 'belt-check')).toBeUndefined();
    expect(find({}, 'belt-check')).toBeDefined();
    expect(find({ family: 'high-pressure', airUse: 'technical' }, 'co-calibrate')).toBeUndefined();
    expect(find({ family: 'screw', motor: 'three-phase' }, 'engine-oil-change')).toBeUndefined();
  });

  test('dust halves the intake element, and monthly cleaning replaces quarterly: as rules with their reasons', () => {
    expect(find({ family: 'screw' }, 'intake-replace')!.severity).toEqual([
      { kind: 'dust', times: 0.5, because: 'Dust halves its life.' },
    ]);
    expect(find({}, 'cooling-clean')!.severity).toMatchObject([{ kind: 'dust', times: 1 / 3 }]);
    expect(find({ family: 'screw' }, 'oil-change')!.severity).toMatchObject([{ kind: 'heat', on: 'hours' }]);
    expect(find({ family: 'high-pressure' }, 'separator-drain')!.severity).toMatchObject([
      { kind: 'damp', times: 0.5 },
    ]);
  });

  test('the cartridge by season: 20 h warm, 30 h cold', () => {
    expect(find({ family: 'high-pressure' }, 'cartridge-replace')!.triggers).toEqual([
      { kind: 'season', warm: 20, cold: 30 },
    ]);
  });

  test.each(families)(
    '%s: every task has a station of the machine, a code once, and a caution where it is opened',
    (family) => {
      const one = plate({ family });
      const { path, beside } = stationsOf(one);
      const stations = [...path, ...beside].map((station) => station.code);
      const { tasks } = defaultPlan(one);
      expect(new Set(tasks.map((task) => task.code)).size).toBe(tasks.length);
      expect(tasks.length).toBeGreaterThanOrEqual(8);
      for (const task of tasks) {
        expect([task.code, stations.includes(task.station)]).toEqual([task.code, true]);
        if (task.isolation === 'isolated-and-vented')
          expect([task.code, task.caution]).not.toEqual([task.code, undefined]);
      }
    },
  );

  test('what keeps somebody alive is marked as safety', () => {
    const safety = defaultPlan(plate({ family: 'high-pressure' })).tasks.filter((task) => task.safety);
    expect(safety.map((task) => task.code).sort()).toEqual([
      'cartridge-replace',
      'co-calibrate',
      'relief-test',
    ]);
  });
});

test('the work that begins a check anew is in the plans, but for repairs', () => {
  const tasks = new Set(
    families.flatMap((family) =>
      // Water-cooled sets have tasks of their own.
      [{}, { cooling: 'water' as const }].flatMap((more) =>
        defaultPlan(plate({ family, ...more })).tasks.flatMap(({ code, covers = [] }) => [code, ...covers]),
      ),
    ),
  );
  const named = checkLibrary.flatMap(({ resetBy = [] }) => resetBy);
  const repairs = ['capacitor-replace', 'gauge-replace', 'belt-replace', 'ring-kit'];
  expect(named.filter((code) => !tasks.has(code) && !repairs.includes(code))).toEqual([]);
});

test('of every task that opens something it was considered what shows that it helped, by checks that there are', () => {
  for (const family of families) {
    for (const motor of ['three-phase', 'diesel'] as const) {
      const { tasks } = defaultPlan({ ...plate({}), family, motor, airUse: 'breathing' });
      for (const { code, isolation, verifiedBy } of tasks) {
        if (isolation === 'isolated-and-vented')
          expect([family, code, verifiedBy !== undefined]).toEqual([family, code, true]);
        for (const check of verifiedBy ?? []) expect([code, checkByCode(check)?.code]).toEqual([code, check]);
      }
    }
  }
});

test.each(['petrol', 'diesel'] as const)(
  'an engine that drives a breathing-air set, %s: a cartridge that converts CO',
  (motor) => {
    const task = find({ family: 'high-pressure', airUse: 'breathing', motor }, 'cartridge-replace');
    expect(task!.how).toContain('converts CO');
    expect(find({ family: 'high-pressure', motor: 'three-phase' }, 'cartridge-replace')!.how).not.toContain(
      'CO',
    );
  },
);
