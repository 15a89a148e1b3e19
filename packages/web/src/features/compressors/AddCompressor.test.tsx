import { waitFor } from '@testing-library/react';
import { site } from '../../testing/facts.js';
import { press, problems, renderPage } from '../../testing/render-page.js';
import { AddCompressor } from './AddCompressor.js';

test('the first step says what is missing, and goes no further', async () => {
  const { sent } = await renderPage(<AddCompressor />, { '/sites': { items: [site], nextCursor: null } });
  await press('Next');
  const text = () => problems().join(' ');
  await waitFor(() => expect(text()).toContain('Choose the site it stands at.'));
  expect(text()).toContain('Give it a tag of at most 24 characters.');
  expect(text()).toContain('Say the day it was commissioned.');
  expect(sent).toEqual([]);
});
