import type { DataPlate } from '@entretien/core/machine';
import type { Trigger } from '@entretien/core/plan';
import { fireEvent, screen } from '@testing-library/react';
import { press, problems, renderPage } from '../../testing/render-page.js';
import { TriggerList } from './TriggerEditor.js';

const plate: DataPlate = {
  siteId: 's',
  tag: 'T-1',
  family: 'screw',
  commissionedOn: '2024-03-01',
  history: 'new',
};

async function list(triggers: readonly Trigger[]) {
  const changes: (readonly Trigger[] | null)[] = [];
  await renderPage(
    <TriggerList triggers={triggers} plate={plate} onChange={(next) => void changes.push(next)} />,
  );
  return () => changes.at(-1);
}

const label = (pattern: RegExp) => screen.getAllByLabelText(pattern)[0]!;
const type = (pattern: RegExp, text: string) => fireEvent.change(label(pattern), { target: { value: text } });

test('no trigger is said to be done on failure', async () => {
  await list([]);
  expect(screen.getByText('No interval: it is done on failure.')).toBeTruthy();
});

test('a figure that is changed comes out changed; the rest stays as it was', async () => {
  const last = await list([{ kind: 'hours', every: 500, first: 50, nearing: 20 }]);
  type(/^Every/, '750');
  expect(last()).toEqual([{ kind: 'hours', every: 750, first: 50, nearing: 20 }]);
});

test.each(['', 'often', '-5', '0', '1e9'])(
  '“%s” hours are not understood: nothing is passed on',
  async (text) => {
    const last = await list([{ kind: 'hours', every: 500 }]);
    type(/^Every/, text);
    expect(last()).toBeNull();
    expect(problems().join()).not.toBe('');
  },
);

test('what is not understood in one of them holds back all of them', async () => {
  const last = await list([
    { kind: 'hours', every: 500 },
    { kind: 'milestone', at: [500, 2000] },
  ]);
  type(/^At/, '2000, 500');
  expect(last()).toBeNull();
  type(/^At/, '1000, 2000');
  expect(last()).toEqual([
    { kind: 'hours', every: 500 },
    { kind: 'milestone', at: [1000, 2000] },
  ]);
});

test('one is taken away, the other stays', async () => {
  const last = await list([
    { kind: 'hours', every: 500 },
    { kind: 'calendar', every: { months: 12 } },
  ]);
  expect(screen.getByText('or, whichever comes first')).toBeTruthy();
  fireEvent.click(screen.getByLabelText('Remove: Run hours'));
  expect(last()).toEqual([{ kind: 'calendar', every: { months: 12 } }]);
});

test('one is added with what is usual', async () => {
  const last = await list([{ kind: 'hours', every: 500 }]);
  fireEvent.mouseDown(screen.getByLabelText('Add a trigger'));
  fireEvent.click(await screen.findByText('Calendar', { selector: 'li' }));
  expect(last()).toEqual([
    { kind: 'hours', every: 500 },
    { kind: 'calendar', every: { months: 12 } },
  ]);
});

test('what is measured may have an interval until it is; it is added and taken away', async () => {
  const last = await list([{ kind: 'condition', check: 'separator-drop', limit: 0.9 }]);
  await press('Add an interval');
  expect(last()).toMatchObject([{ kind: 'condition', unmeasured: { kind: 'hours' } }]);
  await press('Remove it');
  expect(last()).toEqual([{ kind: 'condition', check: 'separator-drop', limit: 0.9 }]);
});

test('a held trigger is edited within the one that holds it', async () => {
  const last = await list([
    {
      kind: 'not-before',
      trigger: { kind: 'hours', every: 1000 },
      floor: { kind: 'hours', every: 500 },
    },
  ]);
  const every = screen.getAllByLabelText(/^Every/);
  expect(every).toHaveLength(2);
  fireEvent.change(every[1]!, { target: { value: '600' } });
  expect(last()).toMatchObject([{ trigger: { every: 1000 }, floor: { every: 600 } }]);
});

test('the fields of another kind are its own', async () => {
  const last = await list([{ kind: 'season', warm: 20, cold: 30 }]);
  type(/^In the warm season/, '25');
  expect(last()).toEqual([{ kind: 'season', warm: 25, cold: 30 }]);
  expect(screen.queryByLabelText(/^Every/)).toBeNull();
});
