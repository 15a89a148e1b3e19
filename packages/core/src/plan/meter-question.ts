import { DAY_MS, HOUR_MS, dayNumberOf, startOfLocalDay } from '../basics/index.js';
import { CLOCK_TOLERANCE_H } from '../hours/index.js';
import { hourClockOf } from './clock.js';
import type { CompressorHistory } from './history.js';

/** A meter first read so long after commissioning may have been fitted since, ms. */
const LONG_AFTER_MS = 30 * DAY_MS;
/** Fewer hours than these are hardly worth the question. */
const WORTH_ASKING_H = 50;

/**
 * The hours that a machine known from new showed when its meter was first read, where nobody said whether it had run
 * them since new: asked once. Null where there is nothing to ask.
 *
 * @param at the moment of asking
 */
export function meterQuestion(history: CompressorHistory, at: number): number | null {
  if (history.history !== 'new' || history.meterFrom !== undefined) return null;
  const { runHours, grounds } = hourClockOf(history, at);
  const [first, readAt] = [runHours.hours[0], runHours.at[0]];
  if (grounds !== 'readings' || first === undefined || readAt === undefined) return null;
  const since = readAt - startOfLocalDay(dayNumberOf(history.commissionedOn), history.timeZone);
  const isPossible = first <= since / HOUR_MS + CLOCK_TOLERANCE_H;
  return isPossible && since > LONG_AFTER_MS && first >= WORTH_ASKING_H ? first : null;
}
