import type { PartView } from '@entretien/contracts';
import { screen } from '@testing-library/react';
import { button, enter, fill, problems, renderPage } from '../../testing/render-page.js';
import { MoveDialog } from './MoveDialog.js';

const part = { id: 'p', name: 'Oil filter', inVan: 3 } as unknown as PartView;
const dialog = <MoveDialog part={part} onClose={() => undefined} />;

test('the difference is put on record, and said before', async () => {
  const { sent } = await renderPage(dialog, { '/parts/p/moves': {} });
  expect(screen.getByText('Stock: 3')).toBeTruthy();
  await fill('In the van now', '5');
  expect(screen.getByText('2 more than the stock shows.')).toBeTruthy();
  await fill('In the van now', '1');
  expect(screen.getByText('2 fewer than the stock shows.')).toBeTruthy();
  await enter('Save the count');
  expect(sent).toMatchObject([{ path: '/parts/p/moves', body: { count: -2 } }]);
});

test.each(['3', '', 'some', '-1', '100001'])('“%s” is no count to note', async (typed) => {
  const { sent } = await renderPage(dialog, { '/parts/p/moves': {} });
  await fill('In the van now', typed);
  expect(button('Save the count').disabled).toBe(true);
  if (typed !== '' && typed !== '3') expect(problems()).toContain('A number from 0 to 100,000.');
  await enter('Save the count');
  expect(sent).toEqual([]);
});
