import type { CheckSubject } from '../check.js';
import { gaugeErrorBar } from '../verdict-helpers.js';

/** Opened above its setting by the larger of these it is as it was made (ISO 4126, memory). */
export const ABOVE_SET = { share: 0.03, bar: 0.1 } as const;
/** Above the maximum allowed by more than this nobody runs it (common practice). */
export const ABOVE_MAXIMUM = 0.03;
/** Where no maximum is known: above the setting by more than this (common practice). */
export const FAR_ABOVE_SET = 0.1;
/** Below its setting: watched from the first, acted on from the second (common practice). */
export const BELOW_SET = { watch: 0.03, act: 0.1 } as const;
/** Near the stop it works with every fill (common practice). */
export const NEAR_STOP = 0.03;
/** A gauge worse than this class cannot judge three in a hundred. */
export const GOOD_CLASS = 1;
/** Lifted by its ring at less than this share of its setting it was not tested (common practice). */
export const LEAST_LIFT = 0.75;

/** Where a relief valve opened, among what bounds it. */
export interface ReliefOpened {
  readonly verdict: 'good' | 'watch' | 'act' | 'stop';
  readonly why: 'right' | 'low' | 'far-low' | 'near-stop' | 'high' | 'far-high' | 'above-maximum' | 'unsure';
  /** What it is held against, bar. */
  readonly boundBar: number;
}

/**
 * Judges the pressure at which a relief valve opened. Up to three in a hundred above its setting is right, also where
 * the setting is the maximum allowed; the gauge’s class counts toward safety.
 *
 * @param openedBar, setBar gauge pressures
 */
export function judgeOpened(given: CheckSubject, openedBar: number, setBar: number): ReliefOpened {
  const [maximum, stop] = [given.number('maximumBar'), given.number('stopBar')];
  const error = gaugeErrorBar(given) ?? 0;
  const right = setBar + Math.max(ABOVE_SET.share * setBar, ABOVE_SET.bar);
  const most = maximum === undefined ? setBar * (1 + FAR_ABOVE_SET) : maximum * (1 + ABOVE_MAXIMUM);
  if (openedBar > most) {
    return { verdict: 'stop', why: maximum === undefined ? 'far-high' : 'above-maximum', boundBar: most };
  }
  if (openedBar + error > most) return { verdict: 'act', why: 'unsure', boundBar: most };
  if (openedBar > right) return { verdict: 'act', why: 'high', boundBar: right };
  // A coarse gauge may have shown too little: it is given the benefit before a valve is called early.
  const benefit = (given.number('gaugeClass') ?? 0) > GOOD_CLASS ? error : 0;
  if (openedBar + benefit < setBar * (1 - BELOW_SET.act))
    return { verdict: 'act', why: 'far-low', boundBar: setBar * (1 - BELOW_SET.act) };
  if (stop !== undefined && stop < setBar && openedBar <= stop * (1 + NEAR_STOP))
    return { verdict: 'act', why: 'near-stop', boundBar: stop * (1 + NEAR_STOP) };
  if (openedBar + benefit < setBar * (1 - BELOW_SET.watch))
    return { verdict: 'watch', why: 'low', boundBar: setBar * (1 - BELOW_SET.watch) };
  return { verdict: 'good', why: 'right', boundBar: right };
}

/** Up to this pressure a set is switched at a workshop's distances, bar. */
export const WORKSHOP_BAR = 15;
/** Least distance of the relief from the stop (common practice). */
export const DISTANCE = { workshopBar: 0.5, workshop: 0.05, high: 0.03 } as const;

/** Least setting of a relief valve above a stop, so that it does not weep with every fill; bar. */
export function leastReliefBar(stopBar: number, isHighPressure: boolean): number {
  const share = stopBar * (1 + (isHighPressure ? DISTANCE.high : DISTANCE.workshop));
  const least =
    !isHighPressure && stopBar <= WORKSHOP_BAR ? Math.max(share, stopBar + DISTANCE.workshopBar) : share;
  // To a tenth of a millibar: 5 % of 12 bar is 0.6, whatever a double makes of it.
  return Math.round(least * 1e4) / 1e4;
}
