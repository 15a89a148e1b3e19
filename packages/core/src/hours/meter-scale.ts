import type { Instant } from '../basics/index.js';
import { formatFigure } from '../quantities/index.js';
import type { CounterKind, MeterChange } from './hour-log.js';

/**
 * How the figure on the meter that is fitted at a moment follows from continuous run hours, which go on over every
 * replaced, reset or rolled-over meter. Whatever is read or compared at the machine is said by it.
 */
export interface MeterScale {
  /** Continuous hours less the figure of the meter, h; 0 where it was never changed. */
  readonly offset: number;
  /** Continuous hours at which this meter was fitted; null for the first. */
  readonly fittedAtHours: number | null;
  /** The counter that was read; null where none ever was. */
  readonly counts: CounterKind | null;
}

/** A machine whose meter was never changed. */
export const FIRST_METER: MeterScale = { offset: 0, fittedAtHours: null, counts: 'total' };

/**
 * The scale of the meter fitted at a moment.
 *
 * @param changes in any order; what lies after the moment is left out
 * @param counts the counter that run hours are built from
 */
export function meterScaleAt(
  changes: readonly MeterChange[],
  counts: CounterKind | null,
  at: Instant,
): MeterScale {
  // A loaded counter is the controller's own: changing the meter does not move it.
  if (counts === 'loaded') return { offset: 0, fittedAtHours: null, counts };
  let [offset, fittedAtHours]: [number, number | null] = [0, null];
  for (const { oldFinalHours, newStartHours } of changesUpTo(changes, at)) {
    fittedAtHours = oldFinalHours + offset;
    offset += oldFinalHours - newStartHours;
  }
  return { offset, fittedAtHours, counts };
}

function changesUpTo(changes: readonly MeterChange[], at: Instant): MeterChange[] {
  return changes
    .filter(({ changedAt }) => changedAt <= at)
    .sort((a, b) => a.changedAt - b.changedAt || a.oldFinalHours - b.oldFinalHours);
}

/** The figure that the meter shows at continuous hours. */
export function onMeter({ offset }: MeterScale, hours: number): number {
  return hours - offset;
}

/** Continuous hours at which the meter shows a figure. */
export function fromMeter({ offset }: MeterScale, figure: number): number {
  return figure + offset;
}

/** Whether meter and total are two figures on this machine. */
export function isMeterChanged({ offset }: MeterScale): boolean {
  return offset !== 0;
}

/** A figure of hours as it is said: with the counter that it is on where that is not plain. */
export interface StatedHours {
  readonly figure: number;
  /** `meter`: what the meter fitted shows. `total`: over all meters. `loaded`: hours under load. */
  readonly counter: 'meter' | 'total' | 'loaded';
}

/** Continuous hours on the scale that the reader sees; what lies before this meter was fitted as a total. */
export function hoursSeen(scale: MeterScale, hours: number): StatedHours {
  if (scale.counts === 'loaded') return { figure: hours, counter: 'loaded' };
  const isBefore = scale.fittedAtHours !== null && isMeterChanged(scale) && hours < scale.fittedAtHours;
  return isBefore ? { figure: hours, counter: 'total' } : { figure: onMeter(scale, hours), counter: 'meter' };
}

/**
 * Continuous hours in words, on the scale that the reader sees.
 *
 * @param form `short` leaves out the total beside a changed meter
 * @example sayHoursSeen({ offset: 5865, fittedAtHours: 5865, counts: 'total' }, 7975) // → '2,110 h on the meter, 7,975 h total'
 */
export function formatHoursSeen(scale: MeterScale, hours: number, form: 'short' | 'full' = 'short'): string {
  const { figure, counter } = hoursSeen(scale, hours);
  const text = formatFigureOfHours(figure);
  if (counter !== 'meter') return `${text} ${counter}`;
  return form === 'short' || !isMeterChanged(scale)
    ? text
    : `${text} on the meter, ${formatFigureOfHours(hours)} total`;
}

/** Whole hours with their unit; thin ones keep a decimal. */
function formatFigureOfHours(hours: number): string {
  return `${formatFigure(hours, { figures: 7, maxDecimals: Math.abs(hours) < 100 ? 1 : 0 })} h`;
}
