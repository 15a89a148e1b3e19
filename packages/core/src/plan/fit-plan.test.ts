import type { DataPlate } from '../machine/index.js';
import { task } from './fixtures.js';
import { fitPlan } from './plan-problems.js';
import { practicesFor } from './practices.js';
import { planVersionAt, type PlanVersion, type ServicePlan } from './service-plan.js';

const plate: DataPlate = {
  siteId: 's',
  tag: 'T-1',
  family: 'piston',
  commissionedOn: '2024-01-01',
  history: 'new',
  drive: 'belt',
};
const [practice] = practicesFor(plate);
const here = task('here', { covers: ['small', 'elsewhere'] });
const small = task('small');
const elsewhere = task('elsewhere', { name: 'Separator', station: 'stage-9' });
const plan: ServicePlan = {
  tasks: [here, small, elsewhere],
  choices: { [practice!.code]: practice!.options[0]!.code, 'no-such-question': 'x' },
  overrides: {
    small: { dust: { times: 1, reason: 'Clean room' } },
    elsewhere: { dust: { times: 1, reason: 'Clean room' } },
  },
};

test('what has no place on a machine is left out by name, wherever it is named', () => {
  const { plan: fitted, leftOut } = fitPlan(plan, plate);
  expect(leftOut).toEqual(['Separator']);
  expect(fitted).toEqual({
    tasks: [{ ...here, covers: ['small'] }, small],
    choices: { [practice!.code]: practice!.options[0]!.code },
    overrides: { small: plan.overrides!['small'] },
  });
});

test('what fits whole stays the same', () => {
  const whole = { tasks: [task('here', { covers: ['small'] }), small] };
  const { plan: fitted, leftOut } = fitPlan(whole, plate);
  expect(fitted).toEqual(whole);
  expect(fitted.tasks[0]).toBe(whole.tasks[0]);
  expect(leftOut).toEqual([]);
});

test('a version that has not taken effect yet is not in force, however late it was written', () => {
  const version = (number: number, effectiveAt: number) =>
    ({ version: number, effectiveAt, plan: { tasks: [] } }) as unknown as PlanVersion;
  const versions = [version(1, 0), version(2, 100), version(3, 50)];
  const at = (moment: number) => planVersionAt(versions, moment)?.version;
  expect([at(-1), at(10), at(50), at(99), at(100)]).toEqual([1, 1, 3, 3, 3]);
  expect(planVersionAt([], 10)).toBeUndefined();
});
