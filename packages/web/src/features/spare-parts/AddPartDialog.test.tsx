import { button, enter, fill, problems, renderPage } from '../../testing/render-page.js';
import { AddPartDialog } from './AddPartDialog.js';

test('a part whose figures are none is not added, and says where', async () => {
  const { sent } = await renderPage(<AddPartDialog onClose={() => undefined} />, {
    '/standings?limit=100': { items: [], nextCursor: null },
  });
  await fill('Name', 'Intake element, cheap');
  await fill('Number', 'HW-9999');
  await fill('Used for', 'intake element');
  expect(button('Add it').disabled).toBe(false);
  await fill('Rated flow, L/min', 'a lot');
  expect(problems()).toContain('A number above 0 and up to 1,000,000.');
  expect(button('Add it').disabled).toBe(true);
  await enter('Add it');
  expect(sent).toEqual([]);
  await fill('Rated flow, L/min', '900');
  expect(problems()).toEqual([]);
  expect(button('Add it').disabled).toBe(false);
});
