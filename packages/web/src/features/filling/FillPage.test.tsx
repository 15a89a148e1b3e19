import type { FillingView } from '@entretien/contracts';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { idOf } from '../../testing/facts.js';
import { button, fill, press, renderPage } from '../../testing/render-page.js';
import { FillPage } from './FillPage.js';

const [SET, R7, OLD, NITROX] = [idOf(1), idOf(2), idOf(3), idOf(4)];
const cylinder = {
  siteName: 'Skarn Pass',
  ratedBar: 300,
  volumeL: 6.8,
  connectorBar: 300,
  testedUntil: '2029-03-01',
  hasFailed: false,
  lastFilledAt: null,
};
const filling = {
  compressorId: SET,
  timeZone: 'Europe/Zurich',
  atmosphereBarAbs: 1.01325,
  set: {
    plate: { tag: 'SP-1', family: 'high-pressure', workingPressureBar: 330, fadLpm: 250 },
    stops: [],
    tasks: [],
  },
  cylinders: [
    { ...cylinder, id: R7, tag: 'R-07' },
    { ...cylinder, id: OLD, tag: 'R-99', testedUntil: '2026-11-01' },
    { ...cylinder, id: NITROX, tag: 'N-02', gas: 'nitrox' },
  ],
  filledToday: 0,
  latest: [],
  sinceReading: { count: 0, airL: 0, airSdL: 0, hours: 0, hoursSd: null },
  cartridge: null,
} as unknown as FillingView;
const saved = { id: idOf(9), tag: 'R-07', settledBar: 300, doubts: [], marks: [] };
const answers = (more: object = {}) => ({
  [`/compressors/${SET}/filling`]: { ...filling, ...more },
  [`/compressors/${SET}/fills`]: saved,
});
const open = (more: object = {}) =>
  renderPage(<FillPage />, answers(more), {
    path: '/units/:compressorId/fill',
    address: `/units/${SET}/fill`,
  });
const look = (name: RegExp) => fireEvent.click(screen.getByRole('checkbox', { name }));

beforeEach(() => localStorage.clear());

test('what must not be filled says so in the list, and does not begin', async () => {
  await open();
  expect(await screen.findByText(/Do not fill: Its test ran out on 1 Nov 2026/)).toBeTruthy();
  expect(screen.getByText(/Do not fill: It is not for air/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /^R-99/ }));
  await fill('It shows now', '96');
  await fill('The CO monitor shows, ppm', '1');
  await press('300 bar');
  for (const name of [/^Cylinder and valve/, /^Secured/, /^Pressure built/]) look(name);
  expect(button('Air flows').disabled).toBe(true);
  expect(screen.getByRole('alert').textContent).toContain('Its test ran out');
});

test('each look is asked, the connector has to fit, and the fill goes to the log with all of it', async () => {
  const { sent } = await open();
  fireEvent.click(await screen.findByRole('button', { name: /^R-07/ }));
  await fill('It shows now', '96');
  await fill('The CO monitor shows, ppm', '1');
  expect(button('Air flows').disabled).toBe(true);
  await press('200 bar');
  expect(screen.getByRole('alert').textContent).toContain('One does not belong on the other');
  await press('300 bar');
  for (const name of [/^Cylinder and valve/, /^Secured/]) look(name);
  expect(button('Air flows').disabled).toBe(true);
  look(/^Pressure built/);
  expect(screen.getByText(/About/).textContent).toMatch(/5 min.*44 bar a minute/);
  await press('Air flows');
  expect(screen.getByRole('img', { name: /^From 96 bar to 300 bar/ })).toBeTruthy();
  await press('Full: 300 bar');
  await fill('Its wall, if it was felt or measured', '48');
  await waitFor(() => expect(screen.getByText(/Settles at/).textContent).toMatch(/26\d bar/));
  await press('Save');
  expect(await screen.findByText(/R-07 is in the log/)).toBeTruthy();
  expect(sent).toMatchObject([
    {
      path: `/compressors/${SET}/fills`,
      body: { vesselId: R7, fromBar: 96, toBar: 300, connectorBar: 300, outcome: 'full', wallC: 48 },
    },
  ]);
  expect([...(sent[0]!.body as { looked: string[] }).looked].sort()).toEqual([
    'built-up',
    'connector',
    'secured',
    'valve',
  ]);
  expect(localStorage.getItem(`entretien-fill-${SET}`)).toBeNull();
});

test('past its stamp nothing is saved before air is let out; stopped, what it shows is asked', async () => {
  await open();
  fireEvent.click(await screen.findByRole('button', { name: /^R-07/ }));
  await fill('It shows now', '96');
  await fill('The CO monitor shows, ppm', '1');
  await press('300 bar');
  for (const name of [/^Cylinder and valve/, /^Secured/, /^Pressure built/]) look(name);
  await press('Air flows');
  await press('Stop the fill');
  expect(button('Save').disabled).toBe(true);
  await fill('It shows', '320');
  expect(screen.getByRole('alert').textContent).toContain('Let air out through the vent');
  expect(button('Save').disabled).toBe(true);
  await fill('It shows', '250');
  expect(button('Save').disabled).toBe(false);
});

test('a fill under way outlasts the page; a set that must not be used says so above the list', async () => {
  await open();
  fireEvent.click(await screen.findByRole('button', { name: /^R-07/ }));
  await fill('It shows now', '120');
  cleanup();
  const stops = [{ scope: 'breathing', place: null, why: 'CO 30 ppm.' }];
  await open({ set: { ...filling.set, stops } });
  expect(await screen.findByDisplayValue('120')).toBeTruthy();
  expect(screen.getByRole('alert').textContent).toContain('CO 30 ppm.');
  await press('Another cylinder');
  expect(screen.getByRole('alert').textContent).toContain('out of service');
});
