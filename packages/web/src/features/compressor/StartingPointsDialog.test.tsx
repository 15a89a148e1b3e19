import type { PlanView } from '@entretien/contracts';
import { fireEvent, screen, within } from '@testing-library/react';
import { button, enter, renderPage } from '../../testing/render-page.js';
import { standingOf, taskOf } from '../../testing/standings.js';
import { StartingPointsDialog } from './StartingPointsDialog.js';

const task = (code: string, name: string, more: object = {}) => ({
  code,
  name,
  triggers: [{ kind: 'hours', every: 1000 }],
  ...more,
});
const plan = {
  tasks: [task('oil-change', 'Oil change'), task('relief-test', 'Relief valve lift test', { safety: true })],
} as unknown as PlanView;

function dialog(startedBy: string | null = null) {
  const standing = standingOf([
    taskOf('oil-change', { startedBy }),
    taskOf('relief-test', { startedBy, safety: true }),
  ]);
  return (
    <StartingPointsDialog
      compressorId="unit"
      tag="CJ-1"
      standing={standing}
      plan={plan}
      timeZone="Europe/Zurich"
      onClose={() => undefined}
    />
  );
}

async function answer(label: string, text: string) {
  fireEvent.mouseDown(screen.getByLabelText(label));
  fireEvent.click(await screen.findByText(text, { selector: 'li' }));
}

test('nothing is set while nothing is said', async () => {
  const { sent } = await renderPage(dialog(), { '/compressors/unit/starting-points': {} });
  expect(button('Set 0 tasks').disabled).toBe(true);
  await enter('Set 0 tasks');
  expect(sent).toEqual([]);
});

test('half used counts half of its hours, from that day', async () => {
  const { sent } = await renderPage(dialog(), { '/compressors/unit/starting-points': {} });
  await answer('Oil change', 'half used');
  await enter('Set 1 task');
  expect(sent).toMatchObject([
    { body: { basis: 'inspection', points: [{ task: 'oil-change', hoursUsed: 500 }] } },
  ]);
});

test('what keeps somebody safe is looked at, and never estimated', async () => {
  await renderPage(dialog());
  expect(screen.queryByLabelText('Relief valve lift test')).not.toBeNull();
  fireEvent.click(screen.getByLabelText('Estimate agreed with the customer'));
  expect(screen.queryByLabelText('Relief valve lift test')).toBeNull();
  expect(screen.queryByLabelText('Oil change')).not.toBeNull();
});

test('a sticker is copied line by line: a day, hours, or both; nothing is sent that cannot be read', async () => {
  const { sent } = await renderPage(dialog(), {
    '/compressors/unit/starting-points': {},
    '/compressors/unit/photos': { items: [] },
  });
  fireEvent.click(screen.getByLabelText('Its sticker says so'));
  const [oil, relief] = ['Oil change', 'Relief valve lift test'].map((name) =>
    within(screen.getByRole('group', { name })),
  );
  fireEvent.change(oil!.getByLabelText('At, on the meter'), { target: { value: 'lots' } });
  fireEvent.change(relief!.getByLabelText('Done on'), { target: { value: '2026-05-02' } });
  expect(button('Set 1 task').disabled).toBe(true);
  fireEvent.change(oil!.getByLabelText('At, on the meter'), { target: { value: '5100' } });
  await enter('Set 2 tasks');
  expect(sent).toMatchObject([
    {
      body: {
        basis: 'sticker',
        points: [
          { task: 'oil-change', hoursThen: 5100 },
          { task: 'relief-test', countsFromOn: '2026-05-02' },
        ],
      },
    },
  ]);
});

test('what the server says of a line stands beside it', async () => {
  const sentence = 'Relief valve lift test keeps somebody safe: hours alone do not say when it was tested.';
  await renderPage(dialog(), {
    '/compressors/unit/photos': { items: [] },
    '/compressors/unit/starting-points': {
      status: 422,
      title: 'That cannot be.',
      detail: sentence,
      errors: [{ field: 'points.0.countsFromOn', message: sentence }],
    },
  });
  fireEvent.click(screen.getByLabelText('Its sticker says so'));
  const relief = within(screen.getByRole('group', { name: 'Relief valve lift test' }));
  fireEvent.change(relief.getByLabelText('At, on the meter'), { target: { value: '5100' } });
  await enter('Set 1 task');
  expect((await relief.findByRole('alert')).textContent).toBe(sentence);
});

test('where every task counts from something, that is said', async () => {
  await renderPage(dialog('done'));
  expect(screen.getByText('Every task has something to count from already.')).toBeTruthy();
});
