import { waitFor } from '@testing-library/react';
import { site } from '../../testing/facts.js';
import { press, problems, renderPage } from '../../testing/render-page.js';
import { AddUnit } from './AddUnit.js';

test('the first step says what is missing, and goes no further', async () => {
  const { sent } = await renderPage(<AddUnit />, { '/sites': { items: [site], nextCursor: null } });
  await press('Go on');
  const said = () => problems().join(' ');
  await waitFor(() => expect(said()).toContain('Choose the site it stands at.'));
  expect(said()).toContain('Give it a tag of at most 24 characters.');
  expect(said()).toContain('Say the day it was commissioned.');
  expect(sent).toEqual([]);
});
