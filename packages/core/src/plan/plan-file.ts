import {
  intervalOrigins,
  isolationStates,
  planParts,
  severityKinds,
  taskActions,
  taskLimits,
} from './service-plan.js';
import { families, type Family } from '../machine/index.js';
import { packagesOf } from './packages.js';
import type { ServicePlan } from './service-plan.js';
import { triggerLimits, triggerModules, type TriggerField, type TriggerModule } from './triggers/index.js';

/** A plan as it is exchanged: plain JSON, by {@link planFileSchema}. */
export interface PlanFile extends ServicePlan {
  readonly format: 'entretien-plan';
  readonly version: 1;
  readonly family: Family;
  readonly name?: string | undefined;
}

/** A plan as a file, for a family of machines: what belongs together is written out. */
export function planFileOf(plan: ServicePlan, family: Family, name?: string): PlanFile {
  return {
    format: 'entretien-plan',
    version: 1,
    family,
    ...(name === undefined ? {} : { name }),
    ...planParts(plan),
    packages: packagesOf(plan, { family }),
  };
}

const code = { type: 'string', pattern: '^[a-z][a-z0-9-]{1,39}$' };
const text = (longest: number) => ({ type: 'string', minLength: 1, maxLength: longest, pattern: '\\S' });
const figure = (least: number, most: number, description?: string) => ({
  type: 'number',
  minimum: least,
  maximum: most,
  ...(description ? { description } : {}),
});
const closed = (properties: object, required: readonly string[]) => ({
  type: 'object',
  properties,
  required,
  additionalProperties: false,
});
const ref = (name: string) => ({ $ref: `#/$defs/${name}` });

const [
  [leastHours, mostHours],
  [leastMonths, mostMonths],
  [leastDays, mostDays],
  [leastFigures, mostFigures],
] = [triggerLimits.hours, triggerLimits.months, triggerLimits.days, triggerLimits.figures];
const whole = (minimum: number, maximum: number) => ({ type: 'integer', minimum, maximum });

const interval = {
  oneOf: [
    closed({ months: whole(leastMonths, mostMonths) }, ['months']),
    closed({ days: whole(leastDays, mostDays) }, ['days']),
  ],
};

function fieldSchema(field: TriggerField): object {
  switch (field.as) {
    case 'figure':
      return field.isWhole ? whole(field.min, field.max) : figure(field.min, field.max, field.about);
    case 'interval':
      return interval;
    case 'figures': {
      const items = figure(leastHours, mostHours, field.about);
      return { type: 'array', items, minItems: leastFigures, maxItems: mostFigures };
    }
    case 'choice':
      return { enum: field.options.map(([option]) => option) };
    case 'check':
      return code;
    case 'months':
      return { type: 'array', description: field.about, items: whole(1, 12), minItems: 2, maxItems: 2 };
    case 'trigger':
      return { oneOf: field.kinds.map(ref) };
  }
}

/** The schema of each kind of trigger, by the fields that it says it has. */
const triggersOf = (modules: readonly TriggerModule[]): Readonly<Record<string, object>> =>
  Object.fromEntries(
    modules.map(({ kind, fields }) => [
      kind,
      closed(
        {
          kind: { const: kind },
          ...Object.fromEntries(fields.map((field) => [field.name, fieldSchema(field)])),
        },
        ['kind', ...fields.flatMap(({ name, isOptional }) => (isOptional ? [] : [name]))],
      ),
    ]),
  );

const otherIntervals = (triggers: readonly string[]) => ({
  type: 'array',
  description: 'What other sources say of its interval, kept beside the chosen one.',
  items: closed(
    {
      origin: { enum: [...intervalOrigins] },
      triggers: {
        type: 'array',
        items: { oneOf: triggers.map(ref) },
        minItems: 1,
        maxItems: taskLimits.triggers,
      },
    },
    ['origin', 'triggers'],
  ),
  maxItems: taskLimits.others,
});

const severity = {
  type: 'array',
  items: closed(
    {
      kind: { enum: [...severityKinds] },
      times: figure(...taskLimits.times),
      on: { enum: ['hours', 'calendar'] },
      because: text(taskLimits.reason),
    },
    ['kind', 'because'],
  ),
  maxItems: taskLimits.severity,
};

