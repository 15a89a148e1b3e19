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
  units: {},
  formats: 'day-month.point',
  holidays: [],
};
const health = {
  version: '0.5.0',
  freeBytes: 12_300_000_000,
  backups: { isOn: true, lastAt: '2026-11-24T03:00:00Z', problem: null },
  doubts: [],
};
const answers = { '/settings': { ...saved, logo: null }, '/health': health };

test('what is set is shown in whole units, and sent in hundredths', async () => {
  const { sent } = await renderPage(<Settings />, answers);
  await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('An hour of work').value).toBe('95.5'));
  await fill('Name of the workshop', 'Haldris Air');
  await fill('Tax, %', '8,1');
  await press('Save');
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]!.body).toEqual({ ...saved, workshopName: 'Haldris Air', taxPercent: 8.1 });
});

test('what is no figure is not sent; what lies beyond its bounds is said in the words of the contract', async () => {
  const { sent } = await renderPage(<Settings />, answers);
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

test('units, formats and closed days of the workshop are sent with the rest', async () => {
  const { sent } = await renderPage(<Settings />, answers);
  await screen.findByRole('group', { name: 'Pressure' });
  await press('psi');
  await press('°F');
  await press('1 234,5');
  await press('Add closed days');
  await fill('First day', '24.12.2026');
  await fill('Last day', '3.1.2027');
  await press('Save');
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]!.body).toMatchObject({
    units: { pressure: 'psi', temperature: '°F', 'temperature-rise': '°F rise' },
    formats: 'day-month.comma',
    holidays: ['2026-12-24/2027-01-03'],
  });
});

test('the last good backup, the room and the release are in sight; one is made by a press', async () => {
  const { sent } = await renderPage(<Settings />, { ...answers, '/backups': health.backups });
  expect(await screen.findByText(/24 Nov/)).toBeTruthy();
  expect(screen.getByText('12 GB')).toBeTruthy();
  await press('Back up now');
  expect(await screen.findByText('Made, opened, and found whole.')).toBeTruthy();
  expect(sent).toMatchObject([{ path: '/backups' }]);
});

test('a backup that failed says why', async () => {
  const backups = { isOn: true, lastAt: null, problem: 'There is no room for a backup.' };
  await renderPage(<Settings />, { ...answers, '/health': { ...health, backups } });
  expect(await screen.findByText('There is no room for a backup.')).toBeTruthy();
});
