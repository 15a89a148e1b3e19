import type { HourPointView, HoursView } from '@entretien/contracts';
import { DAY_MS } from '@entretien/core/basics';

/** A point of a chart: a moment in ms, and hours. */
export interface ChartPoint {
  readonly x: number;
  readonly y: number;
}

/** The run hours as a chart draws them. */
export interface HoursSeries {
  readonly hours: readonly ChartPoint[];
  /** For each point, whether the line that leads to it is an estimate. */
  readonly isEstimate: readonly boolean[];
  readonly meterChanges: readonly ChartPoint[];
  readonly loaded: readonly ChartPoint[];
  readonly likely: readonly ChartPoint[];
  readonly low: readonly ChartPoint[];
  readonly high: readonly ChartPoint[];
  /** An upright where the use changed: from the first figure shown up to the line. */
  readonly change: readonly ChartPoint[];
}

const toPoint = ({ at, hours }: HourPointView): ChartPoint => ({ x: Date.parse(at), y: hours });

export function hoursSeries({ points, loaded, ahead }: HoursView, changedAt?: string): HoursSeries {
  const cone = (which: 'low' | 'likely' | 'high') =>
    ahead.map((one): ChartPoint => ({ x: Date.parse(one.at), y: one[which] }));
  return {
    hours: points.map(toPoint),
    isEstimate: points.map(({ isEstimate, source }) => isEstimate || source === 'extrapolated'),
    meterChanges: points.filter(({ source }) => source === 'meter-change').map(toPoint),
    loaded: loaded.map(toPoint),
    likely: cone('likely'),
    low: cone('low'),
    high: cone('high'),
    change: changedAt === undefined ? [] : upright(points, Date.parse(changedAt)),
  };
}

function upright(points: readonly HourPointView[], at: number): ChartPoint[] {
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last || at < Date.parse(first.at) || at > Date.parse(last.at)) return [];
  return [
    { x: at, y: first.hours },
    { x: at, y: hoursAtPoint(points, at) },
  ];
}

/** How many hours a machine ran in a week, from the moment the week begins. */
export interface WeekOfUse {
  readonly from: number;
  readonly hours: number;
  /** Whether the week lies beyond the last reading, or rests on an estimate. */
  readonly isEstimate: boolean;
}

const WEEK_MS = 7 * DAY_MS;

/** Use by week up to the last point, whole weeks only, the latest last; between readings it is even. */
export function useByWeek({ points }: Pick<HoursView, 'points'>, weeks: number): WeekOfUse[] {
  if (points.length < 2) return [];
  const [first, last] = [Date.parse(points[0]!.at), Date.parse(points.at(-1)!.at)];
  const count = Math.min(weeks, Math.floor((last - first) / WEEK_MS));
  return Array.from({ length: count }, (_, index) => {
    const from = last - (count - index) * WEEK_MS;
    const to = from + WEEK_MS;
    const within = points.filter(({ at }) => Date.parse(at) > from);
    const after = within.find(({ at }) => Date.parse(at) >= to);
    const isEstimate = after?.isEstimate === true || after?.source === 'extrapolated';
    return { from, hours: hoursAtPoint(points, to) - hoursAtPoint(points, from), isEstimate };
  });
}

function hoursAtPoint(points: readonly HourPointView[], at: number): number {
  const index = points.findIndex((point) => Date.parse(point.at) >= at);
  if (index < 0) return points.at(-1)!.hours;
  const after = toPoint(points[index]!);
  if (index === 0) return after.y;
  const before = toPoint(points[index - 1]!);
  const share = after.x === before.x ? 1 : (at - before.x) / (after.x - before.x);
  return before.y + (after.y - before.y) * share;
}
