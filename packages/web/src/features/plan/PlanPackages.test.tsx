import { defaultPlan, type ServicePlan } from '@entretien/core/plan';
import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { unitOf } from '../../testing/facts.js';
import { fill, press, problems, renderPage } from '../../testing/render-page.js';
import { PlanPackages } from './PlanPackages.js';

const unit = unitOf({
  id: 'one',
  tag: 'S-1',
  family: 'screw',
  oilGrade: 'mineral',
  history: 'new',
  marks: [],
});
const plans: ServicePlan[] = [];
function Packages() {
  const [plan, setPlan] = useState(() => defaultPlan(unit));
  const put = (next: ServicePlan) => {
    plans.push(next);
    setPlan(next);
  };
  return <PlanPackages plan={plan} unit={unit} onPlan={put} />;
}
const last = () => plans.at(-1)!.packages!;
const box = (name: string) => screen.getByRole<HTMLInputElement>('checkbox', { name });
const open = (name: RegExp) => fireEvent.click(screen.getByRole('button', { name }));

beforeEach(() => plans.splice(0));

test('a task leaves a package and comes back, in the order of the plan', async () => {
  await renderPage(<Packages />);
  open(/^2,000 h service/);
  expect(box('Belt check').checked).toBe(true);
  fireEvent.click(box('Belt check'));
  const service = () => last().find(({ code }) => code === 'every-2000-h')!.tasks;
  expect(service()).not.toContain('belt-check');
  const before = service().length;
  fireEvent.click(box('Belt check'));
  expect(service()).toHaveLength(before + 1);
  const order = plans.at(-1)!.tasks.map(({ code }) => code);
  expect([...service()].sort((a, b) => order.indexOf(a) - order.indexOf(b))).toEqual(service());
});

test('an own package is added, named and removed; it needs a name, and a task', async () => {
  await renderPage(<Packages />);
  const usual = screen.getAllByRole('button', { expanded: false }).length;
  await press('Add a package');
  expect(last()).toHaveLength(usual + 1);
  expect(last().at(-1)!.tasks).toHaveLength(1);
  await fill('Name of the package', '  ');
  expect(problems().length + screen.queryAllByText('It needs a name.').length).toBeGreaterThan(0);
  await fill('Name of the package', 'Autumn');
  expect(last().at(-1)!.name).toBe('Autumn');
  const [only] = screen.getAllByRole<HTMLInputElement>('checkbox', { checked: true });
  expect(only!.disabled).toBe(true);
  await press('Remove the package');
  expect(last()).toHaveLength(usual);
});
