import type { MeterView } from '@entretien/contracts';
import { DAY_MS } from '@entretien/core/basics';
import type { OutboxItem } from '../../data/outbox/outbox-item.js';
import { expectedNow, isRead, judgeTyped, lastReading, meterLog } from './typed-figure.js';

const NOW = Date.UTC(2026, 10, 24, 9);
const iso = (ago: number) => new Date(NOW - ago * DAY_MS).toISOString();

function meter(figures: [number, number][], more: Partial<MeterView> = {}): MeterView {
  return {
    compressorId: 'u',
    tag: 'HC-1',
    description: 'screw',
    hasHourMeter: true,
    hoursPerDay: 5,
    readings: figures.map(([ago, hours]) => ({
      takenAt: iso(ago),
      hours,
      counts: 'total',
      source: 'typed',
      recordedAt: iso(ago),
    })),
    meterChanges: [],
    expected: { low: 140, likely: 150, high: 160 },
    ...more,
  };
}

function queued(
  id: string,
  kind: OutboxItem['kind'],
  body: object,
  more: Partial<OutboxItem> = {},
): OutboxItem {
  return {
    id,
    kind,
    compressorId: 'u',
    tag: 'HC-1',
    siteId: 's',
    timeZone: 'UTC',
    personId: null,
    body: { id, ...body },
    queuedAt: NOW,
    problem: null,
    ...more,
  };
}

const reading = (id: string, ago: number, hours: number, more: object = {}) =>
  queued(id, 'reading', { takenAt: iso(ago), hours, counts: 'total', source: 'typed', ...more });

describe('what is known of a meter on the device', () => {
  const known = meter([
    [10, 100],
    [20, 50],
  ]);

  test('is what the server said and what has not reached it yet', () => {
    const log = meterLog(known, [reading('a', 0.1, 150)], NOW);
    expect(lastReading(log)).toMatchObject({ hours: 150 });
    expect(isRead(lastReading(log), NOW)).toBe(true);
    expect(isRead(lastReading(meterLog(known, [], NOW)), NOW)).toBe(false);
  });

  test('not what was refused, what another put right, or what belongs to another unit', () => {
    const slip = reading('a', 0.1, 510);
    const right = reading('b', 0.1, 150, { corrects: 'a' });
    const refused = { ...reading('c', 0.05, 90), problem: { type: '', title: 'No', status: 422, code: 'x' } };
    const other = { ...reading('d', 0.01, 9999), compressorId: 'v' };
    const log = meterLog(known, [slip, right, refused, other], NOW);
    expect(log.readings.map(({ hours }) => hours)).toEqual([100, 50, 150]);
  });

  test('a new meter that waits to be sent explains a lower figure', () => {
    const change = { changedAt: iso(5), oldFinalHours: 125, newStartHours: 0, reason: 'replaced' };
    expect(judgeTyped(meterLog(known, [], NOW), 25, NOW, 'UTC').problem?.code).toBe('goes-backwards');
    const log = meterLog(known, [queued('m', 'meter-change', change)], NOW);
    expect(judgeTyped(log, 25, NOW, 'UTC').problem).toBeNull();
  });
});

describe('a figure as it is typed', () => {
  const weekly = meter([42, 35, 28, 21, 14, 7].map((ago): [number, number] => [ago, (42 - ago) * 5]));
  const judge = (hours: number) => judgeTyped(meterLog(weekly, [], NOW), hours, NOW, 'UTC');

  test('says what was gained', () => {
    expect(judge(210)).toMatchObject({ problem: null, marks: [], gained: 35, perDay: expect.closeTo(5, 9) });
  });

  test('is asked about when it is far from habit, refused when it cannot be', () => {
    expect(judge(330).marks).toEqual(['far-from-habit']);
    expect(judge(1210)).toMatchObject({
      problem: { code: 'faster-than-the-clock' },
      gained: null,
      marks: [],
    });
  });
});

test('what a meter should show goes on with the time since the server said so', () => {
  const answeredAt = NOW - 2 * DAY_MS;
  expect(expectedNow(meter([]), answeredAt, NOW)).toEqual({ low: 150, likely: 160, high: 170 });
  expect(expectedNow(meter([], { expected: null }), answeredAt, NOW)).toBeNull();
});
