import type { Instant, Problem } from '../basics/index.js';
import {
  againstTelling,
  describeMissing,
  isolationOf,
  missingFor,
  pointRestartSteps,
  type Guarded,
  type IsolateBody,
  type IsolationEvent,
  type RestartBody,
} from '../isolation/index.js';
import type { DataPlate } from '../machine/index.js';
import type { PointPlate } from './point.js';
import { pointChecks, pointTasks } from './tasks.js';

/** One confirmation on the way to an opened point of use, and to its air back. */
export interface PointStep {
  readonly at: Instant;
  readonly body: IsolateBody | RestartBody;
}

/** A task that was done or a check that was taken, by its code, and when. */
export interface PointMoment {
  readonly code: string;
  readonly at: Instant;
}

/** What somebody says to have done at a point of use. */
export interface PointTelling {
  readonly doneAt: Instant;
  readonly by: string;
  readonly tasks: readonly PointMoment[];
  /** The checks that were taken. */
  readonly looks: readonly PointMoment[];
  readonly steps: readonly PointStep[];
  /** What was found on the way; by itself where nothing could be done. */
  readonly note?: string | null;
}

/** Longest that one piece of work at a point takes: what is older was another one. */
export const LONGEST_WORK_MS = 12 * 3_600_000;

/** Checks that open the point: with the element out, or the bowl off. */
const OPENS: ReadonlySet<string> = new Set(['line-element']);

/** Behind its own valve it does not matter which machine feeds a point. */
const ANY_MACHINE: DataPlate = {
  siteId: '',
  tag: '',
  family: 'screw',
  commissionedOn: '2000-01-01',
  history: 'unknown',
};

/** The guard of a point of use: the compressor runs on. */
export function pointGuarded(timeZone: string, pauseMinutes?: number): Guarded {
  return { plate: ANY_MACHINE, timeZone, ...(pauseMinutes === undefined ? {} : { pauseMinutes }) };
}

/** What of a telling opens the point. */
export function openedMoments(
  plate: PointPlate,
  { tasks, looks }: Pick<PointTelling, 'tasks' | 'looks'>,
): readonly PointMoment[] {
  const opening = new Set(pointTasks(plate).flatMap(({ code, opens }) => (opens ? [code] : [])));
  return [...tasks.filter(({ code }) => opening.has(code)), ...looks.filter(({ code }) => OPENS.has(code))];
}

/** A telling as the guard sees it, in the order of its moments: one person on one page. */
export function pointEvents({
  steps,
  tasks,
  looks,
  by,
}: Pick<PointTelling, 'steps' | 'tasks' | 'looks' | 'by'>): readonly IsolationEvent[] {
  const done = [...tasks, ...looks].map(({ at }) => ({ at, body: { kind: 'done' } }));
  return [...steps, ...done]
    .map(({ at, body }, index) => ({
      id: String(index).padStart(4, '0'),
      doneAt: at,
      by,
      session: POINT_SESSION,
      body,
    }))
    .sort((one, other) => one.doneAt - other.doneAt || (one.id < other.id ? -1 : 1));
}

/** A telling is made on one page. */
export const POINT_SESSION = 'point';

/**
 * Why what is told of a point of use cannot have been done so; null where it can. Whatever opens it must have been
 * shut off, vented on both sides and proved empty before, by who did it; and its air came back after.
 */
export function pointWorkProblem(plate: PointPlate, telling: PointTelling, guarded: Guarded): Problem | null {
  const { tasks, looks, steps, doneAt, note } = telling;
  if (tasks.length === 0 && looks.length === 0 && !note)
    return { code: 'nothing-done', field: 'tasks', sentence: 'Nothing was done and nothing looked at.' };
  const known = new Set(pointTasks(plate).map(({ code }) => code));
  const strange = tasks.find(({ code }) => !known.has(code));
  if (strange !== undefined)
    return {
      code: 'unknown-task',
      field: 'tasks',
      sentence: `“${strange.code.slice(0, 40)}” is no task of this point of use.`,
    };
  const taken = new Set(pointChecks(plate));
  const odd = looks.find(({ code }) => !taken.has(code));
  if (odd !== undefined)
    return {
      code: 'unknown-check',
      field: 'looks',
      sentence: `“${odd.code.slice(0, 40)}” is not looked at here.`,
    };
  const isOutside = ({ at }: { at: Instant }) => at > doneAt || at < doneAt - LONGEST_WORK_MS;
  if ([...tasks, ...looks, ...steps].some(isOutside))
    return {
      code: 'another-time',
      field: 'doneAt',
      sentence: 'Some of it lies outside the time of this work.',
    };
  const opened = openedMoments(plate, telling);
  return opened.length === 0 ? null : isolationProblem(guarded, telling, opened);
}

function isolationProblem(
  guarded: Guarded,
  telling: PointTelling,
  opened: readonly PointMoment[],
): Problem | null {
  const field = 'steps';
  const events = pointEvents(telling);
  for (const [index, event] of events.entries()) {
    const against = againstTelling(guarded, isolationOf(guarded, events.slice(0, index)), event);
    if (against !== null) return { code: against.code, field, sentence: against.sentence };
  }
  for (const { at } of opened) {
    const fold = isolationOf(
      guarded,
      events.filter(({ doneAt }) => doneAt <= at),
    );
    const missing = missingFor(guarded, fold, ['point'], { at, by: telling.by, session: POINT_SESSION });
    if (missing.length > 0)
      return { code: 'not-isolated', field, sentence: describeMissing(guarded.plate, missing) };
  }
  return airBackProblem(telling, Math.max(...opened.map(({ at }) => at)));
}

/** Why its air did not come back as it should, after what was opened last; null where it did. */
function airBackProblem({ steps }: PointTelling, openedAt: Instant): Problem | null {
  const [code, field] = ['no-air-back', 'steps'];
  const back = steps.findLast(({ at, body }) => body.kind === 'restart' && at >= openedAt);
  if (back === undefined)
    return {
      code,
      field,
      sentence: 'Say how its air came back: ends capped, bowl and guard on, valve opened slowly.',
    };
  const { steps: gone } = back.body as RestartBody;
  const left = pointRestartSteps.find((step) => !gone.includes(step.code));
  return left ? { code, field, sentence: `Before its air came back: ${left.name}.` } : null;
}
