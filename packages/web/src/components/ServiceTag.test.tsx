import { screen } from '@testing-library/react';
import { NOW, renderPage } from '../testing/render-page.js';
import { standingOf, taskOf } from '../testing/standings.js';
import { ServiceTag } from './ServiceTag.js';

const task = (code: string, likelyOn: string | null, more: object = {}) =>
  taskOf(code, { name: code, likelyOn, ...more });

function tag(tasks: Parameters<typeof standingOf>[0], hours: string | null = '1,200 h') {
  return (
    <ServiceTag
      compressorId="unit"
      tag="CJ-1"
      description="screw · Coppel Joinery"
      standing={standingOf(tasks)}
      doneBy="Mara Vell"
      doneAt={NOW}
      hours={hours}
      timeZone="Europe/Zurich"
    />
  );
}
const text = () => screen.getByLabelText('Service tag').textContent!;

test('it says which machine, what was done when, at which hours, and by whom', async () => {
  await renderPage(tag([]));
  expect(text()).toContain('CJ-1');
  expect(text()).toContain('24 Nov 2026');
  expect(text()).toContain('1,200 h');
  expect(text()).toContain('Mara Vell');
});

test('the next four come in the order of their dates; what a bigger one covers is not among them', async () => {
  await renderPage(
    tag([
      task('Fifth', '2027-05-01'),
      task('First', '2027-01-01'),
      task('Covered', '2026-12-01', { coveredBy: 'First' }),
      task('Undated', null),
      task('Fourth', '2027-04-01'),
      task('Second', '2027-02-01'),
      task('Third', '2027-03-01'),
    ]),
  );
  const order = ['First', 'Second', 'Third', 'Fourth'].map((name) => text().indexOf(name));
  expect(order.every((place) => place >= 0)).toBe(true);
  expect([...order].sort((a, b) => a - b)).toEqual(order);
  for (const name of ['Fifth', 'Covered', 'Undated']) expect(text()).not.toContain(name);
});

test('hours that nobody knows are left out', async () => {
  await renderPage(tag([], null));
  expect(text()).not.toMatch(/\d h\b/);
});