const taskOf = (triggers: readonly string[]) =>
  closed(
    {
      code,
      name: text(taskLimits.name),
      station: code,
      action: { enum: [...taskActions] },
      triggers: {
        type: 'array',
        description: 'The first to come rules. Empty: done on failure.',
        items: { oneOf: triggers.map(ref) },
        maxItems: taskLimits.triggers,
      },
      counting: { enum: ['last-done', 'grid'] },
      isolation: { enum: [...isolationStates] },
      opens: {
        type: 'array',
        description: 'What its work opens: its isolation follows from it.',
        items: code,
        maxItems: taskLimits.opens,
        uniqueItems: true,
      },
      testedBy: {
        type: 'array',
        description: 'Checks, any of which gives its result: it is done only with that.',
        items: code,
        maxItems: taskLimits.checks,
        uniqueItems: true,
      },
      verifiedBy: {
        type: 'array',
        description: 'Checks that its work should change; empty: nothing that can be measured.',
        items: code,
        maxItems: taskLimits.checks,
        uniqueItems: true,
      },
      minutes: whole(0, taskLimits.minutes),
      origin: { enum: [...intervalOrigins] },
      others: otherIntervals(triggers),
      choice: {
        description: 'Why the chosen figure and not another, and who decided.',
        ...closed({ because: text(taskLimits.reason), by: text(taskLimits.name) }, ['because', 'by']),
      },
      safety: { type: 'boolean' },
      once: { type: 'boolean' },
      covers: { type: 'array', items: code, maxItems: taskLimits.covers, uniqueItems: true },
      caution: text(taskLimits.caution),
      because: text(taskLimits.because),
      how: text(taskLimits.how),
      kit: {
        type: 'array',
        items: closed({ part: text(taskLimits.name), count: whole(1, taskLimits.count) }, ['part', 'count']),
        maxItems: taskLimits.kit,
      },
      tools: { type: 'array', items: text(taskLimits.name), maxItems: taskLimits.kit },
      severity,
    },
    ['code', 'name', 'station', 'action', 'triggers', 'counting', 'isolation', 'minutes', 'origin'],
  );

const packages = {
  type: 'array',
  description: 'What belongs together, and is taken into a visit at once. Left out: what usually does.',
  items: closed(
    {
      code,
      name: text(taskLimits.name),
      tasks: { type: 'array', items: code, minItems: 1, maxItems: taskLimits.tasks, uniqueItems: true },
      because: text(taskLimits.because),
    },
    ['code', 'name', 'tasks'],
  ),
  maxItems: taskLimits.packages,
};

const plan = {
  tasks: { type: 'array', items: ref('task'), minItems: 1, maxItems: taskLimits.tasks },
  packages,
  choices: {
    type: 'object',
    description: 'The option chosen for each practice choice.',
    propertyNames: code,
    additionalProperties: code,
    maxProperties: taskLimits.choices,
  },
  overrides: {
    type: 'object',
    description: 'Factors decided by hand: by task, then by kind.',
    propertyNames: code,
    maxProperties: taskLimits.tasks,
    additionalProperties: {
      type: 'object',
      propertyNames: { enum: [...severityKinds] },
      additionalProperties: closed(
        { times: figure(...taskLimits.override), reason: text(taskLimits.reason) },
        ['times', 'reason'],
      ),
    },
  },
};

const $schema = 'http://json-schema.org/draft-07/schema#';

/** JSON Schema of a plan alone, as it is saved, and of a plan as a file, with the kinds of trigger in a list. */
export function planSchemas(modules: readonly TriggerModule[] = triggerModules) {
  const triggers = triggersOf(modules);
  const $defs = { ...triggers, task: taskOf(Object.keys(triggers)) };
  const file = {
    format: { const: 'entretien-plan' },
    version: { const: 1 },
    family: { enum: [...families] },
    name: text(120),
    ...plan,
  };
  return {
    plan: { ...closed(plan, ['tasks']), $schema, title: 'Service plan', $defs },
    file: {
      ...closed(file, ['format', 'version', 'family', 'tasks']),
      $schema,
      title: 'Entretien service plan',
      description: 'What is to be done to a compressor, when, and why.',
      $defs,
    },
  };
}

export const { plan: planSchema, file: planFileSchema } = planSchemas();
