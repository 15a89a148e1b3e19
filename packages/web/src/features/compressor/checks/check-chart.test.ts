import type { MeasurementView, ServiceView } from '@entretien/contracts';
import { checkByCode } from '@entretien/core/checks';
import { checkSeries, latestByCheck } from './check-chart.js';

const DAY = 86_400_000;
const START = Date.UTC(2026, 0, 1);
const check = checkByCode('separator-drop')!;
const withFigure = { ...check, figure: check.figure! };

function measured(day: number, drop: number, more: Partial<MeasurementView> = {}): MeasurementView {
  return {
    id: `m${day}`,
    compressorId: 'u',
    by: 'p',
    recordedAt: new Date(START + day * DAY).toISOString(),
    marks: [],
    check: 'separator-drop',
    takenAt: new Date(START + day * DAY).toISOString(),
    values: { dropBar: drop },
    baseline: false,
    judgement: {
      verdict: drop >= 0.7 ? 'watch' : 'good',
      reason: 'so much.',
      limit: { value: 0.7, text: '0.7 bar', origin: 'practice' },
      figure: { value: drop, uncertainty: 0.05 },
      figures: [],
      suggests: [],
    },
    runHours: day * 10,
    runHoursBasis: 'read',
    ...more,
  };
}

function served(day: number, tasks: readonly string[]): ServiceView {
  const doneAt = new Date(START + day * DAY).toISOString();
  return {
    id: `s${day}`,
    compressorId: 'u',
    by: 'p',
    recordedAt: doneAt,
    marks: [],
    doneAt,
    tasks,
    planVersion: 1,
    runHours: day * 10,
    runHoursBasis: 'read',
  } as ServiceView;
}

test('in order of time over the run hours, with the pair around the work and the trend after it', () => {
  const all = [measured(60, 0.3), measured(10, 0.8), measured(12, 0.2), measured(36, 0.25)];
  const series = checkSeries(withFigure, all, [
    served(11, ['separator-replace']),
    served(30, ['oil-change']),
  ]);
  expect(series.axis).toBe('hours');
  expect(series.points.map(({ x }) => x)).toEqual([100, 120, 360, 600]);
  expect(series.pairs.map(({ before, after }) => [before.value, after.value])).toEqual([[0.8, 0.2]]);
  expect(series.trend!.count).toBe(3);
  expect(series.limit).toBe(0.7);
});

test('what was withdrawn does not count; without run hours it is drawn over time, with no trend', () => {
  const voided = { at: '', how: 'withdrawn', byFact: 'w' } as const;
  const all = [measured(10, 0.3, { runHours: null }), measured(20, 5, { voided }), measured(30, 0.4)];
  const series = checkSeries(withFigure, all, []);
  expect(series.axis).toBe('time');
  expect(series.points.map(({ value }) => value)).toEqual([0.3, 0.4]);
  expect(series.trend).toBeNull();
});

test('nothing measured is an empty picture', () => {
  expect(checkSeries(withFigure, [], [])).toMatchObject({ points: [], limit: null, pairs: [], trend: null });
});

test('the latest that stands is the one that counts for its check', () => {
  const voided = { at: '', how: 'corrected', byFact: 'w' } as const;
  const latest = latestByCheck([measured(30, 0.9, { voided }), measured(20, 0.5), measured(10, 0.4)]);
  expect(latest.get('separator-drop')!.values).toEqual({ dropBar: 0.5 });
  expect(latest.size).toBe(1);
});
