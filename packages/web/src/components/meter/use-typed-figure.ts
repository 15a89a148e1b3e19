import type { HourLog } from '@entretien/core/hours';
import { useState } from 'react';
import { judgeTyped, oddMarks, type TypedVerdict } from './typed-figure.js';

interface TypedFigure {
  /** Null while nothing is typed, or nothing is known of the meter. */
  readonly verdict: TypedVerdict | null;
  /** Whether it is typed, and nothing stands against it. */
  readonly canSave: boolean;
  /** Whether it is odd, and was asked about. */
  readonly isAsking: boolean;
  /** Whether it is to be saved now: an odd one is asked about first. */
  readonly confirm: () => boolean;
}

/** A figure that is judged while it is typed, and asked about once when it is odd. */
export function useTypedFigure(
  log: HourLog | undefined,
  value: number | null,
  now: number,
  timeZone: string,
): TypedFigure {
  const [asked, setAsked] = useState<number | null>(null);
  const verdict = log && value !== null ? judgeTyped(log, value, now, timeZone) : null;
  const canSave = value !== null && (verdict?.problem ?? null) === null;
  const isOdd = oddMarks(verdict).length > 0;
  const isAsking = isOdd && asked === value;
  const confirm = () => {
    if (canSave && isOdd && !isAsking) setAsked(value);
    return canSave && (!isOdd || isAsking);
  };
  return { verdict, canSave, isAsking, confirm };
}
