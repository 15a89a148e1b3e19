import type { DeviceView } from '@entretien/contracts';
import { fireEvent, screen, within } from '@testing-library/react';
import { renderPage } from '../../../testing/render-page.js';
import { answeringText } from '../../../components/answering-text.js';
import { DevicesPanel } from './DevicesPanel.js';

const device = (more: Partial<DeviceView>): DeviceView => ({
  id: 'd',
  compressorId: 'c',
  tag: 'X-1',
  siteName: 'Dairy',
  timeZone: 'Europe/Zurich',
  name: 'Controller',
  host: '127.0.0.1',
  port: 502,
  unitNumber: 1,
  everySeconds: 60,
  registers: '',
  isOn: true,
  state: 'answers',
  answeredAt: '2026-11-24T08:00:00Z',
  problem: null,
  figures: [],
  refused: [],
  ...more,
});

test.each([
  [{}, 'Answers, last 24 Nov 2026, 09:00'],
  [{ state: 'silent' }, 'No answer since 24 Nov 2026, 09:00'],
  [{ state: 'silent', answeredAt: null }, 'No answer yet'],
  [{ state: 'waiting', answeredAt: null }, 'Asked for the first time'],
  [{ state: 'not-allowed' }, 'Not asked'],
  [{ state: 'off' }, 'Off: not asked'],
] as const)('%j: %s', (more, text) => {
  expect(answeringText(device(more))).toBe(text);
});

const shown = (view: object) =>
  renderPage(<DevicesPanel compressorId="c" />, {
    '/compressors/c/devices': view,
    '/device-refusals/r/seen': {},
  });

test('what was refused stands with its reason and how often, until it was seen', async () => {
  const refused = {
    id: 'r',
    what: 'hours-total',
    sentence: '400 h is less than the 1,000 h before.',
    firstAt: '2026-11-24T06:00:00Z',
    lastAt: '2026-11-24T08:00:00Z',
    times: 12,
  };
  const { sent } = await shown({
    isOn: true,
    items: [device({ refused: [refused], figures: [{ name: 'Run hours', text: '400.0 h' }] })],
  });
  const tray = await screen.findByRole('region', { name: 'Not put on record' });
  expect(tray.textContent).toContain('400 h is less than the 1,000 h before.');
  expect(tray.textContent).toContain('12 times, from 24 Nov 2026, 07:00 to 24 Nov 2026, 09:00');
  fireEvent.click(within(tray).getByRole('button', { name: 'Seen' }));
  await screen.findByRole('region', { name: 'Not put on record' });
  expect(sent.map(({ path }) => path)).toEqual(['/device-refusals/r/seen']);
});

test('where nothing is asked and nothing is set, nothing stands', async () => {
  await shown({ isOn: false, items: [] });
  await new Promise((done) => setTimeout(done, 50));
  expect(screen.queryByRole('region', { name: 'Reads itself' })).toBeNull();
});

test('a device is not sent before its address is one; what was typed stays', async () => {
  const { sent } = await shown({ isOn: true, items: [] });
  fireEvent.click(await screen.findByRole('button', { name: 'Add a device' }));
  const address = await screen.findByLabelText(/^Address/);
  const save = screen.getByRole('button', { name: 'Save' });
  for (const text of ['', 'controller.local', '300.1.1.1', '1.2.3']) {
    fireEvent.change(address, { target: { value: text } });
    expect(save.hasAttribute('disabled')).toBe(true);
  }
  fireEvent.change(address, { target: { value: '192.0.2.7' } });
  fireEvent.change(screen.getByLabelText('Port'), { target: { value: 'x' } });
  fireEvent.click(save);
  expect((await screen.findByRole('alert')).textContent).toMatch(/port is a whole number/i);
  expect((address as HTMLInputElement).value).toBe('192.0.2.7');
  expect(sent).toEqual([]);
});
