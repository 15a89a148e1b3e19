import type { HourPointView, HoursView } from '@entretien/contracts';
import { DAY_MS } from '@entretien/core/basics';
import { hoursSeries, useByWeek } from './hours-chart.js';

const START = Date.UTC(2026, 0, 5);
const point = (day: number, hours: number, more: Partial<HourPointView> = {}): HourPointView => ({
  at: new Date(START + day * DAY_MS).toISOString(),
  hours,
  source: 'typed',
  isEstimate: false,
  ...more,
});

function view(points: HourPointView[], more: Partial<HoursView> = {}): HoursView {
  return {
    compressorId: 'u',
    revision: 1,
    counts: 'total',
    points,
    loaded: [],
    loadedShare: null,
    isCut: false,
    ahead: [],
    ...more,
  };
}

describe('use by week', () => {
  test('is even between readings, and ends with the last point', () => {
    const weeks = useByWeek(view([point(0, 0), point(14, 70), point(21, 70)]), 52);
    expect(weeks.map(({ hours }) => hours)).toEqual([35, 35, 0]);
    expect(weeks[0]!.from).toBe(START);
  });

  test('says where it is reckoned, not read', () => {
    const points = [point(0, 0), point(7, 35), point(14, 70, { source: 'extrapolated', isEstimate: false })];
    expect(useByWeek(view(points), 52).map(({ isEstimate }) => isEstimate)).toEqual([false, true]);
    const estimated = [point(0, 0), point(7, 35, { source: 'estimated', isEstimate: true })];
    expect(useByWeek(view(estimated), 52)[0]!.isEstimate).toBe(true);
  });

  test('shows whole weeks only, and no more than asked for', () => {
    expect(useByWeek(view([point(0, 0), point(6, 30)]), 52)).toEqual([]);
    expect(useByWeek(view([point(0, 0), point(700, 700)]), 52)).toHaveLength(52);
    expect(useByWeek(view([point(0, 0)]), 52)).toEqual([]);
  });
});

test('the chart marks meter changes, dashes what is reckoned, and opens the cone', () => {
  const series = hoursSeries(
    view(
      [
        point(0, 100),
        point(5, 140, { source: 'meter-change' }),
        point(10, 180, { source: 'estimated', isEstimate: true }),
        point(12, 190, { source: 'extrapolated' }),
      ],
      { ahead: [{ at: point(12, 0).at, low: 185, likely: 190, high: 195 }] },
    ),
  );
  expect(series.meterChanges).toEqual([{ x: START + 5 * DAY_MS, y: 140 }]);
  expect(series.isEstimate).toEqual([false, false, true, true]);
  expect([series.low[0]!.y, series.likely[0]!.y, series.high[0]!.y]).toEqual([185, 190, 195]);
});
