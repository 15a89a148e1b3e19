import { DAY_MS, formatDay, localDayAt, type Instant, type LocalDate } from '../basics/index.js';
import { describeUseChange } from '../hours/index.js';
import type { HourClock } from './clock.js';
import type { TaskStanding } from './task-standing.js';

/** A lasting change of use, with the date that it pulls nearest. */
export interface UseWarning {
  /** `Used five times as much since about 2 Oct 2026`. */
  readonly text: string;
  /** Hours a day before and since. */
  readonly before: number;
  readonly since: number;
  readonly changedOn: LocalDate;
  /** The first task that now comes sooner, and when it would have come; null where none does by much. */
  readonly pulls: {
    readonly code: string;
    readonly name: string;
    readonly likelyOn: LocalDate;
    readonly wouldBeOn: LocalDate;
  } | null;
}

/** What has changed longer ago is no news. */
const NEWS_DAYS = 120;
/** Dates that come sooner by less than this are no news either. */
const LEAST_PULL_DAYS = 7;

/**
 * Whether a machine's use has changed of late and stayed so, and what now falls due sooner for it.
 *
 * @param tasks what is due on it, at `at`
 */
export function useWarning(
  { model }: HourClock,
  tasks: readonly TaskStanding[],
  at: Instant,
  timeZone: string,
): UseWarning | null {
  const change = model?.change;
  if (!change || at - change.at > NEWS_DAYS * DAY_MS) return null;
  const dayOf = (moment: Instant) => formatDay(localDayAt(moment, timeZone));
  const pulled = tasks
    .filter(({ coveredBy, remainingHours }) => coveredBy === null && (remainingHours ?? 0) > 0)
    .flatMap(({ code, name, remainingHours, likelyAt }) => {
      if (likelyAt === null) return [];
      const wouldBeAt = at + (remainingHours! / Math.max(change.before, 1e-3)) * DAY_MS;
      const isSooner = wouldBeAt - likelyAt >= LEAST_PULL_DAYS * DAY_MS;
      return isSooner ? [{ code, name, likelyAt, wouldBeAt: Math.min(wouldBeAt, at + 3650 * DAY_MS) }] : [];
    })
    .sort((a, b) => a.likelyAt - b.likelyAt)[0];
  return {
    text: describeUseChange(change, timeZone),
    before: change.before,
    since: change.since,
    changedOn: dayOf(change.at),
    pulls: pulled
      ? {
          code: pulled.code,
          name: pulled.name,
          likelyOn: dayOf(pulled.likelyAt),
          wouldBeOn: dayOf(pulled.wouldBeAt),
        }
      : null,
  };
}
