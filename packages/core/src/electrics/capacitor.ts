import { bounds, outOfRange, ok, type Result } from '../basics/index.js';

/** Tolerance where the label states none. */
export const USUAL_CAPACITOR_TOLERANCE = 0.06;

/** A measured capacitor against its label. */
export interface CapacitorFinding {
  /** Share by which it lies above its label, negative below. */
  readonly deviation: number;
  readonly lowUf: number;
  readonly highUf: number;
  /** Below tolerance it starts weakly; far above it is the wrong one, harder on the moving parts. */
  readonly verdict: 'low' | 'within' | 'high';
}

/**
 * @param measuredUf measured, µF
 * @param labelUf on its label, µF
 * @param tolerance of its label, as a share
 */
export function judgeCapacitor(
  measuredUf: number,
  labelUf: number,
  tolerance = USUAL_CAPACITOR_TOLERANCE,
): Result<CapacitorFinding> {
  const wrong = outOfRange([
    {
      field: 'measuredUf',
      value: measuredUf,
      min: 0,
      max: 10_000,
      sentence: 'Capacitance lies between 0 and 10,000 µF.',
    },
    bounds.positive('labelUf', labelUf, 10_000, 'The figure on the label, µF,'),
    {
      field: 'tolerance',
      value: tolerance,
      min: 0,
      max: 0.5,
      sentence: 'A tolerance lies between 0 and 50 %.',
    },
  ]);
  if (wrong) return wrong;
  const [lowUf, highUf] = [labelUf * (1 - tolerance), labelUf * (1 + tolerance)];
  return ok({
    deviation: measuredUf / labelUf - 1,
    lowUf,
    highUf,
    verdict: measuredUf < lowUf ? 'low' : measuredUf > highUf ? 'high' : 'within',
  });
}
