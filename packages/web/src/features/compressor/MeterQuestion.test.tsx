import type { StandingView } from '@entretien/contracts';
import { screen, waitFor } from '@testing-library/react';
import { press, renderPage } from '../../testing/render-page.js';
import { MeterQuestion } from './MeterQuestion.js';

const asking = (meterQuestion: number | null) =>
  ({ compressorId: 'unit', meterQuestion }) as unknown as StandingView;

test('it is asked with the figure, and the answer goes onto the plate', async () => {
  const { sent } = await renderPage(<MeterQuestion standing={asking(7412)} />, {
    '/compressors/unit/plate': {},
  });
  expect(document.body.textContent).toContain(
    'Has it run these 7,412 h since new, or was this meter fitted later?',
  );
  await press('Meter fitted later');
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]).toMatchObject({ path: '/compressors/unit/plate', body: { meterFrom: 'later' } });
});

test('a refusal is said, and the question stays', async () => {
  await renderPage(<MeterQuestion standing={asking(7412)} />);
  await press('Since new');
  expect((await screen.findAllByRole('alert')).map(({ textContent }) => textContent).join(' ')).toContain(
    'Nothing is known of it.',
  );
});

test('with nothing to ask there is nothing to see', async () => {
  await renderPage(<MeterQuestion standing={asking(null)} />);
  expect(document.body.textContent).toBe('');
});
