import { honestCourse, restartSteps } from '@entretien/core/isolation';
import type { StepBody } from '@entretien/core/visit';
import type { DataPlate } from '@entretien/core/machine';

/** One unit of a finished visit, step by step with the minute of each. */
export interface ToldStep {
  readonly minute: number;
  readonly body: StepBody;
}

/** Isolates a machine for what is opened, each hold as soon as it can be said. */
function isolate(plate: DataPlate, minute: number, opens: readonly string[]): ToldStep[] {
  return honestCourse(plate, opens).map(({ seconds, body }) => ({ minute: minute + seconds / 60, body }));
}

/** The tasks of the finished visit. */
export const visitTasks = ['bearing-check', 'fasteners-check', 'scavenge-clean'] as const;

/** A morning at the packing hall's screw: one fault found, everything proved. */
export function creameryVisit(plate: DataPlate, hours: number): readonly ToldStep[] {
  return [
    { minute: 0, body: { kind: 'hours', hours } },
    { minute: 3, body: { kind: 'station', station: 'airend', tasks: ['bearing-check'] } },
    ...isolate(plate, 8, ['separator']),
    { minute: 18, body: { kind: 'station', station: 'motor', tasks: ['fasteners-check'] } },
    { minute: 30, body: { kind: 'station', station: 'separator', tasks: ['scavenge-clean'] } },
    {
      minute: 31,
      body: {
        kind: 'fault',
        found: 'Drain of the water separator sticks half open',
        station: 'water-separator',
      },
    },
    {
      minute: 33,
      body: { kind: 'note', text: 'Bring a drain float next time; the key hangs at the plant office.' },
    },
    { minute: 40, body: { kind: 'restart', steps: restartSteps(plate).map(({ code }) => code) } },
    { minute: 52, body: { kind: 'tight', tight: true } },
    {
      minute: 58,
      body: {
        kind: 'measure',
        phase: 'work',
        check: 'vibration-sound',
        values: { compared: 'same' },
      },
    },
    {
      minute: 62,
      body: {
        kind: 'sign',
        name: 'Mira Kolden',
        strokes: '20,70 40,30 60,72 80,32 100,70;120,60 135,45 150,66 170,40 190,64 230,58',
      },
    },
  ];
}
