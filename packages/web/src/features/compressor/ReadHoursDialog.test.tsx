import { waitFor } from '@testing-library/react';
import type { ReadingView, StandingView } from '@entretien/contracts';
import { factsOf } from '../../testing/facts.js';
import {
  button,
  daysAgo,
  enter,
  field,
  fill,
  press,
  problems,
  renderPage,
} from '../../testing/render-page.js';
import { ReadHoursDialog } from './ReadHoursDialog.js';

function reading(days: number, hours: number): ReadingView {
  const taken = {
    takenAt: daysAgo(days),
    recordedAt: daysAgo(days),
    hours,
    counts: 'total',
    source: 'typed',
  };
  return { id: `r-${days}`, by: 'p', marks: [], compressorId: 'u', ...taken } as unknown as ReadingView;
}

function openDialog() {
  const facts = factsOf({ readings: [reading(10, 180), reading(20, 100)] });
  const standing = { runHours: 180, hoursPerDay: 8, lastReadingAt: daysAgo(10) } as unknown as StandingView;
  return renderPage(
    <ReadHoursDialog
      compressorId="u"
      tag="BAD-1"
      facts={facts}
      standing={standing}
      timeZone="Europe/Zurich"
      onClose={() => undefined}
    />,
  );
}

const FIGURE = 'Figure on the meter';
const SAVE = 'Save reading';

test('a reading that cannot be is refused beside the field, and nothing typed is lost', async () => {
  const { sent } = await openDialog();
  await fill('Note', 'Display hard to read.');
  for (const [typed, text] of [
    ['179', /179 h is less than the 180 h on .* Is it a slip/],
    ['900', /is 720 h of running in 240 h\. No machine runs more than 24 h a day\./],
    ['twelve', /“twelve” is not a figure/],
    ['1e308', /is no unit of run hours/],
    ['NaN', /“NaN” is not a figure/],
    ['-5', /at least 0 h/],
    ['99999999', /at most 1,000,000 h/],
    ['9,412', /Is that 9412, or 9\.412\?/],
    ['200 bar', /“bar” is no unit of run hours\. Use h or min\./],
  ] as const) {
    await fill(FIGURE, typed);
    expect(document.body.textContent).toMatch(text);
    expect(button(SAVE).disabled).toBe(true);
    await enter(SAVE);
    expect(field(FIGURE).value).toBe(typed);
  }
  expect(field('Note').value).toBe('Display hard to read.');
  expect(sent).toEqual([]);
});

test('a moment that has not come yet is refused; put right, the reading goes with its note', async () => {
  const { sent } = await openDialog();
  await fill('Note', 'Display hard to read.');
  await fill(FIGURE, '200');
  await fill('Read at', '2026-11-27T08:30');
  expect(problems().join()).toMatch(/has not come yet/);
  expect(button(SAVE).disabled).toBe(true);
  await fill('Read at', '2026-11-24T08:30');
  expect(problems()).toEqual([]);
  await press(SAVE);
  const body = { hours: 200, takenAt: '2026-11-24T07:30:00.000Z', note: 'Display hard to read.' };
  await waitFor(() =>
    expect(sent).toEqual([
      { path: '/compressors/u/readings', body: expect.objectContaining(body) as unknown },
    ]),
  );
});
