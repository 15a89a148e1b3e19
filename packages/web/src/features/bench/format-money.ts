import { formatFigure } from '@entretien/core/quantities';

/** An amount in whole euros, from hundredths. */
export function euros(cents: number): string {
  return `€${formatFigure(cents / 100, { maxDecimals: 0 })}`;
}
