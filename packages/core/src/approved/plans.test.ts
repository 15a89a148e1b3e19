import { stationsOf } from '../machine/index.js';
import {
  defaultPlan,
  describeTriggers,
  planDifference,
  planFileSchema,
  planProblems,
  practicesFor,
  triggerModules,
  withPractice,
  type ServicePlan,
  type ServiceTask,
} from '../plan/index.js';
import { machines } from './machines.js';
import { shared, shown } from './shown.js';

/* What the plans say, as it was read and approved: a change shows here as words, and is approved with `-u`. */
const all = Object.entries(machines);

test('every task of every family', () => {
  const lines = all.flatMap(([name, plate]) =>
    defaultPlan(plate).tasks.map(
      (task) => [name, `${describeTriggers(task.triggers)} ${shown(task)}`] as const,
    ),
  );
  expect(shared(lines)).toMatchSnapshot();
});

test('every station and every way of practice', () => {
  const lines = all.flatMap(([name, plate]) => [
    ...Object.values(stationsOf(plate)).map((station) => [name, shown(station)] as const),
    ...practicesFor(plate).map((practice) => [name, shown(practice)] as const),
  ]);
  expect(shared(lines)).toMatchSnapshot();
});

test('what each way of practice changes', () => {
  const lines = all.flatMap(([name, plate]) => {
    const plan = defaultPlan(plate);
    return practicesFor(plate).flatMap(({ code, options }) =>
      options.map((option) => {
        const other = withPractice(plan, plate, code, option.code);
        return [name, `${code} ${option.code} ${shown(planDifference(plan, other))}`] as const;
      }),
    );
  });
  expect(shared(lines)).toMatchSnapshot();
});

test('the form of a plan file, and the fields of every trigger', () => {
  expect(JSON.stringify(planFileSchema, null, 1)).toMatchSnapshot();
  expect(triggerModules.map((module) => shown(module)).join('\n')).toMatchSnapshot();
});

test('what cannot be in a plan', () => {
  const plate = machines['screw']!;
  const plan = defaultPlan(plate);
  const [first, second] = plan.tasks as [ServiceTask, ServiceTask];
  const wrong: readonly (ServicePlan | object)[] = [
    { tasks: [] },
    { tasks: [first, first] },
    { tasks: [{ ...first, station: 'nowhere' }] },
    { tasks: [{ ...first, covers: ['nobody'] }, second] },
    { tasks: [{ ...first, covers: [first.code] }] },
    {
      tasks: [
        { ...first, covers: [second.code] },
        { ...second, covers: [first.code] },
      ],
    },
    { tasks: [{ ...first, triggers: [] }] },
    { tasks: [{ ...first, triggers: [{ kind: 'milestone', at: [500, 500] }] }] },
    { tasks: [{ ...first, triggers: [{ kind: 'milestone', at: [2000, 500] }] }] },
    { tasks: [{ ...first, triggers: [{ kind: 'hours', every: 100, nearing: 200 }] }] },
    { tasks: [{ ...first, triggers: [{ kind: 'condition', check: 'nothing', limit: 1 }] }] },
    { ...plan, choices: { nothing: 'x' } },
    { ...plan, choices: { [practicesFor(plate)[0]!.code]: 'x' } },
    { ...plan, overrides: { nothing: { dust: 1 } } },
  ];
  expect(wrong.map((one) => shown(planProblems(one as ServicePlan, plate))).join('\n')).toMatchSnapshot();
});
