import { dayNumberOf, startOfLocalDay, type Instant } from '../basics/index.js';
import { clockReaches } from './clock.js';
import type { StartingPoint } from './due-point.js';
import type { Deferral } from './history.js';
import { comesBefore, RANK, type JudgedTrigger, type Moment, type TaskState } from './judged.js';
import { earlier } from './moments.js';
import type { ServiceTask, Trigger } from './service-plan.js';
import { judgeTrigger } from './triggers/index.js';

/** All triggers of a task taken together. */
export interface JudgedTriggers {
  readonly state: TaskState;
  readonly used: number | null;
  readonly hoursPoint: number | null;
  readonly dayPoint: number | null;
  readonly ruling: JudgedTrigger | null;
  /** The first to come, by early dates and by late ones. */
  readonly earlyAt: Instant | null;
  readonly lateAt: Instant | null;
  readonly changesAt: Instant | null;
  readonly all: readonly JudgedTrigger[];
}

/** Judges every trigger of a task, and takes the first to come. */
export function judgeTriggers(
  task: ServiceTask,
  triggers: readonly Trigger[],
  start: StartingPoint | null,
  moment: Moment,
): JudgedTriggers {
  let state: TaskState = 'unknown';
  let used: number | null = null;
  let hoursPoint: number | null = null;
  let dayPoint: number | null = null;
  let ruling: JudgedTrigger | null = null;
  let earlyAt: Instant | null = null;
  let lateAt: Instant | null = null;
  let changesAt: Instant | null = null;
  let isJudged = false;
  const all: JudgedTrigger[] = [];
  for (const trigger of triggers) {
    const judged = judgeTrigger(trigger, task, start, moment);
    all.push(judged);
    if (judged.axis === 'hours') hoursPoint = Math.min(hoursPoint ?? Infinity, judged.point!);
    else if (judged.axis === 'day') dayPoint = Math.min(dayPoint ?? Infinity, judged.point!);
    // A trigger that cannot be judged leaves the word to those that can.
    if (judged.state === 'unknown') continue;
    if (!isJudged || RANK[judged.state] > RANK[state]) state = judged.state;
    isJudged = true;
    if (judged.used !== null) used = Math.max(used ?? 0, judged.used);
    changesAt = earlier(changesAt, judged.changesAt);
    earlyAt = earlier(earlyAt, judged.earlyAt);
    lateAt = earlier(lateAt, judged.lateAt);
    if (judged.axis !== null && (ruling === null || comesBefore(judged, ruling))) ruling = judged;
  }
  return { state, used, hoursPoint, dayPoint, ruling, earlyAt, lateAt, changesAt, all };
}

/** A putting off that still holds, and when it ends; null where none does. */
export function deferralInForce(
  task: ServiceTask,
  deferral: Deferral | undefined,
  start: StartingPoint | null,
  { at, hours, clock, history }: Moment,
): { readonly deferral: Deferral; readonly endsAt: Instant | null } | null {
  if (!deferral) return null;
  // Doing the work ends it; and nobody puts off what keeps somebody alive without naming the risk.
  if (start !== null && start.basis !== 'commissioned' && start.at >= deferral.deferredAt) return null;
  if (task.safety && !deferral.risk) return null;
  const { untilHours = null, untilOn = null } = deferral;
  if (untilHours !== null && hours !== null && hours >= untilHours) return null;
  const endsOn = untilOn === null ? null : startOfLocalDay(dayNumberOf(untilOn), history.timeZone);
  if (endsOn !== null && at >= endsOn) return null;
  const endsByHours = untilHours === null ? null : clockReaches(clock, untilHours);
  return { deferral, endsAt: earlier(endsOn, endsByHours) };
}
