import type { MeasurementView, ServiceView } from '@entretien/contracts';
import {
  chartedFigure,
  beforeAfter,
  hoursOnItsSide,
  trendOf,
  type BeforeAfter,
  type CheckDefinition,
  type CheckFigure,
  type CheckTrend,
  type Verdict,
} from '@entretien/core/checks';

/** A measurement on the chart of its check. */
export interface ChartPoint {
  readonly id: string;
  readonly at: number;
  /** Run hours where all of them are known, else the moment. */
  readonly x: number;
  readonly value: number;
  readonly uncertainty: number;
  readonly verdict: Verdict;
  readonly isBaseline: boolean;
}

/** What the chart of a check shows. */
export interface CheckSeries {
  readonly axis: 'hours' | 'time';
  readonly points: readonly ChartPoint[];
  /** The limit of the latest measurement. */
  readonly limit: number | null;
  readonly pairs: readonly BeforeAfter<ChartPoint>[];
  /** Only over run hours. */
  readonly trend: CheckTrend | null;
}

/** The standing measurements of a check, in order of time, with what follows from them. */
export function checkSeries(
  check: Pick<CheckDefinition, 'resetBy'> & { readonly figure: CheckFigure },
  measurements: readonly MeasurementView[],
  services: readonly ServiceView[],
): CheckSeries {
  const standing = measurements
    .filter((one) => one.voided === undefined && chartedFigure(check.figure, one) !== null)
    .sort((a, b) => Date.parse(a.takenAt) - Date.parse(b.takenAt));
  const resets = services.filter(({ tasks }) => tasks.some((code) => check.resetBy?.includes(code)));
  const isByHours = standing.length > 0 && standing.every(({ runHours }) => runHours !== null);
  const points = standing.map((one): ChartPoint => {
    const at = Date.parse(one.takenAt);
    return {
      id: one.id,
      at,
      x: isByHours ? one.runHours! : at,
      value: one.judgement.figure!.value,
      uncertainty: one.judgement.figure!.uncertainty,
      verdict: one.judgement.verdict,
      isBaseline: one.baseline,
    };
  });
  const limit = standing.at(-1)?.judgement.limit?.value ?? null;
  const works = resets.map(({ doneAt, tasks, runHours }) => ({ at: Date.parse(doneAt), tasks, runHours }));
  const hoursOfWork = works.flatMap(({ at, runHours }) =>
    runHours === null ? [] : [{ at, hours: runHours }],
  );
  const trend = isByHours
    ? trendOf(
        points.map(({ at, x, value, uncertainty }) => ({
          hours: hoursOnItsSide({ at, hours: x }, hoursOfWork),
          value,
          uncertainty,
        })),
        hoursOfWork.map(({ hours }) => hours),
        limit,
        check.figure.worse,
      )
    : null;
  return { axis: isByHours ? 'hours' : 'time', points, limit, pairs: beforeAfter(points, works), trend };
}

/** The latest standing measurement of each check. */
export function latestByCheck(
  measurements: readonly MeasurementView[],
): ReadonlyMap<string, MeasurementView> {
  const latest = new Map<string, MeasurementView>();
  for (const one of measurements) {
    if (one.voided !== undefined) continue;
    const known = latest.get(one.check);
    if (!known || Date.parse(one.takenAt) > Date.parse(known.takenAt)) latest.set(one.check, one);
  }
  return latest;
}
