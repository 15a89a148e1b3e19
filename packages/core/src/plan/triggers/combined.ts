import { comesBefore, RANK, withoutPoint } from '../judged.js';
import { earlier, later } from '../moments.js';
import { formatHours, formatCalendarInterval } from '../format-figures.js';
import type { CalendarTrigger, HoursTrigger } from './intervals.js';
import type { ConditionTrigger } from './measured.js';
import { triggerKind } from './trigger-kind.js';
import type { SeasonTrigger, WaterTrigger } from './wear.js';

/** Due by a trigger, but never before a floor of hours or time. */
export interface NotBeforeTrigger {
  readonly kind: 'not-before';
  readonly trigger: HoursTrigger | CalendarTrigger | ConditionTrigger | SeasonTrigger | WaterTrigger;
  readonly floor: HoursTrigger | CalendarTrigger;
}

const notBefore = triggerKind<NotBeforeTrigger>({
  kind: 'not-before',
  name: 'Not before',
  fields: [
    { name: 'trigger', as: 'trigger', kinds: ['hours', 'calendar', 'condition', 'season', 'water'] },
    { name: 'floor', as: 'trigger', label: 'Never before', kinds: ['hours', 'calendar'] },
  ],
  usual: () => ({ floor: { kind: 'hours', every: 500 } }),
  text({ trigger, floor }, _say, inner) {
    const least = floor.kind === 'hours' ? formatHours(floor.every) : formatCalendarInterval(floor.every);
    return `${inner.text(trigger)}, not before ${least}`;
  },
  /** Due at the later of the two. A floor that cannot be told does not hold anything back. */
  judge(trigger, _task, _start, _moment, { judge }) {
    const inner = { ...judge(trigger.trigger), trigger };
    const floor = judge(trigger.floor);
    if (floor.state === 'unknown' || inner.state === 'unknown') return inner;
    const isHeld = comesBefore(inner, floor) || inner.axis === null;
    const held = isHeld && inner.axis !== null ? { ...floor, trigger } : inner;
    const state = RANK[inner.state] <= RANK[floor.state] ? inner.state : floor.state;
    return {
      ...held,
      found: inner.found,
      lives: inner.lives,
      state,
      used: inner.used === null ? floor.used : Math.min(inner.used, floor.used ?? inner.used),
      earlyAt: later(inner.earlyAt, floor.earlyAt),
      dueAt: later(inner.dueAt, floor.dueAt),
      lateAt: later(inner.lateAt, floor.lateAt),
      changesAt: earlier(inner.changesAt, floor.changesAt),
    };
  },
  scaled: (trigger, _shares, inner) => ({ ...trigger, trigger: inner.scaled(trigger.trigger) }),
  problem: ({ trigger }, inner) => inner.problem(trigger),
});

export const runMoments = ['while-running', 'each-day', 'at-start', 'at-stop'] as const;
export type RunMoment = (typeof runMoments)[number];

/**
 * Done within a run by whoever runs the machine: every so many minutes, each day of use, at every start or
 * stop. It has no date and is not recorded one by one.
 */
export interface RunTrigger {
  readonly kind: 'run';
  readonly when: RunMoment;
  /** Minutes of running, for `while-running`. */
  readonly everyMinutes?: number | undefined;
}

const momentNames = {
  'each-day': 'each day of use',
  'at-start': 'at each start',
  'at-stop': 'at each stop',
  'while-running': 'while running',
} as const satisfies Record<RunMoment, string>;

const run = triggerKind<RunTrigger>({
  kind: 'run',
  name: 'Every run',
  fields: [
    { name: 'when', as: 'choice', label: 'When', options: Object.entries(momentNames) },
    {
      name: 'everyMinutes',
      as: 'figure',
      label: 'Every',
      unit: 'min',
      min: 1,
      max: 1440,
      isWhole: true,
      isOptional: true,
      beside: ['when', 'while-running'],
    },
  ],
  usual: () => ({ when: 'each-day' }),
  text: ({ when, everyMinutes }) =>
    when === 'while-running' ? `every ${everyMinutes ?? 60} min of running` : momentNames[when],
  judge: (trigger) => withoutPoint(trigger, 'within-a-run'),
  scaled: (trigger, { hours }) =>
    trigger.everyMinutes === undefined
      ? trigger
      : { ...trigger, everyMinutes: Math.max(1, Math.round(trigger.everyMinutes * hours)) },
  problem: ({ when, everyMinutes }) =>
    (when === 'while-running') === (everyMinutes !== undefined)
      ? null
      : 'minutes of running belong to “while running”, and to that only.',
});

export const combinedTriggers = [notBefore, run] as const;
