import Qty from 'js-quantities';
import { storedUnit, type MeasuringUnit, type QuantityKind } from './units.js';

const converters = new Map<string, (value: number) => number>();

function converter(from: MeasuringUnit, to: MeasuringUnit): (value: number) => number {
  const key = `${from.expression}>${to.expression}`;
  let convert = converters.get(key);
  if (!convert) {
    // The library's fast converter answers NaN for the tiniest temperatures; its plain way does not.
    convert = from.expression.startsWith('temp')
      ? (value) => Qty(value, from.expression).to(to.expression).scalar
      : Qty.swiftConverter(from.expression, to.expression);
    converters.set(key, convert);
  }
  return convert;
}

/**
 * Converts a figure between two units of one kind.
 *
 * @param value figure in `from`
 * @returns figure in `to`, unrounded
 * @throws for a temperature below absolute zero
 * @example convert(1, psi, bar) // → 0.0689476 (NIST SP 811)
 */
export function convert(value: number, from: MeasuringUnit, to: MeasuringUnit): number {
  return from === to ? value : converter(from, to)(value);
}

/** Converts a figure into the unit that is stored for its kind. */
export function toStored(value: number, kind: QuantityKind, from: MeasuringUnit): number {
  return convert(value, from, storedUnit(kind));
}

/** Converts a stored figure into a unit for showing. */
export function fromStored(value: number, kind: QuantityKind, to: MeasuringUnit): number {
  return convert(value, storedUnit(kind), to);
}
