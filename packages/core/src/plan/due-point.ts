import { stepDays, type CalendarStep, type DayNumber, type Instant } from '../basics/index.js';
import type { CalendarTrigger, HoursTrigger, ServiceTask } from './service-plan.js';

/** Where a task counts from: the last time it was done, or the beginning of the machine's record. */
export interface StartingPoint {
  readonly hours: number | null;
  readonly day: DayNumber;
  /** Null when it was never done. */
  readonly doneAt: Instant | null;
}

/** A due point on one axis (run hours, or days), with the length of interval it ends. */
export interface DuePoint {
  readonly due: number;
  readonly span: number;
  /** How far before the point the task counts as nearing. */
  readonly window: number;
}

const NEARING_SHARE = 0.1;
const LEAST_NEARING_HOURS = 5;
const LEAST_NEARING_DAYS = 7;

/**
 * The last tenth of an interval, at least so much, but never more than half of it: or a weekly task would
 * always be nearing.
 */
function nearingWindow(span: number, least: number, chosen: number | undefined): number {
  return chosen ?? Math.min(Math.max(span * NEARING_SHARE, least), span / 2);
}

/** The run hours at which a trigger falls due. */
export function hoursDuePoint(
  trigger: HoursTrigger,
  counting: ServiceTask['counting'],
  startHours: number,
  everDone: boolean,
): DuePoint {
  const span = !everDone && trigger.first !== undefined ? trigger.first : trigger.every;
  const window = nearingWindow(span, LEAST_NEARING_HOURS, trigger.nearing);
  if (counting === 'last-done' || span !== trigger.every) return { due: startHours + span, span, window };
  // Work done inside the window before a grid point counts for that point.
  const settled = Math.floor((startHours + (everDone ? window : 0)) / span + 1e-9);
  return { due: (settled + 1) * span, span, window };
}

/** The day on which a trigger falls due. */
export function calendarDuePoint(
  trigger: CalendarTrigger,
  counting: ServiceTask['counting'],
  start: StartingPoint,
  commissionedDay: DayNumber,
): DuePoint {
  const everDone = start.doneAt !== null;
  const step = !everDone && trigger.first !== undefined ? trigger.first : trigger.every;
  if (counting === 'last-done' || step !== trigger.every) {
    const due = stepDays(start.day, step);
    const span = due - start.day;
    return { due, span, window: nearingWindow(span, LEAST_NEARING_DAYS, trigger.nearing) };
  }
  return gridDay(trigger, step, commissionedDay, start.day, everDone);
}

function gridDay(
  trigger: CalendarTrigger,
  step: CalendarStep,
  anchor: DayNumber,
  day: DayNumber,
  everDone: boolean,
): DuePoint {
  const about = 'days' in step ? step.days : step.months * 30.436875;
  let count = Math.max(1, Math.floor((day - anchor) / about) - 1);
  for (;;) {
    const due = stepDays(anchor, step, count);
    const span = due - stepDays(anchor, step, count - 1);
    const window = nearingWindow(span, LEAST_NEARING_DAYS, trigger.nearing);
    if (due > day + (everDone ? window : 0)) return { due, span, window };
    count += 1;
  }
}
