import { checkByCode, hoursOnItsSide, trendOf, type CheckFigure } from '../checks/index.js';
import { clockHours, type HourClock } from './clock.js';
import { nearingHours } from './due-point.js';
import type { MeasuredFact, ServiceRecord, CompressorHistory } from './history.js';

/** A limit of a measured figure, or of its share of the baseline. */
export interface MeasuredLimit {
  readonly check: string;
  readonly limit: number;
  readonly of?: 'baseline' | undefined;
}

/** Share of the way to its limit from which something nears it. */
export const NEARING_SHARE = 0.8;

/** What the measurements say of when a figure reaches its limit. */
export type ConditionFound =
  | {
      readonly known: 'point';
      /** Run hours: one chance in ten of sooner, likely, and one in ten of later (null: it may never). */
      readonly early: number;
      readonly due: number;
      readonly late: number | null;
      readonly span: number;
      readonly window: number;
      readonly limit: number;
      readonly share: number;
      readonly latestHours: number;
      readonly latest: MeasuredFact;
      readonly count: number;
    }
  | {
      readonly known: 'within';
      readonly limit: number;
      readonly share: number;
      readonly latestHours: number;
      readonly latest: MeasuredFact;
      readonly count: number;
      readonly why: WithinReason;
    }
  | { readonly known: 'nothing' };

export type WithinReason =
  /** A trend needs three measurements at different hours. */
  | 'too-few-measurements'
  /** It is not going towards its limit, or not by more than measuring tells: its end cannot be foreseen by measuring. */
  | 'not-worsening';

/**
 * When a measured figure reaches its limit: by the trend of its check since the work that begins it anew. A
 * measurement past the limit makes it due where that was measured.
 *
 * @param doneHours run hours at which the task itself was last done: its figure begins anew there
 */
export function conditionFound(
  trigger: MeasuredLimit,
  history: CompressorHistory,
  clock: HourClock,
  doneHours: number | null,
): ConditionFound {
  if (!history.measurements || history.measurements.length === 0) return { known: 'nothing' };
  const figure = checkByCode(trigger.check)?.figure;
  if (!figure || figure.worse === 'either') return { known: 'nothing' };
  const record = recordOf(trigger.check, history, clock);
  const reset = Math.max(doneHours ?? -Infinity, ...record.begins);
  const asked = `${reset} ${trigger.limit} ${trigger.of ?? ''}`;
  let found = record.found.get(asked);
  if (!found) record.found.set(asked, (found = findIn(record, trigger, figure, reset)));
  return found;
}

function findIn(
  { points, begins }: CheckRecord,
  trigger: MeasuredLimit,
  figure: CheckFigure,
  reset: number,
): ConditionFound {
  const limit = limitOf(trigger, points);
  if (limit === null) return { known: 'nothing' };
  const begun = Number.isFinite(reset) ? [...begins, reset] : begins;
  const since = points.filter(({ hours }) => hours >= reset);
  const latest = since.at(-1);
  if (!latest) return { known: 'nothing' };
  const from = Number.isFinite(reset) ? reset : since[0]!.hours;
  const share = shareOf(latest.value, limit, figure.worse, startValue(trigger, points, since));
  const common = { limit, share, latestHours: latest.hours, latest: latest.fact, count: since.length };
  if (isPast(latest.value, limit, figure.worse)) {
    const due = firstPast(since, limit, figure.worse);
    const span = Math.max(due - from, 1);
    return { known: 'point', early: due, due, late: due, span, window: nearingHours(span), ...common };
  }
  const trend = trendOf(points, begun, limit, figure.worse);
  if (!trend) return { known: 'within', why: 'too-few-measurements', ...common };
  if (!trend.isForeseeable || !trend.limitHours) return { known: 'within', why: 'not-worsening', ...common };
  const { early, likely: due, late } = trend.limitHours;
  const span = Math.max(due - from, 1);
  return { known: 'point', early, due, late, span, window: nearingHours(span), ...common };
}

