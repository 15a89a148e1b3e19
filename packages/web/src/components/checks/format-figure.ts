import type { CheckFigure } from '@entretien/core/checks';
import { formatFigure, formatQuantity, unitByCode, type ShownQuantity } from '@entretien/core/quantities';
import type { ChosenUnits } from './check-entries.js';

/** A figure of a check in the unit that the person reads in. */
export function shownFigure(
  value: number,
  { quantity, unit }: Pick<CheckFigure, 'quantity' | 'unit'>,
  units: ChosenUnits,
): ShownQuantity {
  if (!quantity) return { figure: formatFigure(value, { maxDecimals: 1 }), unit: unit ?? '' };
  return formatQuantity(value, quantity, unitByCode(quantity, units[quantity]));
}

/** The same in one text. */
export function formatCheckFigure(
  value: number,
  figure: Pick<CheckFigure, 'quantity' | 'unit'>,
  units: ChosenUnits,
): string {
  const shown = shownFigure(value, figure, units);
  return `${shown.figure} ${shown.unit}`.trim();
}
