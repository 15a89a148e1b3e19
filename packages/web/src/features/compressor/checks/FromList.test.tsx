import { checkByCode } from '@entretien/core/checks';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { renderPage } from '../../../testing/render-page.js';
import type { CheckTexts } from '../../../components/checks/check-entries.js';
import { FromList } from './FromList.js';

const shown = async () => {
  const told: CheckTexts[] = [];
  await renderPage(<FromList check={checkByCode('oil-sample')!} onTexts={(texts) => told.push(texts)} />);
  return told;
};
const choose = (text: string, size?: number) => {
  const file = new File([text], 'sample.csv', { type: 'text/csv' });
  // The page’s stand-in for a browser knows files, but not how to read them.
  Object.assign(file, { text: () => Promise.resolve(text) });
  if (size !== undefined) Object.defineProperty(file, 'size', { value: size });
  fireEvent.change(screen.getByLabelText('The laboratory’s list'), { target: { files: [file] } });
};

test('figures of a list come into the fields, and what is not asked for is named', async () => {
  const told = await shown();
  choose('Iron (Fe);12;ppm\nWater;0,03 %;\nZinc;210;ppm\n');
  expect((await screen.findByRole('status')).textContent).toBe(
    '2 figures read: compare them with the paper. Not asked for here: Zinc.',
  );
  expect(told).toEqual([{ waterPpm: '300', ironPpm: '12' }]);
});

test('what is not sure is asked back, and nothing comes into the fields', async () => {
  const told = await shown();
  choose('Water;300\n');
  expect((await screen.findByRole('alert')).textContent).toMatch(/without its unit: ppm or/);
  choose('Iron;12;ppm\n');
  await waitFor(() => expect(told).toEqual([{ ironPpm: '12' }]));
});

test('a file that is no list, or far too large for one, is refused', async () => {
  const told = await shown();
  choose('%PDF-1.7');
  expect((await screen.findByRole('alert')).textContent).toMatch(/Nothing in that list is known here/);
  choose('Iron;12;ppm', 2_000_000_000);
  await waitFor(() => expect(screen.getByRole('alert').textContent).toMatch(/larger than 1 MB/));
  expect(told).toEqual([]);
});
