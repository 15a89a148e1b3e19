import { act, screen } from '@testing-library/react';
import { useOutbox } from '../data/outbox/outbox.js';
import { renderPage } from '../testing/render-page.js';
import { HeldHere } from './HeldHere.js';

test('nothing held, nothing said; one entry, then two, are said to be in this page only', async () => {
  await renderPage(<HeldHere />);
  expect(screen.queryByRole('alert')).toBeNull();
  act(() => useOutbox.setState({ held: 1 }));
  expect(screen.getByRole('alert').textContent).toMatch(/1 entry is in this page only\. Keep it open/);
  act(() => useOutbox.setState({ held: 2 }));
  expect(screen.getByRole('alert').textContent).toMatch(/2 entries are in this page only/);
});
