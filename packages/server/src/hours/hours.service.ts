import { Inject, Injectable } from '@nestjs/common';
import type {
  ForecastQuery,
  ForecastView,
  HourPointView,
  HoursAheadView,
  HoursQuery,
  HoursView,
} from '@entretien/contracts';
import { DAY_MS, EARLIEST_INSTANT, formatInstant, type Instant } from '@entretien/core/basics';
import {
  hoursAhead,
  hourSeries,
  loadedShare,
  methodOf,
  describeUseChange,
  type CounterKind,
  type HourLog,
  type SeriesPoint,
} from '@entretien/core/hours';
import {
  allReadings,
  clockForecast,
  clockHours,
  clockRate,
  historyUpTo,
  hourClockOf,
  isEstimate,
  type HourClock,
} from '@entretien/core/plan';
import { malformed } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorHistories } from '../compressors/compressor-histories.js';
import { CompressorRegister } from '../compressors/compressor-register.js';

/** Points given at most: what a chart can show many times over. */
const MOST_POINTS = 5000;
/** Steps that the hours ahead are given in. */
const AHEAD_STEPS = 40;

/** Continuous run hours, and when they will be reached. */
@Injectable()
export class HoursService {
  constructor(
    private readonly register: CompressorRegister,
    private readonly histories: CompressorHistories,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  series(compressorId: string, query: HoursQuery): HoursView {
    const now = this.clock();
    const unit = this.register.require(compressorId);
    const from = query.from === undefined ? EARLIEST_INSTANT : Date.parse(query.from);
    const to = query.to === undefined ? now : Date.parse(query.to);
    if (to < from) throw malformed([{ field: 'to', message: 'The time asked about ends before it begins.' }]);
    const history = historyUpTo(this.histories.of(unit, this.register.plateOf(unit, now)), now, Infinity);
    const clock = hourClockOf(history, now);
    const log: HourLog = { readings: allReadings(history), meterChanges: history.meterChanges };
    const counts = clock.runHours.counts;
    const points = [...this.points(log, counts, from, to), ...reckonedEnd(clock, Math.min(to, now))];
    return {
      compressorId: unit.id,
      revision: unit.revision,
      counts,
      points: points.slice(-MOST_POINTS),
      loaded: counts === 'total' ? this.points(log, 'loaded', from, to).slice(-MOST_POINTS) : [],
      loadedShare: loadedShare(log),
      isCut: points.length > MOST_POINTS,
      ahead: query.ahead === undefined ? [] : ahead(clock, now, Number(query.ahead)),
    };
  }

  forecast(compressorId: string, query: ForecastQuery): ForecastView {
    const at = query.at === undefined ? this.clock() : Date.parse(query.at);
    const knownAt = query.knownAt === undefined ? Infinity : Date.parse(query.knownAt);
    const unit = this.register.require(compressorId);
    const plate = this.register.plateOf(unit, at, knownAt);
    const history = historyUpTo(this.histories.of(unit, plate, knownAt), at, knownAt);
    const clock = hourClockOf(history, at);
    const found = clockForecast(clock, Number(query.hours));
    return {
      early: written(found?.earlyAt),
      likely: written(found?.likelyAt),
      late: written(found?.lateAt),
      hoursPerDay: clockRate(clock, at),
      method: clock.model ? methodOf(clock.model) : 'none',
      basedOn: grounds(clock, history.timeZone),
      reason: found ? found.reason : 'use-unknown',
    };
  }

  private points(log: HourLog, counts: CounterKind | null, from: Instant, to: Instant): HourPointView[] {
    return counts === null ? [] : hourSeries(log, counts, from, to).map(toPointView);
  }
}

function toPointView({ at, hours, source }: SeriesPoint): HourPointView {
  return { at: formatInstant(at), hours, source, isEstimate: source === 'estimated' };
}

/** Where the hours are held to stand at the end: reckoned, unless they were read just then. */
function reckonedEnd(clock: HourClock, at: Instant): HourPointView[] {
  const found = clockHours(clock, at);
  const last = clock.runHours.at.at(-1);
  if (!found || (last !== undefined && last >= at)) return [];
  const declared = clock.grounds === 'declared' || clock.grounds === 'assumed';
  const start = declared ? [{ at: clock.commissionedAt, hours: 0 }] : [];
  return [...start, { at, hours: found.hours }].map((point) => ({
    at: formatInstant(point.at),
    hours: point.hours,
    source: 'extrapolated',
    isEstimate: isEstimate(found.basis),
  }));
}

/** The hours to come in even steps; none for a machine of which nothing is known. */
function ahead({ model }: HourClock, now: Instant, days: number): HoursAheadView[] {
  if (!model) return [];
  const end = now + days * DAY_MS;
  const moments = Array.from(
    { length: AHEAD_STEPS + 1 },
    (_, step) => model.fromAt + ((end - model.fromAt) * step) / AHEAD_STEPS,
  );
  return moments.flatMap((at) => {
    const found = hoursAhead(model, at);
    return found ? [{ at: formatInstant(Math.round(at)), ...found }] : [];
  });
}

function grounds({ model, runHours }: HourClock, timeZone: string): ForecastView['basedOn'] {
  const { at } = runHours;
  const change = model?.change;
  return {
    intervals: model?.basedOn.intervals ?? 0,
    spanDays: model?.basedOn.spanDays ?? 0,
    declaredHoursPerWeek: model?.basedOn.declaredHoursPerWeek ?? null,
    from: written(at[0]),
    to: written(at.at(-1)),
    windowDays: model && model.level !== null ? model.windowDays : null,
    seasonYears: model?.season?.years ?? 0,
    bandFactor: model && model.level !== null ? model.correction.scale : null,
    bandHorizons: model?.correction.horizons ?? 0,
    useChange: change
      ? {
          at: formatInstant(Math.round(change.at)),
          before: change.before,
          since: change.since,
          text: describeUseChange(change, timeZone),
        }
      : null,
  };
}

function written(at: Instant | null | undefined): string | null {
  return at === null || at === undefined ? null : formatInstant(Math.round(at));
}
