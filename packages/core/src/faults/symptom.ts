import type { DataPlate } from '../machine/index.js';
import type { CauseCode } from './cause.js';

/** How often each cause is behind a symptom, of a hundred cases (common practice). */
export type Rates = Readonly<Partial<Record<CauseCode, number>>>;

/** What a technician sees, hears or is told, with what can be behind it. */
export interface Symptom {
  readonly code: string;
  readonly text: string;
  readonly rates: Rates;
  /** It does not run: no test that needs it running can be done. `still`: it does not even try. */
  readonly isDead?: 'tries' | 'still';
  /** What is confirmed before anything is asked. */
  readonly first?: string;
  readonly caution?: string;
  /** Checks that, when they fail, are this symptom measured. */
  readonly checks?: readonly string[];
  /** Only on such machines. */
  readonly fits?: (plate: DataPlate) => boolean;
}

/** Said wherever a relief valve blows. */
export const RELIEF =
  'A relief valve that blows does its work: stop the machine. It is never screwed in, plugged or capped. Stand away from its outlet, ears covered.';

export function symptom(
  code: string,
  text: string,
  rates: Rates,
  more: Omit<Symptom, 'code' | 'text' | 'rates'> = {},
): Symptom {
  return { code, text, rates, ...more };
}
