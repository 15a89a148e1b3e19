import { honestCourse, restartSteps } from '../isolation/index.js';
import type { DataPlate } from '../machine/index.js';
import { defaultPlan } from '../plan/index.js';
import type { StepBody, VisitCompressor, VisitStep } from './index.js';

/** A made-up machine and steps of a visit to it, for the tests of this folder. */
export const MINUTE = 60_000;
export const START = Date.UTC(2026, 10, 24, 9);

export const screw: DataPlate = {
  siteId: 's',
  tag: 'HC-1',
  family: 'screw',
  commissionedOn: '2024-01-01',
  history: 'new',
  motor: 'three-phase',
};
export function compressorOf(plate: DataPlate, planned: string[]): VisitCompressor {
  return { plate, plan: defaultPlan(plate, {}).tasks, planned };
}

let count = 0;
export function step(minute: number, body: StepBody, more: Partial<VisitStep> = {}): VisitStep {
  return {
    id: `step-${++count}`,
    doneAt: START + minute * MINUTE,
    by: 'mara',
    session: 'one',
    body,
    ...more,
  };
}

/** Everything as expected, the last hold at a minute. */
export function isolated(plate: DataPlate, minute: number, more: Partial<VisitStep> = {}): VisitStep[] {
  const course = honestCourse(plate, null);
  const last = course.at(-1)!.seconds;
  return course.map(({ seconds, body }) => step(minute + (seconds - last) / 60, body, more));
}

export function restart(plate: DataPlate, minute: number): VisitStep {
  return step(minute, { kind: 'restart', steps: restartSteps(plate).map(({ code }) => code) });
}

export const done = (task: string): StepBody => ({ kind: 'task', task, outcome: 'done' });
