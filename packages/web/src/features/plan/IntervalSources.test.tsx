import type { DataPlate } from '@entretien/core/machine';
import type { ServiceTask } from '@entretien/core/plan';
import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { fill, press, renderPage } from '../../testing/render-page.js';
import { IntervalSources } from './IntervalSources.js';

const plate: DataPlate = {
  siteId: 's',
  tag: 'T-1',
  family: 'screw',
  commissionedOn: '2024-03-01',
  history: 'new',
};
const task: ServiceTask = {
  code: 'oil-change',
  name: 'Oil change',
  station: 'separator',
  action: 'replace',
  triggers: [{ kind: 'hours', every: 2000 }],
  counting: 'last-done',
  isolation: 'isolated-and-vented',
  minutes: 60,
  origin: 'book',
};
const people = { '/people': { items: [], nextCursor: null } };

async function sources(begin: ServiceTask = task) {
  let now = begin;
  let swaps = 0;
  function Held() {
    const [held, setHeld] = useState(begin);
    now = held;
    return <IntervalSources task={held} plate={plate} onTask={setHeld} onSwapped={() => void (swaps += 1)} />;
  }
  await renderPage(<Held />, people);
  return { task: () => now, swaps: () => swaps };
}

test('what another source says stands beside it, with the same interval to begin with', async () => {
  const held = await sources();
  await press('Add what another source says');
  expect(held.task().others).toHaveLength(1);
  expect(held.task().others![0]!.triggers).toEqual(task.triggers);
  expect(held.task().others![0]!.origin).not.toBe('book');
});

test('the one that is used changes places with the other, and its fields begin anew', async () => {
  const other = { origin: 'practice', triggers: [{ kind: 'hours', every: 1000 }] } as const;
  const held = await sources({ ...task, others: [other] });
  await press('Use this one');
  expect(held.task()).toMatchObject({
    origin: 'practice',
    triggers: [{ every: 1000 }],
    others: [{ origin: 'book', triggers: [{ every: 2000 }] }],
  });
  expect(held.swaps()).toBe(1);
});

test('a decision is one with its reason and its name, and not before', async () => {
  const other = { origin: 'practice', triggers: [{ kind: 'hours', every: 1000 }] } as const;
  const held = await sources({ ...task, others: [other] });
  const why = screen.getByLabelText(/^Why /);
  fireEvent.change(why, { target: { value: 'The hall is dusty' } });
  expect(held.task().choice).toBeUndefined();
  await fill('Decided by *', 'Mara Vell');
  expect(held.task().choice).toEqual({ because: 'The hall is dusty', by: 'Mara Vell' });
  fireEvent.change(why, { target: { value: '  ' } });
  expect(held.task().choice).toBeUndefined();
});

test('the last of the others taken away leaves nothing of them', async () => {
  const other = { origin: 'practice', triggers: [{ kind: 'hours', every: 1000 }] } as const;
  const held = await sources({ ...task, others: [other], choice: { because: 'Dust', by: 'Mara' } });
  await press('Delete');
  expect(held.task()).not.toHaveProperty('others');
  expect(held.task()).not.toHaveProperty('choice');
});
