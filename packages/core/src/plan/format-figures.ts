import type { CalendarInterval } from '../basics/index.js';
import { checkByCode } from '../checks/index.js';
import { formatFigure, formatQuantity, type QuantityKind } from '../quantities/index.js';
import type { MeasuredLimit } from './condition.js';

/** Writes a figure with its unit, as the reader likes it. */
export type FormatQuantity = (value: number, quantity: QuantityKind) => string;

export const formatStored: FormatQuantity = (value, quantity) => {
  const { figure, unit } = formatQuantity(value, quantity);
  return `${figure} ${unit}`;
};

/** Hours with their unit; thin ones keep a decimal. */
export function formatHours(hours: number): string {
  return `${formatFigure(hours, { maxDecimals: Math.abs(hours) < 100 ? 1 : 0 })} h`;
}

/** A step along the calendar in words: `3 months`, `month`, `15 days`. */
export function formatCalendarInterval(step: CalendarInterval): string {
  const [count, word] = 'months' in step ? [step.months, 'month'] : [step.days, 'day'];
  return count === 1 ? word : `${count} ${word}s`;
}

/** The limit of a condition: `pressure drop reaches 1 bar`. */
export function formatLimit(trigger: MeasuredLimit, format: FormatQuantity = formatStored): string {
  const figure = checkByCode(trigger.check)?.figure;
  const name = (figure?.name ?? trigger.check).toLowerCase();
  const verb = figure?.worse === 'lower' ? 'falls to' : 'reaches';
  if (trigger.of === 'baseline') {
    return `${name} ${verb} ${formatFigure(trigger.limit * 100)} % of the baseline`;
  }
  return `${name} ${verb} ${formatMeasured(trigger.check, trigger.limit, format)}`;
}

/** A figure of a check with its unit. */
export function formatMeasured(check: string, value: number, format: FormatQuantity = formatStored): string {
  const figure = checkByCode(check)?.figure;
  return figure?.quantity
    ? format(value, figure.quantity)
    : `${formatFigure(value, { maxDecimals: 1 })} ${figure?.unit ?? ''}`.trim();
}
