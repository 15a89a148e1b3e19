import type { StepBody } from '@entretien/core/visit';
import { screen, waitFor } from '@testing-library/react';
import { meterOf, siteMetersOf } from '../../testing/facts.js';
import { button, fill, press, problems, renderPage } from '../../testing/render-page.js';
import { ReadMeter } from './ReadMeter.js';
import type { CompressorAtWork } from './use-visit.js';

const meter = meterOf({ expected: { low: 1190, likely: 1200, high: 1210 }, hoursPerDay: 8 });

async function field(
  answers: Readonly<Record<string, unknown>> = { '/sites/site/meters': siteMetersOf(meter) },
) {
  const told: StepBody[] = [];
  const atWork = {
    visit: { siteId: 'site', timeZone: 'Europe/Zurich' },
    view: { compressorId: 'unit' },
    record: (body: StepBody) => {
      told.push(body);
      return Promise.resolve();
    },
  } as unknown as CompressorAtWork;
  await renderPage(<ReadMeter atWork={atWork} />, answers);
  return told;
}
const NAME = 'Figure on the meter';

test('what it showed last and what is expected stand there before anything is typed', async () => {
  await field();
  await waitFor(() => expect(document.body.textContent).toContain('1,160'));
  expect(screen.getByText('1,190 to 1,210 h is expected.')).toBeTruthy();
});

test('a figure as expected is told at once, with what it says of the use', async () => {
  const told = await field();
  await screen.findByText(/is expected/);
  await fill(NAME, '1198');
  expect(screen.getByText('+38 h, 7.6 h a day.')).toBeTruthy();
  await press('Save');
  expect(told).toEqual([{ kind: 'hours', hours: 1198 }]);
});

test('an odd figure is asked about, and told when it is said to be right', async () => {
  const told = await field();
  await screen.findByText(/is expected/);
  await fill(NAME, '1160');
  await press('Save');
  expect(told).toEqual([]);
  expect(screen.getByRole('alert').textContent).toMatch(/^Look again/);
  await press('Read right');
  expect(told).toEqual([{ kind: 'hours', hours: 1160 }]);
});

test('a figure below the last is not told; where a changed meter is said stands beside it', async () => {
  const told = await field();
  await screen.findByText(/is expected/);
  await fill(NAME, '40');
  expect(problems().join()).toMatch(/1,160 h/);
  expect(button('Save').disabled).toBe(true);
  expect(screen.getByText('Say so on its page').getAttribute('href')).toBe('/units/unit?do=read');
  expect(told).toEqual([]);
});

test('where nothing is known of the meter on this device, the figure is taken as it is', async () => {
  const told = await field({});
  await fill(NAME, '40');
  await press('Save');
  expect(told).toEqual([{ kind: 'hours', hours: 40 }]);
});
