import type { MeasuringUnit } from '@entretien/core/quantities';

/** Parts a bare figure from the unit that was meant by it; a unit that was typed follows a plain space. */
const MEANT = '\u00a0';

/**
 * A bare figure with the unit that was meant when it was typed, so that it means the same to somebody who reads
 * in another; a text with a unit of its own, or without a figure, as it is.
 */
export function withMeantUnit(text: string, unit: MeasuringUnit): string {
  return /^\s*[+-]?\d[\d.,'’\s]*$/.test(text) ? `${text}${MEANT}${unit.label}` : text;
}

/** The same as it was typed, to somebody who reads in that unit; with the unit to anybody else. */
export function asTyped(text: string, unit: MeasuringUnit): string {
  const at = text.indexOf(MEANT);
  if (at < 0) return text;
  return text.slice(at + 1) === unit.label ? text.slice(0, at) : text.replace(MEANT, ' ');
}
