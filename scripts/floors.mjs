/**
 * The floors of the building: what each part may stand on. Everything not named is forbidden.
 * Inside the core a check names a task by its code, never by import.
 */
export const areasOfCore = {
  basics: [],
  access: ['basics'],
  upkeep: ['basics'],
  quantities: ['basics'],
  machine: ['basics', 'quantities'],
  hours: ['basics', 'quantities', 'machine'],
  air: ['basics', 'quantities', 'machine'],
  oil: ['basics', 'quantities', 'machine'],
  drive: ['basics', 'quantities', 'machine'],
  electrics: ['basics', 'quantities', 'machine'],
  costs: ['basics', 'quantities'],
  checks: ['basics', 'quantities', 'machine', 'hours', 'air', 'oil', 'drive', 'electrics', 'costs'],
  bench: ['basics', 'quantities', 'machine', 'air', 'oil', 'drive', 'electrics', 'costs', 'checks'],
  plan: ['basics', 'quantities', 'machine', 'hours', 'air', 'oil', 'drive', 'electrics', 'costs', 'checks'],
  parts: ['basics', 'quantities', 'machine', 'plan'],
  simulator: ['basics', 'quantities', 'machine', 'air', 'oil', 'drive', 'electrics'],
  faults: ['basics', 'machine', 'checks'],
  gateway: ['basics', 'quantities', 'machine', 'hours'],
  filling: ['basics', 'quantities', 'machine', 'air'],
  isolation: ['basics', 'machine'],
  practice: ['basics', 'machine', 'isolation', 'simulator', 'faults'],
  proof: ['basics', 'machine', 'isolation', 'simulator', 'faults'],
  'follow-ups': ['basics', 'machine', 'hours', 'isolation'],
  stop: ['basics', 'machine', 'checks'],
  points: ['basics', 'machine', 'checks', 'isolation'],
  repairs: ['basics', 'quantities', 'machine', 'checks', 'plan', 'isolation'],
  visit: ['basics', 'quantities', 'machine', 'checks', 'plan', 'isolation', 'stop'],
  facts: [
    'basics',
    'filling',
    'follow-ups',
    'quantities',
    'machine',
    'hours',
    'checks',
    'plan',
    'isolation',
    'points',
    'stop',
    'repairs',
    'visit',
  ],
};

const packages = {
  core: [],
  contracts: ['core'],
  server: ['core', 'contracts'],
  web: ['core', 'contracts'],
  standins: ['core'],
  demo: ['core', 'contracts', 'server'],
  benchmarks: ['core', 'contracts', 'server'],
};

/** Lint rules that keep the floors. */
export function floorRules(areas) {
  return [
    ...Object.entries(packages).map(packageRule),
    ...Object.entries(areas).map(([area, below]) => areaRule(area, below, areas)),
  ];
}

function packageRule([name, allowed]) {
  const forbidden = ['core', ...Object.keys(packages).filter((other) => other !== 'core')].filter(
    (other) => !allowed.includes(other),
  );
  return {
    files: [`packages/${name}/src/**/*.{ts,tsx}`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: forbidden.flatMap((other) => [`@entretien/${other}`, `@entretien/${other}/*`]),
              message: `${name} stands on ${allowed.join(' and ') || 'nothing of ours'} only.`,
            },
          ],
        },
      ],
    },
  };
}

function areaRule(area, below, areas) {
  const forbidden = Object.keys(areas).filter((other) => other !== area && !below.includes(other));
  return {
    files: [`packages/core/src/${area}/**/*.ts`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: forbidden
                .flatMap((other) => [`../${other}/*`, `../../${other}/*`])
                .concat('@entretien/*'),
              message: `In the core, ${area} stands on ${below.join(', ') || 'nothing'}.`,
            },
            {
              regex:
                '^\\.\\./(\\.\\./)?(basics|quantities|machine|hours|air|oil|drive|electrics|costs|checks|bench|plan|parts|repairs|visit|facts)/(?!index\\.js)',
              message: 'Another area is entered by its index.',
            },
          ],
          paths: ['fs', 'path', 'crypto', 'os'].flatMap((name) => [name, `node:${name}`]),
        },
      ],
      'no-restricted-globals': [
        'error',
        'process',
        'window',
        'document',
        'fetch',
        'setTimeout',
        'performance',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'The core has no clock: time is an argument.' },
        { object: 'Math', property: 'random', message: 'The core has no chance: seeds are arguments.' },
      ],
    },
  };
}
