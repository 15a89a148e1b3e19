import { formatDay, localDayAt, shiftDays, type Instant, type LocalDate } from '../basics/index.js';
import type { ServiceTask } from './service-plan.js';
import type { Trigger } from './triggers/index.js';

/** How a thing was found, as a share of its interval. */
export const foundShares = { new: 0, quarter: 0.25, half: 0.5, most: 0.75, spent: 1 } as const;
export type FoundShare = keyof typeof foundShares;

/** Where a task counts from, as it is recorded. */
export interface FoundPoint {
  readonly task: string;
  readonly hoursUsed: number;
  readonly countsFromOn: LocalDate;
}

/**
 * The share of its interval that was found used, in hours and in days, by the shortest of each.
 *
 * @param used 0 as good as new, 1 used up: due at once
 */
export function pointByShare(
  { code, triggers }: Pick<ServiceTask, 'code' | 'triggers'>,
  used: number,
  at: Instant,
  timeZone: string,
): FoundPoint {
  const all = triggers.flatMap(withHeld);
  const spans = all.flatMap((trigger) =>
    trigger.kind === 'hours' ? [trigger.every] : trigger.kind === 'season' ? [trigger.warm] : [],
  );
  const today = localDayAt(at, timeZone);
  const days = all.flatMap((trigger) =>
    // Backwards, so that what is used up falls due today.
    trigger.kind === 'calendar' ? [today - shiftDays(today, trigger.every, -1)] : [],
  );
  return {
    task: code,
    hoursUsed: spans.length === 0 ? 0 : Math.round(Math.min(...spans) * used * 10) / 10,
    countsFromOn: formatDay(today - (days.length === 0 ? 0 : Math.round(Math.min(...days) * used))),
  };
}

/** A trigger, and what it holds in itself. */
function withHeld(trigger: Trigger): readonly Trigger[] {
  if (trigger.kind === 'not-before') return withHeld(trigger.trigger);
  if (trigger.kind === 'condition' && trigger.unmeasured) return [trigger, trigger.unmeasured];
  return [trigger];
}
