import type { PlanView } from '@entretien/contracts';
import { fireEvent, screen } from '@testing-library/react';
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

test('where every task counts from something, that is said', async () => {
  await renderPage(dialog('done'));
  expect(screen.getByText('Every task has something to count from already.')).toBeTruthy();
});