function isPast(value: number, limit: number, worse: CheckFigure['worse']): boolean {
  return worse === 'higher' ? value >= limit : value <= limit;
}

/**
 * The share of the way to its limit that a figure has gone: of the limit itself where it grows from nothing, of the
 * fall from where it began where it falls.
 */
function shareOf(value: number, limit: number, worse: CheckFigure['worse'], start: number): number {
  if (worse === 'higher') return limit > 0 ? Math.max(0, value / limit) : isPast(value, limit, worse) ? 1 : 0;
  const option = start - limit;
  return option > 0 ? Math.max(0, (start - value) / option) : isPast(value, limit, worse) ? 1 : 0;
}

/** Where a falling figure began: at its baseline, or at the first since it began anew. */
function startValue(
  { of }: MeasuredLimit,
  points: readonly MeasuredPoint[],
  since: readonly MeasuredPoint[],
): number {
  const baseline = of === 'baseline' ? points.findLast(({ fact }) => fact.baseline) : undefined;
  return (baseline ?? since[0]!).value;
}

/** Where the figure went past its limit and stayed there. */
function firstPast(
  points: readonly { readonly hours: number; readonly value: number }[],
  limit: number,
  worse: CheckFigure['worse'],
): number {
  const lastWithin = points.findLastIndex(({ value }) => !isPast(value, limit, worse));
  return points[lastWithin + 1]!.hours;
}

/** The limit as a figure; null where it is a share of a baseline that was never taken. */
function limitOf({ limit, of }: MeasuredLimit, points: readonly MeasuredPoint[]): number | null {
  if (of === undefined) return limit;
  const baseline = points.findLast(({ fact }) => fact.baseline) ?? points[0];
  return baseline ? baseline.value * limit : null;
}

interface MeasuredPoint {
  readonly fact: MeasuredFact;
  readonly hours: number;
  readonly value: number;
  readonly uncertainty: number;
}

/** What was measured by one check, in order of time, and the run hours at which work began it anew. */
interface CheckRecord {
  readonly points: readonly MeasuredPoint[];
  readonly begins: readonly number[];
  /** What was found already, by where the figure begins anew and its limit: several tasks may ask the same. */
  readonly found: Map<string, ConditionFound>;
}

/** Worked out once for each history: several tasks may go by one check. */
const kept = new WeakMap<
  CompressorHistory,
  { readonly clock: HourClock; readonly records: Map<string, CheckRecord> }
>();

function recordOf(check: string, history: CompressorHistory, clock: HourClock): CheckRecord {
  let known = kept.get(history);
  if (known?.clock !== clock) kept.set(history, (known = { clock, records: new Map() }));
  let record = known.records.get(check);
  if (!record) known.records.set(check, (record = readRecord(check, history, clock)));
  return record;
}

function readRecord(check: string, history: CompressorHistory, clock: HourClock): CheckRecord {
  const measured = (history.measurements ?? []).filter((fact) => fact.check === check);
  measured.sort((a, b) => a.takenAt - b.takenAt);
  const works = worksThatReset(history.services, checkByCode(check)?.resetBy ?? [], clock);
  const points = measured.flatMap((fact) => {
    const { takenAt: at, value, uncertainty } = fact;
    const hours = clockHours(clock, at)?.hours;
    return hours === undefined
      ? []
      : [{ fact, hours: hoursOnItsSide({ at, hours }, works), value, uncertainty }];
  });
  return { points, begins: works.map(({ hours }) => hours), found: new Map() };
}

function worksThatReset(services: readonly ServiceRecord[], resetBy: readonly string[], clock: HourClock) {
  return services
    .filter(({ tasks }) => tasks.some((code) => resetBy.includes(code)))
    .flatMap(({ doneAt: at }) => {
      const hours = clockHours(clock, at)?.hours;
      return hours === undefined ? [] : [{ at, hours }];
    });
}
