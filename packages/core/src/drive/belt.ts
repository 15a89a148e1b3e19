import { bounds, outOfRange, ok, type Result } from '../basics/index.js';

/** A belt gives by one sixty-fourth of its free span under the maker's force (belt makers' common practice). */
const SPAN_SHARE = 64;

/**
 * Deflection that a belt should show at the middle of its span, under the force that its book states.
 *
 * @param spanMm free span between the pulleys, mm, up to 5,000
 * @returns mm
 * @example beltDeflection(480) // → 7.5 mm
 */
export function beltDeflection(spanMm: number): Result<number> {
  return outOfRange([bounds.positive('spanMm', spanMm, 5000, 'The span, mm,')]) ?? ok(spanMm / SPAN_SHARE);
}
