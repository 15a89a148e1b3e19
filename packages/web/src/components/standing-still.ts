import type { StandingView } from '@entretien/contracts';

/** Below this a machine stands, h a day. */
const STILL = 0.05;

/** Whether a machine is known to stand; of one whose use nobody knows it is not. */
export function standsStill({ hoursPerDay }: Pick<StandingView, 'hoursPerDay'>): boolean {
  return hoursPerDay !== null && hoursPerDay < STILL;
}
