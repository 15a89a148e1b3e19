import type { Instant } from '../basics/index.js';
import {
  addEvent,
  byMoment,
  missingFor,
  NOTHING_ISOLATED,
  type Guarded,
  type IsolateBody,
  type IsolationEvent,
  type IsolationFold,
} from '../isolation/index.js';
import type { DataPlate } from '../machine/index.js';
import type { ServiceTask } from '../plan/index.js';
import { opensAir, opensTogether } from './needs.js';
import { verificationsOf, type Verification } from './verifications.js';
import type { FaultBody, MeasureBody, NoteBody, PhotoBody } from './steps/finding.js';
import type { SignBody } from './steps/leaving.js';
import type { TaskAnswer } from './steps/step-kind.js';
import type { LookFinding, PartBody } from './steps/working.js';
import { inOrder, moduleOf, type StepKinds, type VisitStep } from './visit-step.js';

export type VerificationState = 'none-needed' | 'missing' | 'failed' | 'passed' | 'closed';

/** One proof of a task, and how it stands. */
export interface VerificationStanding {
  readonly verification: Verification;
  readonly state: 'missing' | 'failed' | 'passed';
  /** Why, in the words of the check or of the person. */
  readonly text: string | null;
}

/** A planned task as it stands in a visit. */
export interface VisitTask {
  readonly code: string;
  /** `looked`: not done, but where it counts from is known now. */
  readonly outcome: TaskAnswer['outcome'];
  /** How it was found, where nobody knew its history; null where nobody looked. */
  readonly found: LookFinding | null;
  readonly doneAt: Instant | null;
  readonly by: string | null;
  readonly reason: string | null;
  readonly verifications: readonly VerificationStanding[];
  readonly verification: VerificationState;
  readonly closedBecause: string | null;
  /** When its answer became known; null while that waits on its device. */
  readonly knownAt: Instant | null;
  readonly marks: readonly string[];
}

type Recorded<Body> = Body & { readonly id: string; readonly at: Instant; readonly by: string };

/** Why a unit cannot be signed for yet. */
export interface Obstacle {
  readonly code:
    | 'nothing-done'
    | 'unanswered'
    | 'unproved'
    | 'proof-failed'
    | 'not-restarted'
    | 'no-reason'
    | 'stop-stands';
  readonly tasks: readonly string[];
  readonly sentence: string;
}

/** One unit of a visit: everything that was said of it, brought together. */
export interface CompressorProgress {
  readonly tasks: readonly VisitTask[];
  readonly measured: readonly Recorded<MeasureBody>[];
  /** Checks left out before the work, with the reason. */
  readonly skipped: ReadonlyMap<string, string>;
  readonly parts: readonly Recorded<PartBody>[];
  readonly photos: readonly Recorded<PhotoBody>[];
  readonly notes: readonly Recorded<NoteBody>[];
  readonly faults: readonly Recorded<FaultBody>[];
  readonly hours: number | null;
  /** Gauges that do not rest at zero on an empty space, as they were found. */
  readonly gaugesOffRest: readonly GaugeOffRest[];
  readonly isRestarted: boolean;
  readonly signed: Recorded<SignBody> | null;
  readonly left: { readonly reason: string; readonly by: string; readonly at: Instant } | null;
  /** Empty when it can be signed for. */
  readonly obstacles: readonly Obstacle[];
  readonly isolationNotConfirmed: readonly string[];
}

/** What the fold of a visit's steps needs to know of the unit. */
export interface VisitCompressor {
  readonly plate: DataPlate;
  /** Every task of the unit's plan. */
  readonly plan: readonly ServiceTask[];
  /** Codes of the tasks planned for the visit when it began. */
  readonly planned: readonly string[];
  /** What was said of the unit’s isolation outside the visit: in repairs, in other visits. */
  readonly elsewhere?: readonly IsolationEvent[] | undefined;
  readonly pauseMinutes?: number | undefined;
  readonly timeZone?: string | undefined;
  /** What forbids running it, in a sentence each. */
  readonly stops?: readonly string[] | undefined;
  /** Kinds of step that are known; default: all of this release. */
  readonly kinds?: StepKinds | undefined;
}

interface Answer extends Pick<TaskAnswer, 'outcome' | 'reason'> {
  readonly at: Instant;
  readonly by: string;
  readonly marks: readonly string[];
  /** Place in the order of things, for what comes before and after. */
  readonly index: number;
  readonly recordedAt: Instant | undefined;
}

/** A needle that shows something where nothing is. */
export interface GaugeOffRest {
  readonly point: string;
  readonly tile: string;
  readonly pressureBar: number;
}

