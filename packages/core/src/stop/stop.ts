import { err, ok, type Instant, type Result } from '../basics/index.js';
import { checkByCode, type Verdict } from '../checks/index.js';

/** What must not be used: the unit, its air for breathing, one point of use, one side of a panel. */
export const stopScopes = ['unit', 'breathing', 'point', 'side'] as const;
export type StopScope = (typeof stopScopes)[number];

/** What a unit is taken out of service for. Some grounds no reason alone ends. */
export const stopGrounds = ['finding', 'relief', 'vessel', 'breathing-air', 'other'] as const;
export type StopGround = (typeof stopGrounds)[number];

/** Longest texts of taking out and of coming back. */
export const stopLimits = { why: 500, place: 120, informed: 120, shown: 500, reason: 1000 } as const;

/** A unit, or a part of its use, was taken out of service. */
export interface TakenOut {
  readonly id: string;
  readonly since: Instant;
  readonly by: string;
  readonly scope: StopScope;
  /** Which point of use, which side. */
  readonly place: string | null;
  readonly ground: StopGround;
  readonly why: string;
  /** What must be shown before it runs again. */
  readonly toShow: string | null;
  readonly informed: string | null;
}

/** It came back: by something better that is on record, or by somebody’s decision. */
export interface CameBack {
  readonly at: Instant;
  readonly by: string;
  /** Id of the fact that had taken it out: of that kind, or a measurement. */
  readonly ends: string;
}

/** A measurement as it was judged, the last of its check. */
export interface LastVerdict {
  readonly id: string;
  readonly check: string;
  readonly verdict: Verdict;
  readonly takenAt: Instant;
  readonly by: string;
  readonly reason: string;
}

/** Why something must not be used, as it stands; its id is that of the fact that it follows from. */
export interface StandingStop extends TakenOut {
  /** The check whose verdict it is; null where somebody took it out. */
  readonly check: string | null;
}

const BREATHED = new Set([
  'co',
  'co-monitor',
  'co-alarm',
  'air-quality',
  'water-content',
  'dew-point',
  'tower-ring',
]);
/** Checks of what hangs behind the network: the rest of it goes on. */
const AT_A_POINT = new Set(['bowl', 'hose', 'regulator']);
const GROUNDS: Readonly<Record<string, StopGround>> = {
  'relief-valve': 'relief',
  'pressure-settings': 'relief',
  'receiver-inside': 'vessel',
};

function scopeOf(check: string, isBreathedFrom: boolean): StopScope {
  if (isBreathedFrom && BREATHED.has(check)) return 'breathing';
  return AT_A_POINT.has(check) ? 'point' : 'unit';
}

function groundOf(check: string, isBreathedFrom = true): StopGround {
  if (isBreathedFrom && BREATHED.has(check)) return 'breathing-air';
  return GROUNDS[check] ?? 'finding';
}

/**
 * What stands against using a unit. A stop that was measured is worked out, never kept: it ends with a later
 * better verdict of the same check, with the measurement’s withdrawal, or with a decision.
 *
 * @param verdicts the last of each check that stands
 * @param isBreathedFrom whether somebody breathes the unit’s air: if nobody does, bad air stops the unit itself
 */
export function standingStops(
  verdicts: readonly LastVerdict[],
  taken: readonly TakenOut[],
  back: readonly CameBack[],
  isBreathedFrom = true,
): readonly StandingStop[] {
  const ended = (id: string, since: Instant) => back.some(({ ends, at }) => ends === id && at >= since);
  const measured = verdicts
    .filter(({ verdict, id, takenAt }) => verdict === 'stop' && !ended(id, takenAt))
    .map(({ id, check, takenAt, by, reason }) => ({
      id,
      since: takenAt,
      by,
      scope: scopeOf(check, isBreathedFrom),
      place: null,
      ground: groundOf(check, isBreathedFrom),
      check,
      why: `${checkByCode(check)?.name ?? check}: ${reason}`,
      toShow: `${checkByCode(check)?.name ?? check} again, with a better verdict`,
      informed: null,
    }));
  const takenOut = taken.filter(({ id, since }) => !ended(id, since)).map((one) => ({ ...one, check: null }));
  return [...takenOut, ...measured].sort((a, b) => a.since - b.since || (a.id < b.id ? -1 : 1));
}

/** What is given for coming back. */
export interface Ground {
  /** A later verdict of the unit. */
  readonly shown?: Pick<LastVerdict, 'check' | 'verdict' | 'takenAt'> | undefined;
  /** A vessel of it passed its examination by a licensed person, on this day. */
  readonly examinedAt?: Instant | undefined;
  readonly reason?: string | undefined;
  /** Who decides. */
  readonly decidedBy?: string | undefined;
}

const NO_REASON_ENDS: Readonly<Partial<Record<StopGround, string>>> = {
  relief: 'A relief valve is back only with its own test, or a valve with its paper measured in its place.',
  vessel: 'A pressure vessel is back only with an examination that it passed, by a licensed person.',
  'breathing-air': 'Air is breathed again only after a better measurement of it.',
};

/** Whether something comes back on a ground. */
export function admitReturn(
  stop: StandingStop,
  { shown, examinedAt, reason, decidedBy }: Ground,
): Result<null> {
  if (shown !== undefined) {
    if (shown.verdict === 'stop' || shown.verdict === 'act')
      return err('not-better', `That verdict is “${shown.verdict}”: it does not end a stop.`, 'shownBy');
    if (shown.takenAt <= stop.since)
      return err('not-later', 'That was measured before it was taken out of service.', 'shownBy');
    if (stop.check !== null && shown.check !== stop.check)
      return err(
        'another-check',
        `It is ended by ${checkByCode(stop.check)?.name ?? stop.check}, measured again.`,
        'shownBy',
      );
    // What was taken out by hand on such a ground comes back by a check of it.
    if (NO_REASON_ENDS[stop.ground] !== undefined && groundOf(shown.check) !== stop.ground)
      return err('another-check', NO_REASON_ENDS[stop.ground]!, 'shownBy');
    return ok(null);
  }
  if (examinedAt !== undefined) {
    if (stop.ground !== 'vessel')
      return err('another-check', 'The examination of a vessel says nothing of that.', 'shownBy');
    return examinedAt > stop.since
      ? ok(null)
      : err('not-later', 'That examination lies before it was taken out of service.', 'shownBy');
  }
  const never = NO_REASON_ENDS[stop.ground];
  if (never !== undefined) return err('no-reason-ends-it', never, 'shownBy');
  if (!reason?.trim() || !decidedBy?.trim())
    return err('missing', 'A better verdict, or who decides and why.', 'reason');
  return ok(null);
}

const scopeText: Readonly<Record<StopScope, string>> = {
  unit: 'Out of service',
  breathing: 'Not for breathing',
  point: 'Point of use out of service',
  side: 'Panel side out of service',
};

/** What must not be used, in a few words. */
export function stopText({ scope, place }: Pick<StandingStop, 'scope' | 'place'>): string {
  return place === null ? scopeText[scope] : `${scopeText[scope]}: ${place}`;
}
