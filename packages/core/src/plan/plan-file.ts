import { intervalOrigins, isolationStates, runMoments, severityKinds, taskActions } from './service-plan.js';
import { families, type Family } from '../machine/index.js';
import type { ServicePlan } from './service-plan.js';

/** A plan as it is exchanged: plain JSON, by {@link planFileSchema}. */
export interface PlanFile extends ServicePlan {
  readonly format: 'entretien-plan';
  readonly version: 1;
  readonly family: Family;
  readonly name?: string | undefined;
}

/** A plan as a file, for a family of machines. */
export function planFileOf(plan: ServicePlan, family: Family, name?: string): PlanFile {
  return { format: 'entretien-plan', version: 1, family, ...(name === undefined ? {} : { name }), ...plan };
}

/** The plan alone, out of a file or whatever else carries one. */
export function planParts({ tasks, choices, overrides }: ServicePlan): ServicePlan {
  return { tasks, ...(choices ? { choices } : {}), ...(overrides ? { overrides } : {}) };
}

const code = { type: 'string', pattern: '^[a-z][a-z0-9-]{1,39}$' };
const text = (longest: number) => ({ type: 'string', minLength: 1, maxLength: longest, pattern: '\\S' });
const figure = (least: number, most: number, description?: string) => ({
  type: 'number',
  minimum: least,
  maximum: most,
  ...(description ? { description } : {}),
});
const hours = (description: string) => figure(0.1, 200_000, description);
const closed = (properties: object, required: readonly string[]) => ({
  type: 'object',
  properties,
  required,
  additionalProperties: false,
});
const kind = (name: string) => ({ const: name });

const step = {
  oneOf: [
    closed({ months: { type: 'integer', minimum: 1, maximum: 600 } }, ['months']),
    closed({ days: { type: 'integer', minimum: 1, maximum: 18_000 } }, ['days']),
  ],
};
const warmMonths = {
  type: 'array',
  description: 'First and last month of the warm season, 1 January to 12 December.',
  items: { type: 'integer', minimum: 1, maximum: 12 },
  minItems: 2,
  maxItems: 2,
};

const triggers = {
  hours: closed(
    {
      kind: kind('hours'),
      every: hours('Run hours between two services.'),
      first: hours('The first time only, counted from commissioning.'),
      nearing: figure(0, 100_000, 'Hours before the point from which it counts as nearing.'),
    },
    ['kind', 'every'],
  ),
  calendar: closed(
    {
      kind: kind('calendar'),
      every: step,
      first: step,
      nearing: figure(0, 9000, 'Days before the date from which it counts as nearing.'),
    },
    ['kind', 'every'],
  ),
  milestone: closed(
    {
      kind: kind('milestone'),
      at: { type: 'array', items: hours('Run hours of the machine’s life.'), minItems: 1, maxItems: 60 },
    },
    ['kind', 'at'],
  ),
  season: closed(
    {
      kind: kind('season'),
      warm: hours('Hours that it lasts in the warm season.'),
      cold: hours('Hours that it lasts in the cold season.'),
      warmMonths,
    },
    ['kind', 'warm', 'cold'],
  ),
  water: closed(
    {
      kind: kind('water'),
      takesG: figure(0.1, 100_000, 'Water that the cartridge takes up, g.'),
      fadLpm: figure(1, 200_000, 'Free air delivered, L/min.'),
      holdingBar: figure(1, 600, 'Pressure at the last separator, bar gauge.'),
      warmC: figure(-30, 80, 'Its temperature in the warm season, °C.'),
      coldC: figure(-30, 80, 'Its temperature in the cold season, °C.'),
      warmMonths,
    },
    ['kind', 'takesG', 'fadLpm', 'holdingBar', 'warmC', 'coldC'],
  ),
  condition: closed(
    {
      kind: kind('condition'),
      check: code,
      limit: figure(-1000, 1_000_000, 'In the unit of the check’s figure, or a share of the baseline.'),
      of: { const: 'baseline' },
    },
    ['kind', 'check', 'limit'],
  ),
  run: closed(
    {
      kind: kind('run'),
      when: { enum: [...runMoments] },
      everyMinutes: { type: 'integer', minimum: 1, maximum: 1440 },
    },
    ['kind', 'when'],
  ),
};

const ref = (name: string) => ({ $ref: `#/$defs/${name}` });

const task = closed(
  {
    code,
    name: text(80),
    station: code,
    action: { enum: [...taskActions] },
    triggers: {
      type: 'array',
      description: 'The first to come rules. Empty: done on failure.',
      items: { oneOf: [...Object.keys(triggers).map(ref), ref('not-before')] },
      maxItems: 8,
    },
    counting: { enum: ['last-done', 'grid'] },
    isolation: { enum: [...isolationStates] },
    verifiedBy: {
      type: 'array',
      description: 'Checks that its work should change; empty: nothing that can be measured.',
      items: code,
      maxItems: 10,
      uniqueItems: true,
    },
    minutes: { type: 'integer', minimum: 0, maximum: 10_000 },
    origin: { enum: [...intervalOrigins] },
    safety: { type: 'boolean' },
    once: { type: 'boolean' },
    covers: { type: 'array', items: code, maxItems: 30, uniqueItems: true },
    caution: text(600),
    because: text(400),
    how: text(1000),
    kit: {
      type: 'array',
      items: closed({ part: text(80), count: { type: 'integer', minimum: 1, maximum: 100 } }, [
        'part',
        'count',
      ]),
      maxItems: 30,
    },
    tools: { type: 'array', items: text(80), maxItems: 30 },
    severity: {
      type: 'array',
      items: closed(
        {
          kind: { enum: [...severityKinds] },
          times: figure(0.01, 20),
          on: { enum: ['hours', 'calendar'] },
          because: text(300),
        },
        ['kind', 'because'],
      ),
      maxItems: 6,
    },
  },
  ['code', 'name', 'station', 'action', 'triggers', 'counting', 'isolation', 'minutes', 'origin'],
);

const plan = {
  tasks: { type: 'array', items: ref('task'), minItems: 1, maxItems: 100 },
  choices: {
    type: 'object',
    description: 'The way chosen in each school.',
    propertyNames: code,
    additionalProperties: code,
    maxProperties: 40,
  },
  overrides: {
    type: 'object',
    description: 'Factors decided by hand: by task, then by kind.',
    propertyNames: code,
    maxProperties: 100,
    additionalProperties: {
      type: 'object',
      propertyNames: { enum: [...severityKinds] },
      additionalProperties: closed({ times: figure(0.05, 20), reason: text(300) }, ['times', 'reason']),
    },
  },
};

const floors = { oneOf: [ref('hours'), ref('calendar')] };
const delayed = { oneOf: ['hours', 'calendar', 'condition', 'season', 'water'].map(ref) };

const $defs = {
  ...triggers,
  'not-before': closed({ kind: kind('not-before'), trigger: delayed, floor: floors }, [
    'kind',
    'trigger',
    'floor',
  ]),
  task,
};

const $schema = 'http://json-schema.org/draft-07/schema#';

/** JSON Schema of a plan alone, as it is saved. */
export const planSchema = { ...closed(plan, ['tasks']), $schema, title: 'Service plan', $defs };

/** JSON Schema of a plan as a file. */
export const planFileSchema = {
  ...closed(
    {
      format: { const: 'entretien-plan' },
      version: { const: 1 },
      family: { enum: [...families] },
      name: text(120),
      ...plan,
    },
    ['format', 'version', 'family', 'tasks'],
  ),
  $schema,
  title: 'Entretien service plan',
  description: 'What is to be done to a compressor, when, and why.',
  $defs,
};