/** The unit’s guard as the visit sees it. */
export function guardedOf({ plate, pauseMinutes, timeZone }: VisitCompressor): Guarded {
  return { plate, pauseMinutes, timeZone };
}

/** What was said, in its order, before it is judged. */
interface Gathered {
  readonly planned: Set<string>;
  readonly answers: Map<string, Answer>;
  readonly closed: Map<string, string>;
  readonly looks: Map<string, LookFinding>;
  readonly skipped: Map<string, string>;
  readonly measured: (Recorded<MeasureBody> & { readonly index: number })[];
  readonly tight: { readonly index: number; readonly tight: boolean; readonly text: string | null }[];
  readonly parts: Recorded<PartBody>[];
  readonly photos: Recorded<PhotoBody>[];
  readonly notes: Recorded<NoteBody>[];
  readonly faults: Recorded<FaultBody>[];
  hours: number | null;
  readonly gaugesOffRest: Map<string, GaugeOffRest>;
  isolation: IsolationFold;
  lockIndex: number;
  restartIndex: number;
  signed: (Recorded<SignBody> & { readonly index: number; readonly recordedAt: Instant | undefined }) | null;
  left: CompressorProgress['left'];
}

function gather(unit: VisitCompressor, order: readonly VisitStep[]): Gathered {
  const found: Gathered = {
    planned: new Set(unit.planned),
    answers: new Map(),
    closed: new Map(),
    looks: new Map(),
    skipped: new Map(),
    measured: [],
    tight: [],
    parts: [],
    photos: [],
    notes: [],
    faults: [],
    hours: null,
    gaugesOffRest: new Map(),
    isolation: NOTHING_ISOLATED,
    lockIndex: -1,
    restartIndex: -1,
    signed: null,
    left: null,
  };
  const elsewhere = [...(unit.elsewhere ?? [])].sort(byMoment);
  let next = 0;
  const guarded = guardedOf(unit);
  order.forEach((step, index) => {
    for (; next < elsewhere.length && byMoment(elsewhere[next]!, step) < 0; next += 1) {
      found.isolation = addEvent(guarded, found.isolation, elsewhere[next]!);
    }
    add(unit, found, step, index);
    found.isolation = addEvent(guarded, found.isolation, step);
  });
  return found;
}

function add(unit: VisitCompressor, found: Gathered, step: VisitStep, index: number): void {
  const { id, doneAt: at, by, body, recordedAt } = step;
  const recorded = { id, at, by };
  for (const { task, outcome, reason } of moduleOf(body, unit.kinds)?.answers?.(body) ?? []) {
    found.planned.add(task);
    const marks = marksOf(unit, found.isolation, step, task, outcome);
    found.answers.set(task, { outcome, at, by, reason, marks, index, recordedAt });
    found.closed.delete(task);
  }
  switch (body.kind) {
    case 'plan':
      return body.tasks.forEach((code) => found.planned.add(code));
    case 'take-out':
      // What was answered meanwhile, on another device, is part of the visit.
      return body.tasks
        .filter((code) => (found.answers.get(code)?.outcome ?? 'open') === 'open')
        .forEach((code) => found.planned.delete(code));
    case 'look':
      found.planned.add(body.task);
      return void found.looks.set(body.task, body.found);
    case 'measure':
      found.skipped.delete(body.check);
      return void found.measured.push({ ...body, ...recorded, index });
    case 'skip':
      return void found.skipped.set(body.check, body.reason);
    case 'part':
      return void found.parts.push({ ...body, ...recorded });
    case 'photo':
      return void found.photos.push({ ...body, ...recorded });
    case 'note':
      return void found.notes.push({ ...body, ...recorded });
    case 'fault':
      return void found.faults.push({ ...body, ...recorded });
    case 'hours':
      found.hours = body.hours;
      return;
    case 'isolate':
      return addIsolation(found, body, index);
    case 'restart':
      found.restartIndex = index;
      return;
    case 'tight':
      return void found.tight.push({ index, tight: body.tight, text: body.text ?? null });
    case 'close':
      return void found.closed.set(body.task, body.reason);
    case 'sign':
      found.signed = { ...body, ...recorded, index, recordedAt };
      found.left = null;
      return;
    case 'leave':
      found.left = { reason: body.reason, by, at };
      return;
  }
}

