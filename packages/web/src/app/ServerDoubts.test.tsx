import { screen } from '@testing-library/react';
import { renderPage } from '../testing/render-page.js';
import { ServerDoubts } from './ServerDoubts.js';

const health = { status: 'ok', database: 'answers', migrations: 'current' };

test('what the server doubts is said on the page', async () => {
  const sentence = 'The server’s clock says 2025-01-01 08:00 UTC. Is it wrong now, or was it then?';
  await renderPage(<ServerDoubts />, {
    '/health': { ...health, doubts: [{ code: 'clock-behind', sentence }] },
  });
  expect((await screen.findByRole('alert')).textContent).toBe(sentence);
});

test('with nothing to doubt, and with a server that does not answer, there is nothing to see', async () => {
  await renderPage(<ServerDoubts />, { '/health': { ...health, doubts: [] } });
  expect(screen.queryByRole('alert')).toBeNull();
});
