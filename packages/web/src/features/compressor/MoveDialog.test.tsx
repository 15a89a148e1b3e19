import { fireEvent, screen } from '@testing-library/react';
import { site, unitOf } from '../../testing/facts.js';
import { button, enter, fill, problems, renderPage } from '../../testing/render-page.js';
import { MoveDialog } from './MoveDialog.js';

const sites = {
  '/sites': { items: [site, { ...site, id: 'other', name: 'Odrin Glassworks' }], nextCursor: null },
  '/compressors/unit/plate': {},
};

function dialog(more: object = {}) {
  return <MoveDialog unit={unitOf(more)} timeZone="Europe/Zurich" onClose={() => undefined} />;
}

test('it goes nowhere while it stays where it is', async () => {
  const { sent } = await renderPage(dialog(), sites);
  expect(button('Move it').disabled).toBe(true);
  await enter('Move it');
  expect(sent).toEqual([]);
});

test('out of service since a day, which is that of the site', async () => {
  const { sent } = await renderPage(dialog(), sites);
  fireEvent.click(screen.getByLabelText('It goes out of service'));
  await fill('Since', '2026-11-20T00:30');
  await enter('Retire it');
  // Half past midnight in the valley is the day before by UTC.
  expect(sent).toMatchObject([{ body: { changedAt: '2026-11-19T23:30:00.000Z', retiredOn: '2026-11-20' } }]);
});

test.each([
  ['', 'Say since when.'],
  ['2027-01-01T08:00', 'has not come yet'],
])('since “%s” is refused where it stands', async (typed, said) => {
  const { sent } = await renderPage(dialog(), sites);
  fireEvent.click(screen.getByLabelText('It goes out of service'));
  await fill('Since', typed);
  expect(problems().join()).toContain(said);
  expect(button('Retire it').disabled).toBe(true);
  await enter('Retire it');
  expect(sent).toEqual([]);
});

test('what is out of service comes back, and can do nothing else', async () => {
  const { sent } = await renderPage(dialog({ retiredOn: '2026-10-01' }), sites);
  expect((screen.getByLabelText('It goes to another site') as HTMLInputElement).disabled).toBe(true);
  await enter('Bring it back');
  expect(sent).toMatchObject([{ body: { retiredOn: null } }]);
});
