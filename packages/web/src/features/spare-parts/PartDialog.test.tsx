import { button, enter, fill, press, problems, renderPage } from '../../testing/render-page.js';
import { PartDialog } from './PartDialog.js';

const filter = {
  id: 'p',
  number: 'F-1',
  name: 'Oil filter',
  class: 'element' as const,
  answers: 'oil filter',
  fits: [],
  figures: { micron: 10 },
  priceCents: 1250,
  inVan: 2,
  usedPastYear: 0,
};
const fleet = { '/standings?limit=100': { items: [], nextCursor: null } };

test('a part whose figures are none is not added, and says where', async () => {
  const { sent } = await renderPage(<PartDialog onClose={() => undefined} />, {
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

test('a part that is put right shows what is known, and sends what it is now', async () => {
  const { sent } = await renderPage(<PartDialog part={filter} onClose={() => undefined} />, {
    ...fleet,
    '/parts/p/changes': filter,
  });
  await fill('Name', 'Oil filter, long');
  await fill('Price, EUR', '');
  await enter('Save');
  expect(sent).toMatchObject([
    {
      path: '/parts/p/changes',
      body: { name: 'Oil filter, long', number: 'F-1', priceCents: null, figures: { micron: 10 } },
    },
  ]);
});

test('a part is taken out of the catalogue with one touch', async () => {
  const { sent } = await renderPage(<PartDialog part={filter} onClose={() => undefined} />, {
    ...fleet,
    '/parts/p/changes': filter,
  });
  await press('Take it out of the catalogue');
  expect(sent).toMatchObject([{ body: { isRetired: true } }]);
});
