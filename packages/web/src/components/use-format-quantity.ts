import { formatQuantity, unitByCode, type QuantityKind } from '@entretien/core/quantities';
import { usePreferences } from '../data/preferences.js';

/** Writes a stored figure with its unit, in the one that the person reads in. */
export function useFormatQuantity(): (value: number, quantity: QuantityKind) => string {
  const units = usePreferences((preferences) => preferences.units);
  return (value, quantity) => {
    const { figure, unit } = formatQuantity(value, quantity, unitByCode(quantity, units[quantity]));
    return `${figure} ${unit}`;
  };
}
