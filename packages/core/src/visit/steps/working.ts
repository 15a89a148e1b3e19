import { listed } from '../names.js';
import { stepKind } from './step-kind.js';

export const taskOutcomes = ['done', 'not-done', 'open'] as const;

/** What became of a planned task. */
export interface TaskBody {
  readonly kind: 'task';
  readonly task: string;
  /** `open` takes an answer back. */
  readonly outcome: (typeof taskOutcomes)[number];
  readonly reason?: string | undefined;
}

const outcomes = { done: 'Done', 'not-done': 'Not done', open: 'Taken back' } as const;

const task = stepKind<TaskBody>({
  kind: 'task',
  fields: { task: 'text', outcome: 'text', reason: 'text?' },
  text: (body, names) =>
    `${outcomes[body.outcome]}: ${names.task(body.task)}${body.reason === undefined ? '' : `. ${body.reason}`}`,
  tasks: (body) => [body.task],
  answers: ({ task: code, outcome, reason = null }) => [{ task: code, outcome, reason }],
});

/** A station was gone through, with nothing found: its tasks are done. */
export interface StationBody {
  readonly kind: 'station';
  readonly station: string;
  readonly tasks: readonly string[];
}

const station = stepKind<StationBody>({
  kind: 'station',
  fields: { station: 'text', tasks: 'codes' },
  text: ({ tasks }, names) => `All as expected: ${listed(tasks.map((code) => names.task(code)))}`,
  tasks: ({ tasks }) => tasks,
  answers: ({ tasks }) => tasks.map((code) => ({ task: code, outcome: 'done', reason: null })),
});

/** A task is taken as done without its proof. */
export interface CloseBody {
  readonly kind: 'close';
  readonly task: string;
  readonly reason: string;
}

const close = stepKind<CloseBody>({
  kind: 'close',
  fields: { task: 'text', reason: 'text' },
  text: (body, names) => `Closed without proof: ${names.task(body.task)}. ${body.reason}`,
  tasks: (body) => [body.task],
});

/** Tasks join those of the visit. */
export interface PlanBody {
  readonly kind: 'plan';
  readonly tasks: readonly string[];
}

const plan = stepKind<PlanBody>({
  kind: 'plan',
  fields: { tasks: 'codes' },
  text: ({ tasks }, names) => `Planned: ${listed(tasks.map((code) => names.task(code)))}`,
  tasks: ({ tasks }) => tasks,
});

/** Most of one part that is used, or taken back, in one step. */
export const MOST_PARTS = 1000;

/** A part was used. */
export interface PartBody {
  readonly kind: 'part';
  /** Id in the catalogue; left out for what is not in it. */
  readonly part?: string | undefined;
  readonly name: string;
  /** Below nothing takes back what was said by mistake. */
  readonly count: number;
  /** The task it was used for. */
  readonly task?: string | undefined;
  /** Why this one: asked where it takes the place of another. */
  readonly reason?: string | undefined;
}

const part = stepKind<PartBody>({
  kind: 'part',
  fields: { part: 'text?', name: 'text', count: 'number', task: 'text?', reason: 'text?' },
  text: ({ count, name }) => `${count < 0 ? 'Not used after all' : 'Used'}: ${Math.abs(count)} × ${name}`,
  isTakenAfterSigning: true,
});

export const workingSteps = [task, station, close, plan, part] as const;
