import { families, stagesOf, type DataPlate } from '../machine/index.js';
import { defaultPlan, tasksOfPractice, withPractice } from './defaults/default-plan.js';
import { planDifference } from './plan-difference.js';
import { fitPlan, planProblems } from './plan-problems.js';
import { practicesFor } from './practices.js';
import type { ServicePlan, ServiceTask, Trigger } from './service-plan.js';

function plate(more: Partial<DataPlate>): DataPlate {
  return { siteId: 's', tag: 'T-1', family: 'piston', commissionedOn: '2024-03-01', history: 'new', ...more };
}

const machines: readonly [string, Partial<DataPlate>][] = [
  ['one-stage piston', {}],
  ['two-stage piston', { stages: 2 }],
  ['water-cooled piston', { stages: 2, cooling: 'water', lubrication: 'pump' }],
  ['oil-free', { family: 'piston-oil-free', lubrication: 'none' }],
  ['screw', { family: 'screw' }],
  ['screw with dryer', { family: 'screw', hasDryer: true }],
  ['variable-speed screw', { family: 'screw', speedControl: 'variable', drive: 'direct' }],
  ['portable diesel screw', { family: 'screw', motor: 'diesel' }],
  ['three stages, breathing', { family: 'high-pressure', stages: 3, airUse: 'breathing' }],
  ['four stages, technical', { family: 'high-pressure', stages: 4, airUse: 'technical' }],
  ['five stages, petrol', { family: 'high-pressure', stages: 5, motor: 'petrol', airUse: 'breathing' }],
  ['large high pressure', { family: 'high-pressure', stages: 4, lubrication: 'pump' }],
];

const taskOf = (plan: ServicePlan, code: string): ServiceTask | undefined =>
  plan.tasks.find((task) => task.code === code);

describe.each(machines)('%s', (_name, more) => {
  const one = plate(more);

  test('its default plan has nothing to refuse, in any practice choice', () => {
    expect(planProblems(defaultPlan(one), one)).toEqual([]);
    for (const practice of practicesFor(one)) {
      for (const { code } of practice.options) {
        expect([practice.code, code, planProblems(defaultPlan(one, { [practice.code]: code }), one)]).toEqual(
          [practice.code, code, []],
        );
      }
    }
  });

  test('every practice choice has at least two ways with a sentence each, a usual one among them, and a why', () => {
    for (const practice of practicesFor(one)) {
      expect(practice.options.length).toBeGreaterThanOrEqual(2);
      expect(practice.options.map(({ code }) => code)).toContain(practice.usual);
      expect(practice.chosen).toBe(practice.usual);
      expect(practice.why).toMatch(/\.$/);
      for (const { sentence } of practice.options) expect(sentence).toMatch(/\.$/);
    }
  });

  test('each way of each practice choice makes some task different from the other ways', () => {
    for (const { code } of practicesFor(one))
      expect([code, tasksOfPractice(one, code)]).not.toEqual([code, []]);
  });
});

