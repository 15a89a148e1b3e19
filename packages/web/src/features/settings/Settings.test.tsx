import { screen, waitFor } from '@testing-library/react';
import { button, fill, press, problems, renderPage } from '../../testing/render-page.js';
import { Settings } from './Settings.js';

const saved = {
  isolationMinutes: 20,
  isolationMinutesHighPressure: 10,
  workshopName: null,
  currency: 'EUR',
  taxPercent: 0,
  labourCentsPerHour: 9550,
};

test('what is set is shown in whole units, and sent in hundredths', async () => {
  const { sent } = await renderPage(<Settings />, { '/settings': saved });
  await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('An hour of work').value).toBe('95.5'));
  await fill('Name of the workshop', 'Haldris Air');
  await fill('Tax, %', '8,1');
  await press('Save');
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]!.body).toEqual({ ...saved, workshopName: 'Haldris Air', taxPercent: 8.1 });
});

test('what is no figure is not sent; what lies beyond its bounds is said in the words of the contract', async () => {
  const { sent } = await renderPage(<Settings />, { '/settings': saved });
  await waitFor(() => expect(screen.getByLabelText('Tax, %')).toBeTruthy());
  await fill('Tax, %', 'a tenth');
  expect(button('Save').disabled).toBe(true);
  await fill('Tax, %', '51');
  await fill('Currency', 'X');
  await press('Save');
  await waitFor(() => expect(problems().join()).toMatch(/0 to 50/));
  expect(problems().join()).toMatch(/three letters/);
  expect(sent).toEqual([]);
});
