import type { DataPlate } from '../machine/index.js';

/** One thing to do before power or air comes back. */
export interface RestartStep {
  readonly code: string;
  readonly name: string;
  readonly hint: string;
}

/** What is done before a machine starts again, in its order. */
export function restartSteps(plate: DataPlate): readonly RestartStep[] {
  return [
    {
      code: 'clear',
      name: 'Tools out, guards and panels back',
      hint: 'Counted. Turned over by hand where that can be done. Everybody clear, nobody in line with lids, bowls, hoses.',
    },
    {
      code: 'drains-shut',
      name:
        plate.family === 'high-pressure'
          ? 'Vents and drains shut, tower head closed'
          : 'Vents and drains shut',
      hint: [
        'Every joint and cap that was opened, named and shut.',
        plate.cooling === 'water' ? 'Cooling water open again, and seen flowing.' : '',
      ]
        .filter(Boolean)
        .join(' '),
    },
    {
      code: 'valves-open',
      name: plate.family === 'high-pressure' ? 'Fill valves as they belong' : 'Valves open again, slowly',
      hint: 'Standing aside. Pressure in two steps: a third, look; full, look.',
    },
    {
      code: 'unlock',
      name: 'Your own lock off, started',
      hint:
        plate.motor === 'three-phase'
          ? 'Each takes off their own. After electrical work: the direction of rotation at the first touch.'
          : 'Each takes off their own. Listen: does it sound as it did?',
    },
    ...(plate.airUse === 'breathing'
      ? [
          {
            code: 'run-to-waste',
            name: 'Run to waste before anybody breathes it',
            hint: 'The manual’s time, or 10 min; CO read, no taste or smell, before the first cylinder or hood.',
          },
        ]
      : []),
  ];
}

/** What is done before a point of use gets its air back. */
export const pointRestartSteps: readonly RestartStep[] = [
  {
    code: 'clear',
    name: 'Open ends capped, bowl and guard on',
    hint: 'Whoever works there has been told.',
  },
  { code: 'valves-open', name: 'Air back, slowly', hint: 'Standing aside of bowl and hose.' },
];
