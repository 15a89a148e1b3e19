import { screen } from '@testing-library/react';
import { idOf, unitOf } from '../../testing/facts.js';
import { button, daysAgo, enter, fill, press, problems, renderPage } from '../../testing/render-page.js';
import { RepairsPanel } from './RepairsPanel.js';

const PATH = '/compressors/unit/repairs';
const repair = (id: number, more: object = {}) => ({
  id: idOf(id),
  compressorId: 'unit',
  kind: 'fault',
  foundAt: daysAgo(3),
  found: `Fault ${id}`,
  state: 'open',
  isOpen: true,
  waitsFor: null,
  cause: null,
  minutes: 0,
  entries: [],
  ...more,
});
const panel = <RepairsPanel unit={unitOf({})} timeZone="Europe/Zurich" />;
const known = (...items: object[]) => ({ [PATH]: { items, nextCursor: null } });

test('with nothing on record it says so', async () => {
  await renderPage(panel, known());
  expect(await screen.findByText(/No fault, no modification/)).toBeTruthy();
});

test('each leads to its page, and says how it stands', async () => {
  await renderPage(
    panel,
    known(repair(1), repair(2, { kind: 'modification', found: 'Longer hose', isOpen: false })),
  );
  expect((await screen.findByText('Fault 1')).getAttribute('href')).toBe(`/repairs/${idOf(1)}`);
  expect(screen.getByText('modification')).toBeTruthy();
});

test('a fault wants to be said what it is, and when it was found', async () => {
  const { sent } = await renderPage(panel, known());
  await screen.findByText(/No fault/);
  await press('Record a fault or a change');
  expect(button('Open a repair').disabled).toBe(true);
  await fill('What is wrong', 'It knocks');
  await fill('On', '');
  expect(problems()).toContain('Say when.');
  expect(button('Open a repair').disabled).toBe(true);
  await enter('Open a repair');
  expect(sent).toEqual([]);
  await fill('On', '2026-11-20T10:00');
  await enter('Open a repair');
  expect(sent).toMatchObject([
    { path: PATH, body: { kind: 'fault', found: 'It knocks', foundAt: '2026-11-20T09:00:00.000Z' } },
  ]);
});

test('more than it has room for is refused beside the field', async () => {
  const { sent } = await renderPage(panel, known());
  await screen.findByText(/No fault/);
  await press('Record a fault or a change');
  await fill('What is wrong', 'x'.repeat(501));
  await enter('Open a repair');
  expect(problems().join()).toMatch(/500/);
  expect(sent).toEqual([]);
});
