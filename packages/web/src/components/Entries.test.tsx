import type { LogbookEntryView } from '@entretien/contracts';
import { fireEvent, screen } from '@testing-library/react';
import { renderPage } from '../testing/render-page.js';
import { Entries } from './Entries.js';

const entry = (id: string, at: string, more: object = {}) =>
  ({
    id,
    at,
    kind: 'reading',
    text: `Hours read: ${id}`,
    compressorId: 'unit',
    tag: 'CJ-1',
    timeZone: 'Europe/Zurich',
    by: 'mara',
    byName: 'Mara Vell',
    collection: 'readings',
    marks: [],
    ...more,
  }) as unknown as LogbookEntryView;

const items = [
  entry('100 h', '2026-11-24T22:30:00Z'),
  entry('90 h', '2026-11-24T23:30:00Z', { by: 'jon', byName: 'Jon Velk' }),
  entry('80 h', '2026-11-20T08:00:00Z', { note: 'Key at the gate', marks: ['same-figure'] }),
  entry('70 h', '2026-11-19T08:00:00Z', { voided: true, voidedHow: 'corrected' }),
];
const visible = (text: string) =>
  screen.getAllByText(text).filter((one) => getComputedStyle(one).visibility !== 'hidden');

test('days are those of the site, each said once', async () => {
  await renderPage(<Entries items={items} />);
  // Half past eleven in the evening by UTC is the next day in the valley.
  expect(visible('24 Nov 2026')).toHaveLength(1);
  expect(visible('25 Nov 2026')).toHaveLength(1);
  expect(screen.getByText('23:30')).toBeTruthy();
  expect(screen.getByText('00:30')).toBeTruthy();
});

test('what was unusual, and what was noted, stands under its line', async () => {
  await renderPage(<Entries items={items} />);
  expect(screen.getByText('Key at the gate')).toBeTruthy();
  expect(screen.getByText(/same figure/i)).toBeTruthy();
});

test('what stands no longer is struck through, and says why', async () => {
  await renderPage(<Entries items={items} />);
  expect(getComputedStyle(screen.getByText('Hours read: 70 h')).textDecoration).toContain('line-through');
  expect(screen.getByText('Corrected by a later record.')).toBeTruthy();
});

test('in the fleet the machine stands in each line, and leads to it', async () => {
  await renderPage(<Entries items={items} />);
  const links = screen.getAllByText('CJ-1');
  expect(links).toHaveLength(4);
  expect(links[0]!.getAttribute('href')).toBe('/units/unit');
});

test('of one machine it need not; who it was stands where it changes', async () => {
  await renderPage(<Entries items={items.slice(0, 2)} isOfOneCompressor />);
  expect(screen.queryByText('CJ-1')).toBeNull();
  expect(screen.getByText('Mara Vell')).toBeTruthy();
  expect(screen.getByText('Jon Velk')).toBeTruthy();
});

test('what can be taken back is offered, what was taken back is not', async () => {
  const asked: string[] = [];
  await renderPage(<Entries items={items} isOfOneCompressor onWithdraw={({ id }) => void asked.push(id)} />);
  expect(screen.queryByLabelText('Withdraw: Hours read: 70 h')).toBeNull();
  fireEvent.click(screen.getByLabelText('Withdraw: Hours read: 100 h'));
  expect(asked).toEqual(['100 h']);
});

test('what is of no machine has no link', async () => {
  await renderPage(
    <Entries items={[entry('x', '2026-11-24T08:00:00Z', { compressorId: null, tag: null })]} />,
  );
  expect(document.querySelector('a')).toBeNull();
});
