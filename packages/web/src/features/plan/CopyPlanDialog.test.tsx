import { defaultPlan } from '@entretien/core/plan';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { unitOf } from '../../testing/facts.js';
import { button, press, problems, renderPage } from '../../testing/render-page.js';
import { standingOf } from '../../testing/standings.js';
import { CopyPlanDialog } from './CopyPlanDialog.js';

const plate = { motor: 'three-phase', receiverL: 100, history: 'new', marks: [] };
const unit = unitOf({ ...plate, id: 'one', tag: 'CJ-1' });
const sister = (id: string, more: object = {}) => unitOf({ ...plate, id, tag: id.toUpperCase(), ...more });
const plan = defaultPlan(unit);
const preview = (changes: readonly string[]) => ({
  problems: [],
  standing: standingOf([]),
  coming: {},
  differences: changes.length > 0 ? [{ code: 'a', name: 'Belt', kind: 'changed', changes }] : [],
});

async function dialog(units: readonly object[], answers: Readonly<Record<string, unknown>> = {}) {
  const closed: string[] = [];
  const { sent } = await renderPage(
    <CopyPlanDialog unit={unit} plan={plan} onClose={() => void closed.push('closed')} />,
    { '/compressors?limit=200': { items: [unit, ...units] }, ...answers },
  );
  await waitFor(() => expect(screen.queryByText(/There is no other|^TWO/)).toBeTruthy());
  return { closed, puts: () => sent.filter(({ path }) => path.endsWith('/plan')) };
}

const box = (name: RegExp) => screen.getByRole<HTMLInputElement>('checkbox', { name });

test('a plan goes to the chosen sister, against the version that is hers', async () => {
  const { closed, puts } = await dialog([sister('two'), sister('three')], {
    '/compressors/two/plan-preview': preview(['every 500 h']),
    '/compressors/three/plan-preview': preview(['every 500 h']),
    '/compressors/two/plan': { ...plan, latest: 4 },
  });
  expect(button('Copy to 0 units').disabled).toBe(true);
  await waitFor(() => expect(screen.getAllByText(/every 500 h/)).toHaveLength(2));
  fireEvent.click(box(/^TWO/));
  await press('Copy to 1 unit');
  await waitFor(() => expect(closed).toEqual(['closed']));
  expect(puts()).toMatchObject([{ path: '/compressors/two/plan', body: { note: 'Copied from CJ-1.' } }]);
});

test('where it is the same already there is nothing to choose; another family is not offered', async () => {
  await dialog([sister('two'), sister('three', { family: 'screw' })], {
    '/compressors/two/plan-preview': preview([]),
  });
  await waitFor(() => expect(screen.getByText('It is the same there already.')).toBeTruthy());
  expect(box(/^TWO/).disabled).toBe(true);
  expect(screen.queryByRole('checkbox', { name: /^THREE/ })).toBeNull();
});

test('a refusal on the way is said, the dialog stays, and another try is the same request', async () => {
  const { closed, puts } = await dialog([sister('two')], {
    '/compressors/two/plan-preview': preview(['every 500 h']),
    '/compressors/two/plan': {
      status: 412,
      title: 'Changed',
      detail: 'It was changed meanwhile.',
      latest: 1,
    },
  });
  await waitFor(() => expect(screen.getByText(/every 500 h/)).toBeTruthy());
  fireEvent.click(box(/^TWO/));
  await press('Copy to 1 unit');
  await waitFor(() => expect(problems().join()).toContain('It was changed meanwhile.'));
  expect(closed).toEqual([]);
  expect(puts()).toEqual([]);
  expect(box(/^TWO/).checked).toBe(true);
});

test('alone of its family it says so', async () => {
  await dialog([]);
  expect(screen.getByText('There is no other unit of this family in service.')).toBeTruthy();
});
