import type { TaskStandingView } from '@entretien/contracts';
import { DAY_MS, dayNumberOf, describeDay, describeDayOfYear, localDayAt } from '@entretien/core/basics';
import { formatHoursSeen, type MeterScale } from '@entretien/core/hours';
import { formatFigure } from '@entretien/core/quantities';

/** What a list needs to say of when a task is due. */
export interface DueText {
  /** "in 9 d", "38 h late", "inspect first". */
  readonly short: string;
  /** The date and the figure of hours, whichever there are: "5 Dec · at 500 h". */
  readonly exact: string;
  /** The date alone, or the figure of hours where there is none: for where room is short. */
  readonly date: string;
}

type DueFacts = Pick<
  TaskStandingView,
  'state' | 'ruledBy' | 'remainingHours' | 'dueAtHours' | 'dueOn' | 'likelyOn'
> &
  Partial<Pick<TaskStandingView, 'earlyOn' | 'lateOn' | 'startedBy' | 'vessel' | 'deferral' | 'coveredBy'>>;

/** What presses most, by name; a machine of which nothing is on record has no name for it. */
export function namePressing(
  task: Pick<TaskStandingView, 'name' | 'state' | 'startedBy' | 'vessel'>,
): string {
  return task.state === 'unknown' && task.startedBy === null && task.vessel === null
    ? 'No history'
    : task.name;
}

/**
 * Says when a task is due, in the terms of the trigger that rules.
 *
 * @param meter that of the machine: figures of hours are those that its meter will show
 */
export function describeDue(task: DueFacts, now: number, timeZone: string, meter: MeterScale): DueText {
  if (task.state === 'unknown') {
    if (task.vessel) return text('no date', 'date not on record');
    return task.startedBy ? text('measure', 'not measured yet') : text('inspect first', 'nothing on record');
  }
  if (task.state === 'due' && !task.startedBy && !task.vessel && task.startedBy !== undefined)
    return text('due now', 'safety: never seen');
  if (task.deferral) {
    const { untilOn, untilHours } = task.deferral;
    const until = [
      untilOn === null ? '' : formatDate(untilOn, now, timeZone),
      untilHours === null ? '' : formatHoursSeen(meter, Math.round(untilHours)),
    ];
    return text('put off', `until ${until.filter(Boolean).join(' or ')}`);
  }
  const exact = exactly(task, now, timeZone, meter);
  return {
    short: shortly(task, now, timeZone),
    exact: exact.join(' · '),
    date: dateOf(task, now, timeZone) ?? exact[0] ?? '',
  };
}

function text(short: string, exact: string): DueText {
  return { short, exact, date: exact };
}

function dateOf(task: DueFacts, now: number, timeZone: string): string | null {
  const date = task.ruledBy === 'calendar' ? task.dueOn : task.likelyOn;
  return date === null ? null : formatDate(date, now, timeZone);
}

function shortly(task: DueFacts, now: number, timeZone: string): string {
  if (task.ruledBy === 'hours' && task.remainingHours !== null) {
    const hours = Math.abs(task.remainingHours);
    if (hours < 0.5) return 'due now';
    const figure = formatFigure(hours, { figures: hours < 10 ? 2 : 3, maxDecimals: hours < 10 ? 1 : 0 });
    return task.remainingHours < 0 ? `${figure} h late` : `${figure} h left`;
  }
  if (task.likelyOn === null) return task.state === 'fresh' && task.dueAtHours === null ? 'OK' : 'no date';
  const days = dayNumberOf(task.likelyOn) - localDayAt(now, timeZone);
  if (days === 0) return 'due today';
  return days < 0 ? `${formatDays(-days)} late` : `in ${formatDays(days)}`;
}

function exactly(task: DueFacts, now: number, timeZone: string, meter: MeterScale): readonly string[] {
  const parts: string[] = [];
  const date = dateOf(task, now, timeZone);
  if (date !== null) {
    const spread = task.ruledBy === 'hours' ? spreadOf(task) : null;
    const about = task.ruledBy === 'hours' && spread === null ? 'about ' : '';
    parts.push(`${about}${date}${spread === null ? '' : ` ${spread}`}`);
  }
  if (task.dueAtHours !== null) parts.push(`at ${formatHoursSeen(meter, Math.round(task.dueAtHours))}`);
  return parts;
}

/** How sure a date is: "± 6 d", or "or later" where there is no telling; null where it is sure to the day. */
function spreadOf({ earlyOn, lateOn, remainingHours }: DueFacts): string | null {
  if (!earlyOn || remainingHours === null || remainingHours <= 0) return null;
  if (lateOn === null || lateOn === undefined) return 'or much later';
  const days = Math.round((dayNumberOf(lateOn) - dayNumberOf(earlyOn)) / 2);
  return days < 1 ? null : `± ${formatDays(days)}`;
}

/** A span of days in the unit one would say it in. */
export function formatDays(days: number): string {
  if (days < 21) return `${days} d`;
  if (days < 70) return `${Math.round(days / 7)} wk`;
  if (days < 730) return `${Math.round(days / 30.44)} mo`;
  return `${Math.round(days / 365.25)} yr`;
}

/** A local date in words; the year only when it is another one. */
export function formatDate(date: string, now: number, timeZone: string): string {
  const thisYear = new Date(localDayAt(now, timeZone) * DAY_MS).getUTCFullYear();
  return Number(date.slice(0, 4)) === thisYear ? describeDayOfYear(date) : describeDay(date);
}

/** How long ago a moment was, as one would say it. */
export function formatAgo(instant: number, now: number, timeZone: string): string {
  const days = localDayAt(now, timeZone) - localDayAt(instant, timeZone);
  if (days <= 0) return 'today';
  return days === 1 ? 'yesterday' : `${formatDays(days)} ago`;
}
