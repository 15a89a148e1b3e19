import { checkByCode, checksFor, type CheckDefinition } from '../../checks/index.js';
import type { DataPlate } from '../../machine/index.js';
import { conditionFound, NEARING_SHARE } from '../condition.js';
import { judgeHoursPoint, withoutPoint } from '../judged.js';
import { formatLimit } from '../format-figures.js';
import type { CalendarTrigger, HoursTrigger } from './intervals.js';
import { triggerKind } from './trigger-kind.js';
import type { SeasonTrigger, WaterTrigger } from './wear.js';

/** Checks that a limit can be set on: those with a figure that wears one way. */
export function limitChecks(plate: DataPlate): readonly CheckDefinition[] {
  return checksFor(plate).filter(({ figure }) => figure !== undefined && figure.worse !== 'either');
}

/** Due when a measured figure reaches a limit, by the trend of its check against run hours. */
export interface ConditionTrigger {
  readonly kind: 'condition';
  /** Code of a check that has a figure. */
  readonly check: string;
  /** In the unit of the check's figure; or a share of the unit's own baseline where `of` says so. */
  readonly limit: number;
  readonly of?: 'baseline' | undefined;
  /** What holds until something was measured, and says how quickly the rest of the way is gone. */
  readonly unmeasured?: HoursTrigger | CalendarTrigger | SeasonTrigger | WaterTrigger | undefined;
}

const condition = triggerKind<ConditionTrigger>({
  kind: 'condition',
  name: 'A measured limit',
  fields: [
    { name: 'check', as: 'check', label: 'Measured by' },
    {
      name: 'of',
      as: 'choice',
      label: 'The limit is',
      options: [['baseline', 'a share of the baseline']],
      isOptional: true,
    },
    {
      name: 'limit',
      as: 'figure',
      label: 'Limit',
      min: -1000,
      max: 1_000_000,
      about: 'In the unit of the check’s figure, or a share of the baseline.',
    },
    {
      name: 'unmeasured',
      as: 'trigger',
      label: 'Until it is measured',
      kinds: ['hours', 'calendar', 'season', 'water'],
      isOptional: true,
      about: 'What holds while nothing was measured.',
    },
  ],
  usual: (plate) => ({ check: limitChecks(plate)[0]?.code }),
  text: (trigger, format, inner) =>
    `when ${formatLimit(trigger, format)}${trigger.unmeasured === undefined ? '' : `; until measured ${inner.text(trigger.unmeasured)}`}`,
  // What is measured can speak for a machine whose history nobody knows.
  judge(trigger, task, start, moment, inner) {
    const doneHours = start?.doneAt === null || start === null ? null : start.hours;
    const found = conditionFound(trigger, moment.history, moment.clock, doneHours);
    const rule = trigger.unmeasured === undefined ? null : inner.judge(trigger.unmeasured);
    if (found.known === 'nothing') {
      if (rule) return { ...rule, trigger, found };
      const isSettled = start !== null && start.basis !== 'commissioned';
      return { ...withoutPoint(trigger, 'not-measured', isSettled ? 'fresh' : 'unknown'), found };
    }
    const { share, latestHours } = found;
    if (found.known === 'point') {
      if (moment.hours === null) return { ...withoutPoint(trigger, 'hours-unknown'), used: share, found };
      const option = { ...found, ...wayTo(found.due, share, latestHours, moment.hours) };
      return { ...judgeHoursPoint(trigger, task, start, option, moment), found };
    }
    // No trend yet: the rest of the way takes its share of the life by the rule.
    if (rule?.axis === 'hours' && rule.span !== null && moment.hours !== null) {
      const due = latestHours + Math.max(0, 1 - share) * rule.span;
      const option = { due, span: rule.span, ...wayTo(due, share, latestHours, moment.hours) };
      return { ...judgeHoursPoint(trigger, task, start, option, moment), found };
    }
    const state = share >= NEARING_SHARE ? 'nearing' : 'fresh';
    return { ...withoutPoint(trigger, found.why, state), used: share, found };
  },
  scaled: (trigger, _shares, inner) =>
    trigger.unmeasured === undefined ? trigger : { ...trigger, unmeasured: inner.scaled(trigger.unmeasured) },
  problem({ check, unmeasured }, inner) {
    const figure = checkByCode(check)?.figure;
    if (!figure) return `there is no check called ${check} with a figure.`;
    if (figure.worse === 'either')
      return `${figure.name.toLowerCase()} has a limit on both sides, and no trend to one.`;
    return unmeasured === undefined ? null : inner.problem(unmeasured);
  },
});

/** How much of the way is gone at some run hours, and how long before its end it nears. */
function wayTo(
  due: number,
  share: number,
  latestHours: number,
  hours: number,
): { readonly used: number; readonly window: number } {
  const rest = Math.max(due - latestHours, 0);
  if (share >= 1 || rest === 0) return { used: Math.max(share, 1), window: rest };
  const gone = Math.max(0, (hours - latestHours) / rest);
  return {
    used: share + (1 - share) * gone,
    window: share >= NEARING_SHARE ? rest : (rest * (1 - NEARING_SHARE)) / (1 - share),
  };
}

export const measuredTriggers = [condition] as const;