describe('choosing', () => {
  const triggersOf = (more: Partial<DataPlate>, practice: string, option: string, code: string) =>
    taskOf(defaultPlan(plate(more), { [practice]: option }), code)?.triggers;

  test.each<[string, Partial<DataPlate>, string, string, string, readonly Trigger[]]>([
    [
      'oil yearly',
      {},
      'oil-interval',
      'yearly',
      'oil-change',
      [
        { kind: 'hours', every: 500, first: 50 },
        { kind: 'calendar', every: { months: 12 } },
      ],
    ],
    [
      'no break-in',
      {},
      'break-in',
      'none',
      'oil-change',
      [
        { kind: 'hours', every: 500 },
        { kind: 'calendar', every: { months: 3 } },
      ],
    ],
    [
      'separator by drop',
      { family: 'screw' },
      'separator',
      'pressure-drop',
      'separator-replace',
      [
        { kind: 'condition', check: 'separator-drop', limit: 1 },
        { kind: 'hours', every: 8000 },
      ],
    ],
    [
      'valves on condition',
      {},
      'valves',
      'condition',
      'valves-inspect',
      [
        {
          kind: 'condition',
          check: 'pump-up',
          limit: 0.8,
          of: 'baseline',
          unmeasured: { kind: 'hours', every: 1000 },
        },
      ],
    ],
    ['valves on failure', {}, 'valves', 'failure', 'valves-inspect', []],
    [
      'cartridge by weight',
      { family: 'high-pressure' },
      'cartridge',
      'weight',
      'cartridge-replace',
      [
        {
          kind: 'condition',
          check: 'cartridge-weight',
          limit: 100,
          unmeasured: { kind: 'season', warm: 20, cold: 30 },
        },
      ],
    ],
    [
      'cartridge computed',
      { family: 'high-pressure', fadLpm: 255, moistureCapacityG: 48 },
      'cartridge',
      'computed',
      'cartridge-replace',
      [{ kind: 'water', moistureCapacityG: 48, fadLpm: 255, maintainingValveBar: 150, warmC: 32, coldC: 18 }],
    ],
    [
      'computed without its figures: by season, the safe way',
      { family: 'high-pressure' },
      'cartridge',
      'computed',
      'cartridge-replace',
      [{ kind: 'season', warm: 20, cold: 30 }],
    ],
  ])('%s', (_name, more, practice, option, code, triggers) => {
    expect(triggersOf(more, practice, option, code)).toEqual(triggers);
  });

  test('no break-in: a screw has no first service', () => {
    expect(triggersOf({ family: 'screw' }, 'break-in', 'none', 'first-service')).toBeUndefined();
  });

  test('what was edited by hand elsewhere stays', () => {
    const one = plate({ family: 'screw' });
    const edited: ServicePlan = {
      tasks: defaultPlan(one).tasks.map((task) =>
        task.code === 'oil-filter'
          ? { ...task, triggers: [{ kind: 'hours', every: 1500 }], origin: 'book' }
          : task,
      ),
    };
    const chosen = withPractice(edited, one, 'separator', 'pressure-drop');
    expect(chosen.choices).toEqual({ separator: 'pressure-drop' });
    expect(planDifference(edited, chosen).map(({ code, kind }) => [code, kind])).toEqual([
      ['separator-replace', 'changed'],
    ]);
    // And back again.
    const back = withPractice(chosen, one, 'separator', 'hours');
    expect(planDifference(edited, back)).toEqual([]);
    // A task that a way leaves out comes back with the other.
    const none = withPractice(edited, one, 'break-in', 'none');
    expect(taskOf(none, 'first-service')).toBeUndefined();
    expect(taskOf(withPractice(none, one, 'break-in', 'break-in'), 'first-service')).toBeDefined();
  });

  test('a way nobody knows is the usual way', () => {
    expect(defaultPlan(plate({}), { valves: 'by-the-moon' }).tasks).toEqual(defaultPlan(plate({})).tasks);
  });

  test('how a set stops is told by its plate', () => {
    const usual = (more: Partial<DataPlate>) =>
      practicesFor(plate({ family: 'high-pressure', ...more })).find(({ code }) => code === 'stop')!.usual;
    expect(usual({ cutOutBar: 310 })).toBe('switch');
    expect(usual({})).toBe('hand');
    expect(usual({ cutOutBar: 310, stopsBy: 'relief' })).toBe('relief');
  });
});

test('every family has its petrol and breathing rules, and every stage count its stations', () => {
  const cartridge = taskOf(
    defaultPlan(plate({ family: 'high-pressure', motor: 'petrol' })),
    'cartridge-replace',
  )!;
  expect(cartridge.how).toContain('converts CO');
  expect(families.map((family) => stagesOf(plate({ family })))).toEqual([1, 1, 1, 3]);
});

