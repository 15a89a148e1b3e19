import { fireEvent, screen, waitFor } from '@testing-library/react';
import { storedItems, dropItem } from '../../data/outbox/outbox-store.js';
import { useOutbox } from '../../data/outbox/outbox.js';
import { meterOf, siteMetersOf } from '../../testing/facts.js';
import { button, fill, NOW, press, problems, renderPage } from '../../testing/render-page.js';
import { MeterField } from './MeterField.js';
import { meterLog } from '../../components/meter/typed-figure.js';
import { useWalkStore } from './walk-store.js';

const meter = meterOf();
const site = siteMetersOf(meter);

beforeEach(async () => {
  useWalkStore.setState({ drafts: {}, saved: {} });
  for (const { id } of await storedItems()) await dropItem(id);
  useOutbox.setState({ items: [] });
});

async function field() {
  const saved: string[] = [];
  await renderPage(
    <MeterField
      meter={meter}
      site={site}
      log={meterLog(meter, [], NOW)}
      mends={null}
      onSaved={() => void saved.push('saved')}
      onGiveUp={null}
    />,
  );
  return saved;
}
const waiting = async () => (await storedItems()).map(({ body }) => body['hours']);

test('a figure as expected is saved at once, kept on the device', async () => {
  const saved = await field();
  await fill('Figure on CJ-1', '1198');
  expect(screen.getByText(/a day\.$/)).toBeTruthy();
  await press('Save');
  await waitFor(() => expect(saved).toEqual(['saved']));
  expect(await waiting()).toEqual([1198]);
});

test('enter saves as well as the thumb', async () => {
  const saved = await field();
  await fill('Figure on CJ-1', '1198');
  fireEvent.keyDown(screen.getByLabelText('Figure on CJ-1'), { key: 'Enter' });
  await waitFor(() => expect(saved).toEqual(['saved']));
});

test('an odd figure is asked about once, and taken when it was read right', async () => {
  const saved = await field();
  await fill('Figure on CJ-1', '1160');
  await press('Save');
  expect(problems().join()).toContain('Look again');
  expect(saved).toEqual([]);
  await press('Read right');
  await waitFor(() => expect(saved).toEqual(['saved']));
  expect(await waiting()).toEqual([1160]);
});

test.each(['', 'abc', '-1', '9999999', '5000'])('“%s” is not saved', async (typed) => {
  const saved = await field();
  await fill('Figure on CJ-1', typed);
  expect(button('Save').disabled).toBe(true);
  fireEvent.keyDown(screen.getByLabelText('Figure on CJ-1'), { key: 'Enter' });
  expect(saved).toEqual([]);
  expect(await waiting()).toEqual([]);
});

test('a lower figure asks why; a slip is taken back, a new meter is said when', async () => {
  await field();
  await fill('Figure on CJ-1', '12');
  expect(problems().join()).toContain('is less than');
  await press('A new meter was fitted');
  expect(screen.getByLabelText('Last figure of the old meter')).toBeTruthy();
  await press('No, I mistyped');
  expect(screen.queryByLabelText('Last figure of the old meter')).toBeNull();
  await press('A new meter was fitted');
  await waitFor(() => expect(button('Save').disabled).toBe(false));
});

test('what was typed outlives the page', async () => {
  await field();
  await fill('Figure on CJ-1', '119');
  expect(useWalkStore.getState().drafts['unit']).toBe('119');
});
