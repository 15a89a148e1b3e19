import type { StopView } from '@entretien/contracts';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { idOf } from '../../testing/facts.js';
import { button, daysAgo, enter, fill, renderPage } from '../../testing/render-page.js';
import { BringBackDialog } from './BringBackDialog.js';

const stop = {
  id: idOf(1),
  compressorId: 'unit',
  tag: 'CJ-1',
  check: 'separator-drop',
  why: 'Oil in the air',
  since: daysAgo(5),
} as unknown as StopView;
const measured = (id: string, days: number, verdict: string, more: object = {}) => ({
  id,
  check: 'separator-drop',
  takenAt: daysAgo(days),
  judgement: { verdict },
  ...more,
});
const PATH = '/compressors/unit/return-to-service';
const known = (...items: object[]) => ({
  '/compressors/unit/measurements?limit=200': { items, nextCursor: null },
  [PATH]: {},
});
const dialog = <BringBackDialog stop={stop} timeZone="Europe/Zurich" onClose={() => undefined} />;
const options = () =>
  [...screen.getByLabelText('Shown by').querySelectorAll('option')].map((one) => one.value);

test('only what was measured better since then can show it', async () => {
  await renderPage(
    dialog,
    known(
      measured('good', 1, 'good'),
      measured('watch', 2, 'watch'),
      measured('act', 2, 'act'),
      measured('before', 9, 'good'),
      measured('void', 1, 'good', { voided: 'withdrawn' }),
    ),
  );
  await waitFor(() => expect(options()).toEqual(['', 'good', 'watch']));
});

test('it runs again by what shows it', async () => {
  const { sent } = await renderPage(dialog, known(measured(idOf(2), 1, 'good')));
  await waitFor(() => expect(options()).toHaveLength(2));
  expect(button('It runs again').disabled).toBe(true);
  fireEvent.change(screen.getByLabelText('Shown by'), { target: { value: idOf(2) } });
  expect(button('It runs again').disabled).toBe(false);
  await enter('It runs again');
  expect(sent).toMatchObject([{ path: PATH, body: { ends: idOf(1), shownBy: idOf(2) } }]);
});

test('or by somebody who decides, and says why; one without the other is nothing', async () => {
  const { sent } = await renderPage(dialog, known());
  await fill('Or who decides', 'Jon Velk');
  expect(button('It runs again').disabled).toBe(true);
  await fill('And why', '  ');
  expect(button('It runs again').disabled).toBe(true);
  await enter('It runs again');
  expect(sent).toEqual([]);
  await fill('And why', 'Element renewed, air dry');
  expect(button('It runs again').disabled).toBe(false);
});

test('that no reason ends some of them stands where the reason is written', async () => {
  await renderPage(dialog, known());
  expect(screen.getByText(/No reason ends a stop of a relief valve/)).toBeTruthy();
  expect(screen.getByText('Nothing better was measured since.')).toBeTruthy();
});
