import {
  DAY_MS,
  dayNumberOf,
  formatDay,
  HOUR_MS,
  localDayAt,
  startOfLocalDay,
  type Instant,
  type Problem,
} from '../basics/index.js';
import { formatHoursSeen, fromMeter, meterScaleAt } from '../hours/index.js';
import { hourClockOf } from './clock.js';
import type { CompressorHistory, StartingPointFact } from './history.js';
import type { ServiceTask } from './service-plan.js';

/** What a sticker says of one task. */
export type StickerLine = Pick<StartingPointFact, 'hoursThen' | 'countsFromOn'>;

/** Continuous run hours of what a sticker says, by the meter of its day; null where it names no hours. */
export function stickerHours(
  { hoursThen, countsFromOn }: StickerLine,
  at: Instant,
  history: CompressorHistory,
): number | null {
  if (hoursThen === undefined || hoursThen === null) return null;
  const { counts } = hourClockOf(history, at).runHours;
  return fromMeter(
    meterScaleAt(history.meterChanges, counts, momentOf(countsFromOn, at, history)),
    hoursThen,
  );
}

/** The end of the day that a sticker names: the work was done somewhere in it. */
function momentOf(
  countsFromOn: StickerLine['countsFromOn'],
  at: Instant,
  { timeZone }: Pick<CompressorHistory, 'timeZone'>,
): Instant {
  if (countsFromOn === undefined || countsFromOn === null) return at;
  return Math.min(at, startOfLocalDay(dayNumberOf(countsFromOn) + 1, timeZone));
}

/** When the first thing was written down of a machine; null while nothing is. */
function recordBegun({ readings, services, measurements = [] }: CompressorHistory): Instant | null {
  const moments = [...readings, ...services, ...measurements].map(({ recordedAt }) => recordedAt);
  return moments.length === 0 ? null : moments.reduce((first, one) => Math.min(first, one));
}

/**
 * What speaks against a line of a sticker, in a sentence; null when nothing does.
 *
 * @param at when it was read
 */
export function stickerProblem(
  line: StickerLine,
  task: Pick<ServiceTask, 'name' | 'safety'>,
  at: Instant,
  history: CompressorHistory,
): Problem | null {
  const { hoursThen = null, countsFromOn = null } = line;
  const { name, safety } = task;
  const problem = (code: string, field: keyof StickerLine, sentence: string) => ({ code, field, sentence });
  if (hoursThen === null && countsFromOn === null)
    return problem('nothing-said', 'countsFromOn', `${name}: say the day, the hours, or both.`);
  if (safety && countsFromOn === null) {
    const sentence = `${name} keeps somebody safe: hours alone do not say when it was tested. Without a day it is due.`;
    return problem('needs-day', 'countsFromOn', sentence);
  }
  const today = localDayAt(at, history.timeZone);
  if (countsFromOn !== null && dayNumberOf(countsFromOn) > today) {
    const sentence = `${name} cannot have been done on ${countsFromOn}: that day is still to come.`;
    return problem('in-the-future', 'countsFromOn', sentence);
  }
  const begun = recordBegun(history);
  if (safety && begun !== null && dayNumberOf(countsFromOn!) > localDayAt(begun, history.timeZone)) {
    const on = formatDay(localDayAt(begun, history.timeZone));
    const sentence = `${name}: this machine is on record since ${on}, and since then a test counts with its result. Record the test.`;
    return problem('test-since', 'countsFromOn', sentence);
  }
  const hours = stickerHours(line, at, history);
  if (hours === null) return null;
  const { runHours } = hourClockOf(history, at);
  const then = momentOf(countsFromOn, at, history);
  const scale = meterScaleAt(history.meterChanges, runHours.counts, then);
  const figure = (total: number) => formatHoursSeen(scale, total);
  for (let index = 0; index < runHours.at.length; index += 1) {
    const [readAt, read] = [runHours.at[index]!, runHours.hours[index]!];
    const on = formatDay(localDayAt(readAt, history.timeZone));
    // No machine runs longer than the clock: what lies between is its most, with a day for the day itself.
    const most = read + Math.max(0, then - readAt) / HOUR_MS + DAY_HOURS;
    const least = countsFromOn !== null && readAt <= then - DAY_MS ? read - DAY_HOURS : -Infinity;
    if (hours > (readAt >= then ? read + DAY_HOURS : most)) {
      const sentence = `${name}: the meter showed ${figure(read)} on ${on}, so it cannot have been done at ${figure(hours)}. Is it a slip, or the figure it is next due at?`;
      return problem('ahead-of-meter', 'hoursThen', sentence);
    }
    if (hours < least) {
      const sentence = `${name}: the meter showed ${figure(read)} on ${on} already, and ${figure(hours)} is said of a later day. One of the two is a slip.`;
      return problem('behind-meter', 'hoursThen', sentence);
    }
  }
  return null;
}

const DAY_HOURS = 24;
