import type { FollowUpView } from '@entretien/contracts';
import { screen, waitFor } from '@testing-library/react';
import { press, renderPage } from '../../testing/render-page.js';
import { FollowUpBanner } from './FollowUpBanner.js';

const joint: FollowUpView = {
  compressorId: 'unit',
  tag: 'KV-1',
  siteName: 'Coppel Joinery',
  timeZone: 'Europe/Zurich',
  kind: 'joint',
  what: ['Oil plug'],
  text: 'Oil plug: dry and tight?',
  since: '2026-11-18T09:00:00Z',
  dueFrom: '2026-11-21T09:00:00Z',
  hoursSince: null,
  state: 'due',
};
const belt: FollowUpView = { ...joint, kind: 'belt', text: 'New belt.', dueFrom: null, hoursSince: 31.4 };
const banner = (followUps: readonly FollowUpView[], more: object = {}) =>
  renderPage(<FollowUpBanner compressorId="unit" />, { '/follow-ups?compressorId=unit': followUps, ...more });

test('what was opened is asked for in words with its day, and answered by one press', async () => {
  const { sent } = await banner([joint], { '/compressors/unit/follow-ups': {} });
  const section = await screen.findByRole('region', { name: 'Look again' });
  expect(section.textContent).toContain('Oil plug: dry and tight?');
  expect(section.textContent).toContain('Opened 18 Nov');
  await press('Dry and tight');
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]).toMatchObject({
    path: '/compressors/unit/follow-ups',
    body: { of: 'joint', found: 'sound' },
  });
});

test('what is not tight is not tightened there and then: first the caution, then the way to the repair', async () => {
  const { sent } = await banner([joint], { '/compressors/unit/follow-ups': {} });
  await screen.findByRole('region', { name: 'Look again' });
  await press('Not tight');
  await waitFor(() => expect(sent).toHaveLength(1));
  expect((await screen.findByRole('status')).textContent).toMatch(/Nothing is tightened.*under pressure/);
  expect(screen.getByRole('link').getAttribute('href')).toBe('/units/unit?tab=repairs');
});

test('a new belt goes by its hours; what is late says so; what is to come is not asked for yet', async () => {
  await banner([
    { ...joint, state: 'coming' },
    { ...belt, state: 'late' },
  ]);
  const { textContent } = await screen.findByRole('region', { name: 'Look again' });
  expect(textContent).toContain('Fitted 18 Nov, 31 h of running since. It is late for that.');
  expect(textContent).not.toContain('Oil plug');
});

test('where nothing waits nothing stands', async () => {
  await banner([]);
  await waitFor(() => expect(document.body.textContent).toBe(''));
});

test('a refusal is said, and the question stays', async () => {
  await banner([joint]);
  await screen.findByRole('region', { name: 'Look again' });
  await press('Dry and tight');
  expect((await screen.findByRole('alert')).textContent).toContain('Nothing is known of it.');
  expect(screen.getByRole('button', { name: 'Dry and tight' })).toBeTruthy();
});
