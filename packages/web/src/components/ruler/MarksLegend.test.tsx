import { fireEvent, screen, waitFor } from '@testing-library/react';
import { press, renderPage } from '../../testing/render-page.js';
import { MarksLegend } from './MarksLegend.js';

test('one sheet says every state of a task and every verdict, and goes away again', async () => {
  await renderPage(<MarksLegend />);
  fireEvent.click(screen.getByRole('button', { name: 'What the marks mean' }));
  const sheet = await screen.findByRole('dialog', { name: 'What the marks mean' });
  for (const name of ['OK', 'nearing', 'due', 'late', 'put off', 'not known', 'act now', 'stop: do not run'])
    expect(sheet.textContent).toContain(name);
  await press('Close');
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
});
