import { screen } from '@testing-library/react';
import { button, enter, fill, problems, renderPage } from '../../testing/render-page.js';
import { TakeOutDialog } from './TakeOutDialog.js';

const PATH = '/compressors/unit/out-of-service';
const dialog = (
  <TakeOutDialog compressorId="unit" tag="CJ-1" timeZone="Europe/Zurich" onClose={() => undefined} />
);

test('it says first who hangs on it, and wants to know why', async () => {
  const { sent } = await renderPage(dialog, { [PATH]: {} });
  expect(screen.getByRole('note').textContent).toContain('somebody who breathes from it');
  expect(button('Out of service').disabled).toBe(true);
  await fill('Why', '   ');
  expect(button('Out of service').disabled).toBe(true);
  await enter('Out of service');
  expect(sent).toEqual([]);
});

test('what is left empty is not sent; what is said is, without its blanks', async () => {
  const { sent } = await renderPage(dialog, { [PATH]: {} });
  await fill('Why', ' Weeps at a weld ');
  await fill('Told to', 'Shift leader Orvel');
  await enter('Out of service');
  const [{ path, body }] = sent as [{ path: string; body: object }];
  expect(path).toBe(PATH);
  expect(body).toMatchObject({
    since: '2026-11-24T09:00:00.000Z',
    scope: 'unit',
    ground: 'finding',
    why: 'Weeps at a weld',
    informed: 'Shift leader Orvel',
  });
  expect(body).not.toHaveProperty('place');
  expect(body).not.toHaveProperty('toShow');
});

test('more than the record has room for is refused before it is sent', async () => {
  const { sent } = await renderPage(dialog, { [PATH]: {} });
  await fill('Why', 'x'.repeat(501));
  await enter('Out of service');
  expect(sent).toEqual([]);
  expect(problems().join()).toMatch(/500/);
});
