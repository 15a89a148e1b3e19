import type { PlanView } from '@entretien/contracts';
import { fireEvent, screen } from '@testing-library/react';
import { factsOf, unitOf } from '../../testing/facts.js';
import { button, daysAgo, enter, fill, problems, renderPage } from '../../testing/render-page.js';
import { standingOf, taskOf } from '../../testing/standings.js';
import { RecordServiceDialog } from './RecordServiceDialog.js';

const caution = 'Hot oil: let it cool until a hand can stay on it.';
const plan = {
  tasks: [
    { code: 'oil-change', name: 'Oil change', station: 'crankcase', caution, triggers: [] },
    { code: 'oil-filter', name: 'Oil filter', station: 'crankcase', caution, triggers: [] },
    { code: 'belt-check', name: 'Belt check', station: 'drive', triggers: [], testedBy: ['belt-deflection'] },
  ],
} as unknown as PlanView;
const standing = standingOf([
  taskOf('oil-change', { name: 'Oil change', state: 'overdue' }),
  taskOf('oil-filter', { name: 'Oil filter' }),
  taskOf('belt-check', { name: 'Belt check' }),
  taskOf('vessel-test:v', { name: 'R-1: pressure test', vessel: { id: 'v' } }),
]);
const reading = { id: 'r', takenAt: daysAgo(3), hours: 1190, counts: 'total', source: 'typed', marks: [] };

function dialog(more: object = {}) {
  return (
    <RecordServiceDialog
      unit={unitOf({})}
      compressorId="unit"
      tag="CJ-1"
      facts={factsOf({ readings: [reading], ...more })}
      standing={standing}
      plan={plan}
      timeZone="Europe/Zurich"
      chosen={[]}
      onClose={() => undefined}
    />
  );
}

const PATH = { '/compressors/unit/services': {} };
const tick = (name: string) => fireEvent.click(screen.getByLabelText(name));

test('without a task nothing was done', async () => {
  const { sent } = await renderPage(dialog(), PATH);
  expect(button('Save service').disabled).toBe(true);
  await enter('Save service');
  expect(sent).toEqual([]);
});

test('the hazard of what is ticked stands beside it, the same words once', async () => {
  await renderPage(dialog(), PATH);
  expect(screen.queryAllByText(caution)).toHaveLength(0);
  tick('Oil change');
  tick('Oil filter');
  expect(screen.queryAllByText(caution)).toHaveLength(1);
  expect(screen.getByText(/licensed trades come first/)).toBeTruthy();
  expect(button('Save 2 tasks').disabled).toBe(false);
});

test('dates of a vessel are recorded with the vessel', async () => {
  await renderPage(dialog(), PATH);
  expect(screen.queryByLabelText('R-1: pressure test')).toBeNull();
});

test('a test without its result is said to stay due', async () => {
  const { sent } = await renderPage(dialog(), PATH);
  tick('Belt check');
  expect(screen.getByText(/A test is done with its result/)).toBeTruthy();
  await enter('Save service');
  expect(sent).toMatchObject([{ body: { tasks: ['belt-check'] } }]);
});

test('a result of about that day is its result', async () => {
  const measured = { id: 'm', check: 'belt-deflection', takenAt: daysAgo(1), judgement: {}, values: {} };
  await renderPage(dialog({ measurements: [measured] }), PATH);
  tick('Belt check');
  expect(screen.queryByText(/A test is done with its result/)).toBeNull();
});

test.each([
  ['1100', /less than the 1,190 h/],
  ['1500', /No machine runs more than 24 h a day/],
  ['a lot', /./],
])('a meter at %s is refused where it stands', async (typed, said) => {
  const { sent } = await renderPage(dialog(), PATH);
  tick('Oil change');
  await fill('Figure on the meter', typed);
  expect(problems().join()).toMatch(said);
  expect(button('Save service').disabled).toBe(true);
  await enter('Save service');
  expect(sent).toEqual([]);
});

test.each([
  ['', 'Say when it was done.'],
  ['2027-03-01T08:00', 'has not come yet'],
])('done “%s” is refused', async (typed, said) => {
  const { sent } = await renderPage(dialog(), PATH);
  tick('Oil change');
  await fill('Done at', typed);
  expect(problems().join()).toContain(said);
  await enter('Save service');
  expect(sent).toEqual([]);
});