/** The marks of an answer: whether the isolation that it needs held at its moment is worked out, never kept. */
function marksOf(
  unit: VisitCompressor,
  isolation: IsolationFold,
  { doneAt: at, by, session, marks = [], isBeforeSpaces = false }: VisitStep,
  code: string,
  outcome: string,
): readonly string[] {
  if (isBeforeSpaces) return marks;
  const given = marks.filter((mark) => mark !== NOT_CONFIRMED);
  const task = unit.plan.find((one) => one.code === code);
  if (outcome !== 'done' || task === undefined) return given;
  const opens = opensTogether([task], unit.plate);
  const missing = missingFor(guardedOf(unit), isolation, opens, { at, by, session });
  return missing.length === 0 ? given : [...given, NOT_CONFIRMED];
}

function addIsolation(found: Gathered, body: IsolateBody, index: number): void {
  const { step, tile = '', confirmed, needle, pressureBar } = body;
  if (step === 'lock-out' && confirmed) found.lockIndex = index;
  // Pages of earlier releases noted one gauge for the whole machine.
  const isOff = needle === 'off' || (step === 'gauge-zero' && body.provedBy !== undefined);
  const key = `${step}/${tile}`;
  if (isOff && pressureBar !== undefined && pressureBar > 0) {
    found.gaugesOffRest.set(key, { point: step, tile, pressureBar });
  } else if (needle !== undefined) found.gaugesOffRest.delete(key);
}

/** Brings together what happened on one unit, whatever order it became known in. */
export function progressOf(unit: VisitCompressor, steps: readonly VisitStep[]): CompressorProgress {
  const found = gather(unit, inOrder(steps));
  const { planned, answers, closed, restartIndex, signed } = found;
  const known = new Map(unit.plan.map((task) => [task.code, task]));
  const tasks = [...planned].map((code) =>
    visitTask(code, known.get(code), answers.get(code), closed.get(code) ?? null, (verification, after) =>
      standingOfVerification(found, verification, after),
    ),
  );
  const opened = [...answers].flatMap(([code, { outcome, index }]) =>
    outcome === 'done' && known.has(code) && opensMachine(known.get(code)!, unit.plate) ? [index] : [],
  );
  const lastOpen = Math.max(-1, found.lockIndex, ...opened);
  const isRestarted = restartIndex > lastOpen;
  const hasNews = signed !== null && [...answers.values()].some((answer) => isNews(answer, signed));
  return {
    tasks,
    measured: found.measured,
    skipped: found.skipped,
    parts: usedParts(found.parts),
    photos: found.photos,
    notes: found.notes,
    faults: found.faults,
    hours: found.hours,
    gaugesOffRest: [...found.gaugesOffRest.values()],
    isRestarted,
    signed: hasNews ? null : signed,
    left: found.left,
    obstacles: [
      ...(tasks.length === 0 && lastOpen < 0 && !unit.stops?.length && !hasFound(found)
        ? [NOTHING_DONE]
        : []),
      ...obstaclesTo(tasks, known, lastOpen >= 0 && !isRestarted, unit.stops ?? []),
    ],
    isolationNotConfirmed: tasks.flatMap(({ code, marks }) => (marks.includes(NOT_CONFIRMED) ? [code] : [])),
  };

  function visitTask(
    code: string,
    task: ServiceTask | undefined,
    answer: Answer | undefined,
    closedBecause: string | null,
    standing: (verification: Verification, after: number) => VerificationStanding,
  ): VisitTask {
    const isDone = answer?.outcome === 'done';
    const verifications =
      isDone && task
        ? verificationsOf(task, unit.plate).map((verification) => standing(verification, answer.index))
        : [];
    return {
      code,
      outcome: answer?.outcome ?? 'open',
      found: found.looks.get(code) ?? null,
      doneAt: isDone ? answer.at : null,
      by: answer?.by ?? null,
      reason: answer?.reason ?? null,
      verifications,
      verification: verificationState(verifications, closedBecause),
      closedBecause,
      knownAt: answer?.recordedAt ?? null,
      marks: answer?.marks ?? [],
    };
  }
}

/** What opens the machine itself; a point of use has its own way back. */
function opensMachine(task: ServiceTask, plate: DataPlate): boolean {
  const opens = opensTogether([task], plate);
  return opensAir(task, plate) && !(opens?.length === 1 && opens[0] === 'point');
}

/** Whether an answer came, or became known, after the signature: it is not signed for. */
function isNews({ index, recordedAt }: Answer, signed: NonNullable<Gathered['signed']>): boolean {
  if (index > signed.index) return true;
  return recordedAt !== undefined && signed.recordedAt !== undefined && recordedAt > signed.recordedAt;
}

/** Each part once, with how many of it stayed used. */
function usedParts(recorded: readonly Recorded<PartBody>[]): Recorded<PartBody>[] {
  const sums = new Map<string, Recorded<PartBody>>();
  for (const one of recorded) {
    const key = one.part ?? one.name;
    const before = sums.get(key);
    sums.set(key, before ? { ...before, count: before.count + one.count } : one);
  }
  return [...sums.values()].filter(({ count }) => count > 0);
}