describe('what cannot be in a plan', () => {
  const one = plate({});
  const plan = defaultPlan(one);
  const first = plan.tasks[0]!;
  const withFirst = (more: Partial<ServiceTask>): ServicePlan => ({
    ...plan,
    tasks: [{ ...first, ...more }, ...plan.tasks.slice(1)],
  });

  test.each<[string, ServicePlan, string]>([
    ['twice', { tasks: [...plan.tasks, first] }, 'task-twice'],
    ['a station it has not', withFirst({ station: 'tower' }), 'no-such-station'],
    ['a safety task without interval', withFirst({ safety: true, triggers: [] }), 'safety-without-interval'],
    ['covering nothing', withFirst({ covers: ['moon-dance'] }), 'covers-nothing'],
    ['covering itself', withFirst({ covers: ['oil-change'] }), 'covers-itself'],
    ['falling milestones', withFirst({ triggers: [{ kind: 'milestone', at: [500, 500] }] }), 'trigger'],
    [
      'two figures from one source',
      withFirst({
        others: [{ origin: 'practice', triggers: [{ kind: 'hours', every: 300 }] }],
        choice: { because: 'warranty', by: 'Ida' },
      }),
      'source-twice',
    ],
    [
      'several figures and no reason',
      withFirst({ others: [{ origin: 'book', triggers: [{ kind: 'hours', every: 300 }] }] }),
      'choice-unexplained',
    ],
    [
      'a figure of another source that makes no sense',
      withFirst({
        others: [{ origin: 'book', triggers: [{ kind: 'milestone', at: [500, 500] }] }],
        choice: { because: 'warranty', by: 'Ida' },
      }),
      'trigger',
    ],
    [
      'a check nobody knows',
      withFirst({ triggers: [{ kind: 'condition', check: 'taste', limit: 1 }] }),
      'trigger',
    ],
    [
      'a check without a trend',
      withFirst({ triggers: [{ kind: 'condition', check: 'capacitor', limit: 1 }] }),
      'trigger',
    ],
    [
      'a run with a date',
      withFirst({
        triggers: [
          { kind: 'run', when: 'at-stop' },
          { kind: 'hours', every: 5 },
        ],
      }),
      'run-and-date',
    ],
    ['running without minutes', withFirst({ triggers: [{ kind: 'run', when: 'while-running' }] }), 'trigger'],
    ['a practice choice of other machines', { ...plan, choices: { cartridge: 'weight' } }, 'no-such-school'],
    ['a way that is none', { ...plan, choices: { valves: 'moon' } }, 'no-such-way'],
    [
      'a factor for nothing',
      { ...plan, overrides: { moon: { dust: { times: 1, reason: 'x' } } } },
      'override-of-nothing',
    ],
  ])('%s', (_name, wrong, code) => {
    const problems = planProblems(wrong, one);
    expect(problems.map((problem) => problem.code)).toContain(code);
    expect(problems[0]!.sentence).toMatch(/\.$/);
  });
});

describe('a plan for another machine', () => {
  test('leaves out what that one has no place for, and says so', () => {
    const from = plate({ family: 'high-pressure', airUse: 'breathing', lubrication: 'pump' });
    const to = plate({ family: 'high-pressure', airUse: 'technical' });
    const { plan, leftOut } = fitPlan(defaultPlan(from, { cartridge: 'weight' }), to);
    expect(leftOut).toEqual(['Calibrate the CO monitor']);
    expect(plan.choices).toEqual({ cartridge: 'weight' });
    expect(planProblems(plan, to)).toEqual([]);
  });

  test('of another family hardly anything fits, and covers nothing that is missing', () => {
    const { plan, leftOut } = fitPlan(defaultPlan(plate({ family: 'screw' })), plate({}));
    expect(leftOut.length).toBeGreaterThan(5);
    expect(planProblems(plan, plate({}))).toEqual([]);
  });
});

test('what changes from one plan to another, in words', () => {
  const one = plate({});
  const before = defaultPlan(one);
  const tasks: readonly ServiceTask[] = before.tasks;
  const after: ServicePlan = {
    tasks: tasks
      .filter(({ code }) => code !== 'leak-survey')
      .map((task): ServiceTask =>
        task.code === 'belt-check'
          ? { ...task, triggers: [{ kind: 'hours', every: 250 }], counting: 'grid', origin: 'book' }
          : task,
      )
      .concat({ ...before.tasks[0]!, code: 'own-work', name: 'Own work', covers: [] }),
    overrides: { 'intake-replace': { dust: { times: 0.7, reason: 'Extraction.' } } },
  };
  const found = planDifference(before, after);
  expect(found.find(({ code }) => code === 'belt-check')!.changes).toEqual([
    'every 500 h → every 250 h',
    'counted from last done → on the grid',
    'from: common practice → manual',
  ]);
  expect(found.find(({ code }) => code === 'leak-survey')).toMatchObject({
    kind: 'removed',
    changes: ['every 12 months'],
  });
  expect(found.find(({ code }) => code === 'own-work')).toMatchObject({ kind: 'added' });
  expect(found.find(({ code }) => code === 'intake-replace')!.changes).toEqual(['dust: by rule → 0.7']);
  expect(planDifference(before, before)).toEqual([]);
});
