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

const outcomes = { done: 'Done', 'not-done': 'Not done', open: 'Undone' } as const;

const task = stepKind<TaskBody>({
  kind: 'task',
  fields: { task: 'text', outcome: 'text', reason: 'text?' },
  text: (body, names) =>
    `${outcomes[body.outcome]}: ${names.task(body.task)}${body.reason === undefined ? '' : `. ${body.reason}`}`,
  tasks: (body) => [body.task],
  answers: ({ task: code, outcome, reason = null }) => [{ task: code, outcome, reason }],
});

/** How a task of unknown history was found; what nobody can tell is done now. */
export const lookFindings = ['new', 'half', 'spent', 'unknown'] as const;
export type LookFinding = (typeof lookFindings)[number];

export const lookNames: Readonly<Record<LookFinding, string>> = {
  new: 'looks new',
  half: 'half used',
  spent: 'used up',
  unknown: 'cannot tell',
};

/** Share of its interval that a finding stands for. */
export const lookShares: Readonly<Record<LookFinding, number>> = { new: 0, half: 0.5, spent: 1, unknown: 1 };

/**
 * A task that nobody knows the history of was looked at: where it counts from now. What is used up, or cannot be
 * told, stays to be done.
 */
export interface LookBody {
  readonly kind: 'look';
  readonly task: string;
  readonly found: LookFinding;
}

const look = stepKind<LookBody>({
  kind: 'look',
  fields: { task: 'text', found: 'text' },
  text: ({ task: code, found }, names) => `Looked at: ${names.task(code)}, ${lookNames[found] ?? found}`,
  tasks: (body) => [body.task],
  answers: ({ task: code, found }) =>
    lookShares[found] < 1 ? [{ task: code, outcome: 'looked', reason: lookNames[found] }] : [],
  opens: () => [],
  isFactOfItsOwn: true,
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

/** Tasks leave the visit again: nothing was done for them, and they stay due. */
export interface TakeOutBody {
  readonly kind: 'take-out';
  readonly tasks: readonly string[];
}

const takeOut = stepKind<TakeOutBody>({
  kind: 'take-out',
  fields: { tasks: 'codes' },
  text: ({ tasks }, names) => `Not for this visit: ${listed(tasks.map((code) => names.task(code)))}`,
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

export const workingSteps = [task, look, station, close, plan, takeOut, part] as const;
