import { restartSteps, type IsolateBody } from '@entretien/core/isolation';
import type { StepBody } from '@entretien/core/visit';
import type { DataPlate } from '@entretien/core/machine';

/** One unit of a finished visit, step by step with the minute of each. */
export interface StoryStep {
  readonly minute: number;
  readonly body: StepBody;
}

/**
 * The packing hall's screw isolated: its needle stood at zero before the vent was opened, so that a second opening
 * has to show it; the water separator's drain passes nothing, so that its space is opened elsewhere and a second gauge is fitted there.
 */
function isolate(minute: number): StoryStep[] {
  const story: readonly (readonly [number, string, Omit<IsolateBody, 'kind' | 'step' | 'confirmed'>])[] = [
    [0, 'lock-out', { answer: 'holds' }],
    [0.5, 'outlet', { answer: 'holds' }],
    [1, 'vessel', { answer: 'passes' }],
    [1.8, 'vessel', { answer: 'silent', needle: 'stood' }],
    [2.5, 'vessel', { answer: 'second-opening', needle: 'stood' }],
    [3, 'outlet-side', { answer: 'nothing', needle: 'none' }],
    [4, 'outlet-side', { answer: 'second-opening', needle: 'none' }],
    [13, 'outlet-side', { answer: 'second-gauge', needle: 'none' }],
    [18.5, 'second-look', { answer: 'holds' }],
    [19, 'warm-oil', { answer: 'holds', tempC: 52 }],
  ];
  return story.map(([after, step, more]) => ({
    minute: minute + after,
    body: { kind: 'isolate', step, confirmed: true, ...more },
  }));
}

/** The tasks of the finished visit. */
export const visitTasks = ['bearing-check', 'fasteners-check', 'scavenge-clean'] as const;

/** A morning at the packing hall's screw: one fault found, everything proved. */
export function creameryVisit(plate: DataPlate, hours: number): readonly StoryStep[] {
  const story: readonly StoryStep[] = [
    { minute: 0, body: { kind: 'hours', hours } },
    { minute: 3, body: { kind: 'station', station: 'airend', tasks: ['bearing-check'] } },
    ...isolate(8),
    { minute: 18, body: { kind: 'station', station: 'motor', tasks: ['fasteners-check'] } },
    { minute: 30, body: { kind: 'station', station: 'separator', tasks: ['scavenge-clean'] } },
    {
      minute: 12.5,
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
  return [...story].sort((a, b) => a.minute - b.minute);
}
