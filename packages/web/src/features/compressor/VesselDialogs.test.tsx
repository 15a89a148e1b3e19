import type { VesselView } from '@entretien/contracts';
import { fireEvent, screen } from '@testing-library/react';
import { idOf, unitOf } from '../../testing/facts.js';
import { button, enter, fill, problems, renderPage } from '../../testing/render-page.js';
import { AddVesselDialog, ExamineVesselDialog } from './VesselDialogs.js';

const unit = unitOf({ id: idOf(1), siteId: idOf(2) });
const add = <AddVesselDialog unit={unit} timeZone="Europe/Zurich" onClose={() => undefined} />;
const vessel = { id: 'v', tag: 'R-1', kind: 'receiver' } as unknown as VesselView;
const examine = (
  <ExamineVesselDialog
    vessel={vessel}
    examination="test"
    timeZone="Europe/Zurich"
    onClose={() => undefined}
  />
);

test('a vessel needs its tag alone; of what is not known nothing is sent', async () => {
  const { sent } = await renderPage(add, { '/vessels': {} });
  expect(button('Add the vessel').disabled).toBe(true);
  await fill('Tag *', 'R-1');
  await enter('Add the vessel');
  const [{ body }] = sent as unknown as [{ body: object }];
  expect(Object.keys(body).sort()).toEqual(['compressorIds', 'id', 'kind', 'siteId', 'tag']);
  expect(body).toMatchObject({ kind: 'receiver', siteId: unit.siteId, compressorIds: [unit.id] });
});

test.each(['0', '1.5', 'often', '-3', '999'])(
  '“%s” months between tests are refused beside the field',
  async (typed) => {
    const { sent } = await renderPage(add, { '/vessels': {} });
    await fill('Tag *', 'R-1');
    await fill('Months between pressure tests', typed);
    expect(problems()).toContain('A whole number of months, 1 to 600.');
    expect(button('Add the vessel').disabled).toBe(true);
    await enter('Add the vessel');
    expect(sent).toEqual([]);
  },
);

test.each([
  ['Rated for', '5000 bar'],
  ['Rated for', '20 °C'],
  ['Volume', '-1'],
])('%s %s is refused where it stands', async (label, typed) => {
  const { sent } = await renderPage(add, { '/vessels': {} });
  await fill('Tag *', 'R-1');
  await fill(label, typed);
  expect(problems().join()).not.toBe('');
  await enter('Add the vessel');
  expect(sent).toEqual([]);
});

test('a failed test warns at once, and is sent as failed', async () => {
  const { sent } = await renderPage(examine, { '/vessels/v/examinations': {} });
  expect(screen.queryByRole('note')).toBeNull();
  fireEvent.click(screen.getByLabelText('It failed'));
  expect(screen.getByRole('note').textContent).toContain('Out of use from now on');
  await enter('Record it');
  expect(sent).toMatchObject([{ body: { kind: 'test', doneOn: '2026-11-24', passed: false } }]);
});

test('without a day nothing is recorded', async () => {
  const { sent } = await renderPage(examine, { '/vessels/v/examinations': {} });
  await fill('Done on', '');
  expect(button('Record it').disabled).toBe(true);
  await enter('Record it');
  expect(sent).toEqual([]);
});
