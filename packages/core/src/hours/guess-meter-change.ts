import type { Instant } from '../basics/index.js';
import type { HourReading, MeterChange, MeterChangeReason } from './hour-log.js';

const LEAST_MODULUS = 1000;
const MINUTE_MS = 60_000;

/** The figure at which a meter turns over: the next power of ten above what it last showed, at least 1,000. */
export function turnsOverAt(lastHours: number): number {
  let modulus = LEAST_MODULUS;
  while (modulus <= lastHours) modulus *= 10;
  return modulus;
}

/**
 * A first guess at the meter change that explains a figure lower than the last: the old meter ran to its last
 * figure (or turned over), the new one began at zero, and the change came when the hours run say, the machine
 * running evenly in between.
 *
 * @param last the last reading before it
 * @param figure the lower figure, read at `at`
 * @param oldFinalHours what the old meter showed at last, where that is known
 */
export function guessMeterChange(
  reason: MeterChangeReason,
  last: Pick<HourReading, 'takenAt' | 'hours'>,
  figure: number,
  at: Instant,
  oldFinalHours = reason === 'rolled-over' ? turnsOverAt(last.hours) : last.hours,
): Pick<MeterChange, 'changedAt' | 'oldFinalHours' | 'newStartHours' | 'reason'> {
  const before = Math.max(0, oldFinalHours - last.hours);
  const share = before + figure > 0 ? before / (before + figure) : 0;
  const changedAt = Math.max(last.takenAt + MINUTE_MS, last.takenAt + (at - last.takenAt) * share);
  return { changedAt: Math.min(Math.round(changedAt), at), oldFinalHours, newStartHours: 0, reason };
}
