import { checkByCode, checksFor, type CheckDefinition } from '../../checks/index.js';
import type { DataPlate } from '../../machine/index.js';
import { conditionFound } from '../condition.js';
import { judgeHoursPoint, withoutPoint } from '../judged.js';
import { sayLimit } from '../say-figures.js';
import { triggerKind } from './trigger-kind.js';

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
  ],
  usual: (plate) => ({ check: limitChecks(plate)[0]?.code }),
  text: (trigger, say) => `when ${sayLimit(trigger, say)}`,
  // What is measured can speak for a machine whose history nobody knows.
  judge(trigger, task, start, moment) {
    const doneHours = start?.doneAt === null || start === null ? null : start.hours;
    const found = conditionFound(trigger, moment.history, moment.clock, doneHours);
    if (found.known === 'nothing') {
      const isSettled = start !== null && start.basis !== 'commissioned';
      return { ...withoutPoint(trigger, 'not-measured'), ...(isSettled ? { state: 'fresh' } : {}), found };
    }
    if (found.known === 'within') return { ...withoutPoint(trigger, found.why), state: 'fresh', found };
    if (moment.hours === null) return { ...withoutPoint(trigger, 'hours-unknown'), found };
    return { ...judgeHoursPoint(trigger, task, start, found, moment), found };
  },
  problem({ check }) {
    const figure = checkByCode(check)?.figure;
    if (!figure) return `there is no check called ${check} with a figure.`;
    return figure.worse === 'either'
      ? `${figure.name.toLowerCase()} has a limit on both sides, and no trend to one.`
      : null;
  },
});

export const measuredTriggers = [condition] as const;