/** The last word on a proof after the work: what was proved before it proves nothing. */
function standingOfVerification(
  { tight, measured }: Gathered,
  verification: Verification,
  after: number,
): VerificationStanding {
  if (verification.kind === 'tight') {
    const last = tight.findLast(({ index }) => index > after);
    const state = last === undefined ? 'missing' : last.tight ? 'passed' : 'failed';
    return { verification, state, text: last?.text ?? null };
  }
  if (verification.kind === 'result') {
    // It is asked for in the visit, before or after the rest of the work.
    const result = measured.findLast(({ check }) => verification.anyOf.includes(check));
    return { verification, state: result === undefined ? 'missing' : 'passed', text: result?.reason ?? null };
  }
  const last = measured.findLast(
    ({ index, phase, check }) => index > after && phase === 'proof' && verification.anyOf.includes(check),
  );
  const state = last === undefined ? 'missing' : hasPassed(last) ? 'passed' : 'failed';
  return { verification, state, text: last?.reason ?? null };
}

/** Mark of work whose isolation nobody had confirmed for its moment. */
export const NOT_CONFIRMED = 'isolation-not-confirmed';

function hasPassed({ verdict }: MeasureBody): boolean {
  return verdict === 'good' || verdict === 'watch';
}

function verificationState(
  verifications: readonly VerificationStanding[],
  closedBecause: string | null,
): VerificationState {
  if (verifications.length === 0) return 'none-needed';
  if (verifications.every(({ state }) => state === 'passed')) return 'passed';
  if (closedBecause !== null) return 'closed';
  return verifications.some(({ state }) => state === 'failed') ? 'failed' : 'missing';
}

const NOTHING_DONE: Obstacle = {
  code: 'nothing-done',
  tasks: [],
  sentence:
    'Nothing was done here and nothing found: take what you came for into the visit, record what you saw, or leave it for another day.',
};

/** Whether a visit without a task came to anything that is worth a signature. */
function hasFound({ measured, faults, notes, photos, parts, hours }: Gathered): boolean {
  return hours !== null || [measured, faults, notes, photos, parts].some((list) => list.length > 0);
}

function obstaclesTo(
  tasks: readonly VisitTask[],
  known: ReadonlyMap<string, ServiceTask>,
  mustRestart: boolean,
  stops: readonly string[],
): Obstacle[] {
  const names = (codes: readonly string[]) => codes.map((code) => known.get(code)?.name ?? code).join(', ');
  const obstacle = (
    code: Obstacle['code'],
    found: readonly VisitTask[],
    format: (names: string) => string,
  ) =>
    found.length === 0
      ? []
      : [
          {
            code,
            tasks: found.map((task) => task.code),
            sentence: format(names(found.map((task) => task.code))),
          },
        ];
  return [
    ...obstacle(
      'unanswered',
      tasks.filter(({ outcome }) => outcome === 'open'),
      (names) => `Not answered yet: ${names}. Done, or not done and why?`,
    ),
    ...obstacle(
      'no-reason',
      tasks.filter(({ outcome, reason }) => outcome === 'not-done' && reason === null),
      (found) => `Not done, and no reason given: ${found}.`,
    ),
    ...(mustRestart
      ? [
          {
            code: 'not-restarted',
            tasks: [],
            sentence:
              'It was locked out and has not been started again: guards back, lock off, and prove it.',
          } as const,
        ]
      : []),
    ...(stops.length > 0
      ? [
          {
            code: 'stop-stands',
            tasks: [],
            sentence: `It must not run: ${stops.join(' ')} A later better verdict, or left out of service and told to somebody.`,
          } as const,
        ]
      : []),
    ...obstacle(
      'proof-failed',
      tasks.filter(({ verification }) => verification === 'failed'),
      (found) => `The check failed: ${found}. Fix it and check it again, or close it with a reason.`,
    ),
    ...obstacle(
      'unproved',
      tasks.filter(({ verification }) => verification === 'missing'),
      (found) => `Not proved yet: ${found}. Prove it, or close it with a reason.`,
    ),
  ];
}

/** Tasks that count as done once the unit is signed for: done, and proved or closed; a test never without its result. */
export function countedTasks({ tasks }: Pick<CompressorProgress, 'tasks'>): readonly VisitTask[] {
  return tasks.filter(
    ({ outcome, verification, verifications }) =>
      outcome === 'done' &&
      verification !== 'missing' &&
      verification !== 'failed' &&
      !verifications.some((one) => one.verification.kind === 'result' && one.state === 'missing'),
  );
}
