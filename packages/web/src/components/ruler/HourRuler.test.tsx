import { fireEvent, screen } from '@testing-library/react';
import { press, renderPage } from '../../testing/render-page.js';
import { standingOf, taskOf } from '../../testing/standings.js';
import { HourRuler } from './HourRuler.js';

const due = taskOf('oil-change', {
  name: 'Oil change',
  state: 'overdue',
  usedFraction: 1.1,
  dueAtHours: 1150,
  remainingHours: -50,
  likelyAt: Date.UTC(2026, 10, 20),
  likelyOn: '2026-11-20',
});
const coming = taskOf('belt-check', {
  name: 'Belt check',
  dueAtHours: 1500,
  remainingHours: 300,
  likelyAt: Date.UTC(2027, 0, 10),
  likelyOn: '2027-01-10',
});
const undated = taskOf('valves', { name: 'Valves' });

function ruler(tasks: Parameters<typeof standingOf>[0], mode: 'hours' | 'days', more: object = {}) {
  return (
    <HourRuler
      standing={standingOf(tasks, more)}
      services={[]}
      taskNames={new Map()}
      mode={mode}
      timeZone="Europe/Zurich"
      onChoose={() => undefined}
    />
  );
}
const group = () => screen.getByRole('group');

test.each([
  ['hours', 'run hours'],
  ['days', 'days'],
] as const)('in %s it is named so, with what presses first', async (mode, text) => {
  await renderPage(ruler([due, coming], mode));
  expect(group().getAttribute('aria-label')).toMatch(new RegExp(`^Ruler in ${text}\\. `));
  expect(group().getAttribute('aria-label')).toContain('Oil change');
});

test('what has no place on it is counted, and said why', async () => {
  await renderPage(ruler([due, undated], 'hours'));
  expect(screen.getByText('1 task has no place in hours; turn the ruler to days.')).toBeTruthy();
});

test('a machine that stands has tasks without a date', async () => {
  await renderPage(ruler([undated, taskOf('more')], 'days', { hoursPerDay: 0 }));
  expect(screen.getByText('2 tasks have no date.')).toBeTruthy();
});

test('where nothing is known it says how to begin', async () => {
  await renderPage(ruler([taskOf('a', { state: 'unknown' }), taskOf('b', { state: 'unknown' })], 'hours'));
  expect(screen.getByText(/inspect the machine and record what was done/)).toBeTruthy();
});

test('zoomed, it offers the way back to now, and takes it', async () => {
  await renderPage(ruler([due, coming], 'hours'));
  expect(screen.queryByText('Back to now')).toBeNull();
  fireEvent.click(screen.getByLabelText('Zoom in'));
  await press('Back to now');
  expect(screen.queryByText('Back to now')).toBeNull();
});

test('it can be reached by keys', async () => {
  await renderPage(ruler([due], 'hours'));
  expect(group().getAttribute('tabindex')).toBe('0');
});
