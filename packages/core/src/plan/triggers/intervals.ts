import type { CalendarInterval } from '../../basics/index.js';
import { formatFigure } from '../../quantities/index.js';
import { calendarDuePoint, hoursDuePoint, milestoneDuePoint } from '../due-point.js';
import { judgeDayPoint, judgeHoursPoint, withoutPoint } from '../judged.js';
import { formatHours, formatCalendarInterval } from '../format-figures.js';
import { roundHours, scaleStep, triggerKind, triggerLimits } from './trigger-kind.js';

const [leastHours, mostHours] = triggerLimits.hours;

/** Due every so many run hours. */
export interface HoursTrigger {
  readonly kind: 'hours';
  readonly every: number;
  /** The first time only, counted from commissioning. */
  readonly first?: number | undefined;
  /** Hours before the point from which the task counts as nearing; default a tenth, at least 5 h. */
  readonly nearing?: number | undefined;
}

const hours = triggerKind<HoursTrigger>({
  kind: 'hours',
  name: 'Run hours',
  fields: [
    {
      name: 'every',
      as: 'figure',
      label: 'Every',
      unit: 'h',
      min: leastHours,
      max: mostHours,
      about: 'Run hours between two services.',
    },
    {
      name: 'first',
      as: 'figure',
      label: 'First at',
      unit: 'h',
      min: leastHours,
      max: mostHours,
      isOptional: true,
      about: 'The first time only, counted from commissioning.',
    },
    {
      name: 'nearing',
      as: 'figure',
      min: 0,
      max: 100_000,
      isOptional: true,
      about: 'Hours before the point from which it counts as nearing.',
    },
  ],
  usual: () => ({ every: 500 }),
  text({ every, first }) {
    const again = `every ${formatHours(every)}`;
    return first === undefined ? again : `first at ${formatHours(first)}, then ${again}`;
  },
  judge(trigger, task, start, moment) {
    if (start === null) return withoutPoint(trigger, 'no-start');
    if (start.hours === null || moment.hours === null) return withoutPoint(trigger, 'hours-unknown');
    const point = hoursDuePoint(trigger, task.counting, start, start.hours);
    return judgeHoursPoint(trigger, task, start, point, moment);
  },
  scaled: (trigger, shares) => ({ ...trigger, every: roundHours(trigger.every * shares.hours) }),
});

/** Due every so many months or days. */
export interface CalendarTrigger {
  readonly kind: 'calendar';
  readonly every: CalendarInterval;
  /** The first time only, counted from commissioning. */
  readonly first?: CalendarInterval | undefined;
  /** Days before the date from which the task counts as nearing; default a tenth, at least 7 days. */
  readonly nearing?: number | undefined;
}

const calendar = triggerKind<CalendarTrigger>({
  kind: 'calendar',
  name: 'Calendar',
  fields: [
    { name: 'every', as: 'interval', label: 'Every' },
    { name: 'first', as: 'interval', label: 'First after', isOptional: true },
    {
      name: 'nearing',
      as: 'figure',
      min: 0,
      max: 9000,
      isOptional: true,
      about: 'Days before the date from which it counts as nearing.',
    },
  ],
  usual: () => ({ every: { months: 12 } }),
  text({ every, first }) {
    const again = `every ${formatCalendarInterval(every)}`;
    return first === undefined ? again : `first after ${formatCalendarInterval(first)}, then ${again}`;
  },
  judge(trigger, task, start, moment) {
    if (start === null) return withoutPoint(trigger, 'no-start');
    const point = calendarDuePoint(trigger, task.counting, start, moment.clock.commissionedDay);
    return judgeDayPoint(trigger, task, point, moment);
  },
  scaled: (trigger, shares) => ({ ...trigger, every: scaleStep(trigger.every, shares.calendar) }),
});

/** Due at fixed figures of run hours in the machine's life, and never again after the last. */
export interface MilestoneTrigger {
  readonly kind: 'milestone';
  /** Run hours, rising. */
  readonly at: readonly number[];
}

const milestone = triggerKind<MilestoneTrigger>({
  kind: 'milestone',
  name: 'Fixed figures of hours',
  fields: [
    {
      name: 'at',
      as: 'figures',
      label: 'At',
      unit: 'h',
      hint: 'Like 500, 2000, 8000.',
      about: 'Run hours of the machine’s life.',
    },
  ],
  usual: () => ({ at: [500, 2000, 8000] }),
  text: ({ at }) => `at ${at.map((figure) => formatFigure(figure)).join(', ')} h`,
  judge(trigger, task, start, moment) {
    if (start === null) return withoutPoint(trigger, 'no-start');
    if (start.hours === null || moment.hours === null) return withoutPoint(trigger, 'hours-unknown');
    const point = milestoneDuePoint(trigger.at, start, start.hours);
    return point
      ? judgeHoursPoint(trigger, task, start, point, moment)
      : withoutPoint(trigger, 'no-milestone-left', 'fresh');
  },
  problem: ({ at }) =>
    at.some((figure, index) => index > 0 && figure <= at[index - 1]!)
      ? 'its fixed figures of hours must rise.'
      : null,
});

export const intervalTriggers = [hours, calendar, milestone] as const;
