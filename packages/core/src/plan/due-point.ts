import { shiftDays, type CalendarInterval, type DayNumber, type Instant } from '../basics/index.js';

/** So many hours, or so long, between two services; the first time it may be another. */
interface Interval<Length> {
  readonly every: Length;
  readonly first?: Length | undefined;
  /** How far before the point it counts as nearing. */
  readonly nearing?: number | undefined;
}
type Counting = 'last-done' | 'grid';

/** What the starting point of a task rests on. */
export type StartBasis =
  /** the work was recorded */
  | 'done'
  /** it was never done: the beginning of the machine's record */
  | 'commissioned'
  /** a first inspection of a machine with an unknown history */
  | 'inspection'
  /** what its sticker says */
  | 'sticker'
  /** an estimate that somebody accepted */
  | 'estimate';

/** Where a task counts from. */
export interface StartingPoint {
  readonly basis: StartBasis;
  readonly at: Instant;
  readonly hours: number | null;
  readonly day: DayNumber;
  /** Null when it was never done on record. */
  readonly doneAt: Instant | null;
  /**
   * Done as part of a bigger task on the grid, its work also counts for the grid point that the bigger one
   * was done for: run hours, and the day.
   */
  readonly creditHours?: number | undefined;
  readonly creditDay?: DayNumber | undefined;
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

/** The same for an interval of hours. */
export function nearingHours(span: number, chosen?: number): number {
  return nearingWindow(span, LEAST_NEARING_HOURS, chosen);
}

type Start = Pick<StartingPoint, 'basis' | 'creditHours' | 'creditDay'>;

/** The run hours at which a trigger falls due. */
export function hoursDuePoint(
  trigger: Interval<number>,
  counting: Counting,
  start: Start,
  startHours: number,
): DuePoint {
  const everDone = start.basis !== 'commissioned';
  const span = !everDone && trigger.first !== undefined ? trigger.first : trigger.every;
  const window = nearingHours(span, trigger.nearing);
  if (counting === 'last-done' || span !== trigger.every) return { due: startHours + span, span, window };
  const settled = Math.floor(settledHours(start, startHours, window) / span + 1e-9);
  return { due: (settled + 1) * span, span, window };
}

/** Work done inside the window before a grid point counts for that point. */
function settledHours(start: Start, hours: number, window: number): number {
  return Math.max(
    hours + (start.basis === 'commissioned' ? 0 : window),
    start.creditHours ?? Number.NEGATIVE_INFINITY,
  );
}

/** The next of the fixed figures of run hours; null when the last is behind. */
export function milestoneDuePoint(at: readonly number[], start: Start, startHours: number): DuePoint | null {
  let before = 0;
  for (const due of at) {
    const span = due - before;
    const window = nearingHours(span);
    if (due > settledHours(start, startHours, window) + 1e-9) return { due, span, window };
    before = due;
  }
  return null;
}

/** The day on which a trigger falls due. */
export function calendarDuePoint(
  trigger: Interval<CalendarInterval>,
  counting: Counting,
  start: StartingPoint,
  commissionedDay: DayNumber,
): DuePoint {
  const everDone = start.basis !== 'commissioned';
  const step = !everDone && trigger.first !== undefined ? trigger.first : trigger.every;
  if (counting === 'last-done' || step !== trigger.every) {
    const due = shiftDays(start.day, step);
    const span = due - start.day;
    return { due, span, window: nearingWindow(span, LEAST_NEARING_DAYS, trigger.nearing) };
  }
  return gridDay(trigger, step, commissionedDay, start);
}

function gridDay(
  trigger: Interval<CalendarInterval>,
  step: CalendarInterval,
  anchor: DayNumber,
  { day, basis, creditDay = Number.NEGATIVE_INFINITY }: StartingPoint,
): DuePoint {
  const about = 'days' in step ? step.days : step.months * 30.436875;
  let count = Math.max(1, Math.floor((day - anchor) / about) - 1);
  for (;;) {
    const due = shiftDays(anchor, step, count);
    const span = due - shiftDays(anchor, step, count - 1);
    const window = nearingWindow(span, LEAST_NEARING_DAYS, trigger.nearing);
    if (due > Math.max(day + (basis === 'commissioned' ? 0 : window), creditDay))
      return { due, span, window };
    count += 1;
  }
}
