import type { DataPlate } from '../machine/index.js';
import {
  defaultPlan,
  fitPlan,
  packagesOf,
  packagesToOffer,
  planDifference,
  planFileOf,
  planProblems,
  withPractice,
} from './index.js';
import { task } from './fixtures.js';
import type { ServicePlan } from './service-plan.js';

const screw: DataPlate = {
  siteId: 's',
  tag: 'S-1',
  family: 'screw',
  commissionedOn: '2024-01-01',
  history: 'new',
  drive: 'belt',
  oilGrade: 'semi-synthetic 46',
  separatorElement: 'vessel',
};
const every = (hours: number) => [{ kind: 'hours', every: hours } as const];
const named = (plan: ServicePlan, code: string, plate = screw) =>
  packagesOf(plan, plate).find((one) => one.code === code)?.tasks;

test('the service of a screw takes what comes round by its hours, and what lasts twice as long with the next', () => {
  const plan = defaultPlan(screw);
  const [half, whole] = [named(plan, 'every-2000-h')!, named(plan, 'every-4000-h')!];
  // Worked by hand from the intervals of the default plan: semi-synthetic oil and a vessel element last 4,000 h.
  expect([...half].sort()).toEqual([
    'bearing-check',
    'belt-check',
    'intake-replace',
    'oil-filter',
    'oil-sample',
    'prefilter-replace',
    'relief-test',
    'scavenge-clean',
    'valves-inspect',
  ]);
  // The oil change takes the filter and the sample with it.
  expect([...whole].sort()).toEqual([
    'bearing-check',
    'belt-check',
    'intake-replace',
    'oil-change',
    'prefilter-replace',
    'relief-test',
    'scavenge-clean',
    'separator-replace',
    'valves-inspect',
  ]);
  expect(named(plan, 'first')).toContain('first-service');
  expect(named(plan, 'yearly')).toEqual(
    expect.arrayContaining(['relief-test', 'shutdown-test', 'gauge-test']),
  );
  expect(named(plan, 'yearly')).not.toContain('oil-change');
  expect(named(plan, 'winter')).toEqual(expect.arrayContaining(['drain-receiver', 'cooling-clean']));
});

test('packages follow the intervals of the plan; what nobody runs in has no first service', () => {
  const plan: ServicePlan = {
    tasks: [
      task('a', { triggers: every(2000) }),
      task('b', { triggers: every(2000) }),
      task('c', { triggers: every(4000) }),
      task('daily', { triggers: [{ kind: 'run', when: 'each-day' }] }),
    ],
  };
  expect(packagesOf(plan, screw).map(({ code }) => code)).toEqual(['every-2000-h', 'every-4000-h']);
  expect(named(plan, 'every-4000-h')).toEqual(['a', 'b', 'c']);
});

test('a first service is offered while the machine is run in, and no longer', () => {
  const plan = defaultPlan(screw);
  const packages = packagesOf(plan, screw);
  const offered = (startedBy: 'commissioned' | 'done' | null) =>
    packagesToOffer(packages, plan.tasks, [{ code: 'first-service', startedBy }]).map(({ code }) => code);
  expect(offered('commissioned')).toContain('first');
  for (const startedBy of ['done', null] as const) {
    expect(offered(startedBy)).toEqual(packages.flatMap(({ code }) => (code === 'first' ? [] : [code])));
  }
});

test.each(['piston', 'piston-oil-free', 'screw', 'high-pressure'] as const)(
  'every package of a %s holds tasks of its plan, each once, none that another of it takes along',
  (family) => {
    const plan = defaultPlan({ ...screw, family, stages: 3 });
    const known = new Map(plan.tasks.map((one) => [one.code, one]));
    const packages = packagesOf(plan, { family });
    expect(packages.map(({ code }) => code)).toEqual(expect.arrayContaining(['yearly', 'winter']));
    for (const { tasks } of packages) {
      expect(tasks.length).toBeGreaterThan(1);
      expect(new Set(tasks).size).toBe(tasks.length);
      for (const code of tasks) {
        expect(known.has(code)).toBe(true);
        expect(tasks.some((other) => known.get(other)?.covers?.includes(code))).toBe(false);
      }
    }
    expect(planProblems({ ...plan, packages }, { ...screw, family, stages: 3 })).toEqual([]);
  },
);

test('what a plan says itself rules, an empty list too; a file writes out what holds', () => {
  const own = [{ code: 'autumn', name: 'Autumn', tasks: ['oil-filter'] }];
  const plan = defaultPlan(screw);
  expect(packagesOf({ ...plan, packages: own }, screw)).toEqual(own);
  expect(packagesOf({ ...plan, packages: [] }, screw)).toEqual([]);
  expect(planFileOf(plan, 'screw').packages).toEqual(packagesOf(plan, screw));
  expect(planFileOf({ ...plan, packages: own }, 'screw').packages).toEqual(own);
});

test('a package of nothing, and two of one code, are refused', () => {
  const plan = { ...defaultPlan(screw), packages: [{ code: 'x', name: 'Extra', tasks: ['paint-it'] }] };
  expect(planProblems(plan, screw)).toEqual([
    {
      code: 'package-of-nothing',
      field: 'packages',
      sentence: 'Extra: it holds paint-it, which is not in the plan.',
    },
  ]);
  const twice = [0, 1].map((index) => ({ code: 'x', name: `Extra ${index}`, tasks: ['oil-filter'] }));
  expect(planProblems({ ...plan, packages: twice }, screw).map(({ code }) => code)).toEqual([
    'package-twice',
  ]);
});

test('packages lose what a machine or another choice does not have, and go when they are left with nothing', () => {
  const packages = [
    { code: 'both', name: 'Both', tasks: ['here', 'elsewhere'] },
    { code: 'gone', name: 'Gone', tasks: ['elsewhere'] },
  ];
  const here = task('here', { station: 'oil' });
  const plan = { tasks: [here, task('elsewhere', { station: 'stage-9' })], packages };
  expect(fitPlan(plan, screw).plan).toEqual({
    tasks: [here],
    packages: [{ code: 'both', name: 'Both', tasks: ['here'] }],
  });
  const own = [{ code: 'begin', name: 'Begin', tasks: ['first-service', 'oil-filter'] }];
  const chosen = withPractice({ ...defaultPlan(screw), packages: own }, screw, 'break-in', 'none');
  const codes = new Set(chosen.tasks.map(({ code }) => code));
  expect(chosen.packages).toEqual([{ ...own[0], tasks: own[0]!.tasks.filter((code) => codes.has(code)) }]);
});

test('a changed package is told as a difference, by the names of its tasks', () => {
  const plan = { tasks: [task('a', { name: 'Oil' }), task('b', { name: 'Belt' })] };
  const [before, after] = [['a'], ['a', 'b']].map((tasks) => ({
    ...plan,
    packages: [{ code: 'x', name: 'Autumn', tasks }],
  }));
  expect(planDifference(before!, after!)).toEqual([
    { code: 'x', name: 'Package: Autumn', kind: 'changed', changes: ['Oil → Oil; Belt'] },
  ]);
  expect(planDifference(plan, after!)).toMatchObject([{ kind: 'added' }]);
  expect(planDifference(before!, { ...plan, packages: [] })).toMatchObject([{ kind: 'removed' }]);
  expect(planDifference(plan, plan)).toEqual([]);
});
