import type { CalendarStep } from '../basics/index.js';
import { checkByCode } from '../checks/index.js';
import { formatFigure, formatQuantity, type QuantityKind } from '../quantities/index.js';
import type { ConditionTrigger, RunTrigger, Trigger } from './service-plan.js';

/** Writes a figure with its unit, as the reader likes it. */
export type SayQuantity = (value: number, quantity: QuantityKind) => string;

export const sayStored: SayQuantity = (value, quantity) => {
  const { figure, unit } = formatQuantity(value, quantity);
  return `${figure} ${unit}`;
};

/** Hours with their unit; thin ones keep a decimal. */
export function sayHours(hours: number): string {
  return `${formatFigure(hours, { maxDecimals: Math.abs(hours) < 100 ? 1 : 0 })} h`;
}

/** A step along the calendar in words: `3 months`, `month`, `15 days`. */
export function sayStep(step: CalendarStep): string {
  const [count, word] = 'months' in step ? [step.months, 'month'] : [step.days, 'day'];
  return count === 1 ? word : `${count} ${word}s`;
}

/** When a trigger makes its task due, in words that follow the name of the task. */
export function sayTrigger(trigger: Trigger, say: SayQuantity = sayStored): string {
  switch (trigger.kind) {
    case 'hours': {
      const every = `every ${sayHours(trigger.every)}`;
      return trigger.first === undefined ? every : `first at ${sayHours(trigger.first)}, then ${every}`;
    }
    case 'calendar': {
      const every = `every ${sayStep(trigger.every)}`;
      return trigger.first === undefined ? every : `first after ${sayStep(trigger.first)}, then ${every}`;
    }
    case 'milestone':
      return `at ${trigger.at.map((hours) => formatFigure(hours)).join(', ')} h`;
    case 'season':
      return `${sayHours(trigger.warm)} warm, ${sayHours(trigger.cold)} cold`;
    case 'water':
      return `when ${say(trigger.takesG, 'mass')} of water are taken up`;
    case 'condition':
      return `when ${sayLimit(trigger, say)}`;
    case 'not-before': {
      const floor =
        trigger.floor.kind === 'hours' ? sayHours(trigger.floor.every) : sayStep(trigger.floor.every);
      return `${sayTrigger(trigger.trigger, say)}, not before ${floor}`;
    }
    case 'run':
      return sayRun(trigger);
  }
}

/** When the first of some triggers makes a task due; without any it is done on failure. */
export function sayTriggers(triggers: readonly Trigger[], say: SayQuantity = sayStored): string {
  return triggers.map((one) => sayTrigger(one, say)).join(' or ') || 'on failure';
}

/** The limit of a condition: `pressure drop reaches 1 bar`. */
export function sayLimit(trigger: ConditionTrigger, say: SayQuantity = sayStored): string {
  const figure = checkByCode(trigger.check)?.figure;
  const name = (figure?.name ?? trigger.check).toLowerCase();
  const verb = figure?.worse === 'lower' ? 'falls to' : 'reaches';
  if (trigger.of === 'baseline') {
    return `${name} ${verb} ${formatFigure(trigger.limit * 100)} % of the baseline`;
  }
  return `${name} ${verb} ${sayMeasured(trigger.check, trigger.limit, say)}`;
}

/** A figure of a check with its unit. */
export function sayMeasured(check: string, value: number, say: SayQuantity = sayStored): string {
  const figure = checkByCode(check)?.figure;
  return figure?.quantity
    ? say(value, figure.quantity)
    : `${formatFigure(value, { maxDecimals: 1 })} ${figure?.unit ?? ''}`.trim();
}

const runWords = {
  'each-day': 'each day of use',
  'at-start': 'at each start',
  'at-stop': 'at each stop',
} as const;

function sayRun({ when, everyMinutes }: RunTrigger): string {
  return when === 'while-running' ? `every ${everyMinutes ?? 60} min of running` : runWords[when];
}
