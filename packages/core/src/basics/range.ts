import { formatNumber } from './formats.js';
import { err, type Result } from './result.js';

/** A figure that goes into a formula, with what it may be. */
export interface Bounded {
  readonly field: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  /** What to say when it is not: the sentence names figure and bounds. */
  readonly sentence: string;
}

/** The first figure outside its bounds, as a refusal; null when all are within. */
export function outOfRange(figures: readonly Bounded[]): Result<never> | null {
  const wrong = figures.find(({ value, min, max }) => !(value >= min && value <= max));
  return wrong ? err('out-of-range', wrong.sentence, wrong.field) : null;
}

/** Bounds that many formulas share. */
export const bounds = {
  /** Air where compressors stand and what comes out of them, °C. */
  tempC: (field: string, value: number, what: string): Bounded => ({
    field,
    value,
    min: -40,
    max: 250,
    sentence: `${what} must lie between −40 and 250 °C. Was it read in °F?`,
  }),
  /** Air that a compressor breathes in. */
  intakeTempC: (field: string, value: number): Bounded => ({
    field,
    value,
    min: -40,
    max: 60,
    sentence: `${formatted(value)} °C at the intake? It lies between −40 and 60 °C. Was it read in °F?`,
  }),
  pressureBarAbs: (field: string, value: number, what: string): Bounded => ({
    field,
    value,
    min: 0.3,
    max: 600,
    sentence: `${what} must lie between 0.3 and 600 bar absolute. Gauge pressure is less by the air about us.`,
  }),
  positive: (field: string, value: number, max: number, what: string): Bounded => ({
    field,
    value,
    min: Number.MIN_VALUE,
    max,
    sentence: `${what} must be more than nothing, and no more than ${formatNumber(max)}.`,
  }),
};

function formatted(value: number): string {
  return Number.isFinite(value) ? String(Math.round(value * 10) / 10) : 'Nothing';
}
