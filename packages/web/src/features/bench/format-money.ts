import { formatFigure } from '@entretien/core/quantities';

/** An amount with its cents, from hundredths. */
export function exactEuros(cents: number): string {
  return `€${formatFigure(cents / 100, { decimals: 2 })}`;
}

/** An amount in whole euros, from hundredths. */
export function euros(cents: number): string {
  return `€${formatFigure(cents / 100, { maxDecimals: 0 })}`;
}
