import type { Instant } from '../basics/index.js';
import type { DataPlate } from '../machine/index.js';
import type { ServiceTask } from '../plan/index.js';
import { proofsOf, type Proof } from './proofs.js';
import type { FaultBody, MeasureBody, NoteBody, PhotoBody } from './steps/finding.js';
import type { IsolateBody } from './steps/isolating.js';
import type { SignBody } from './steps/leaving.js';
import type { TaskAnswer } from './steps/step-kind.js';
import type { PartBody } from './steps/working.js';
import { inOrder, moduleOf, type StepKinds, type VisitStep } from './visit-step.js';

export type ProofState = 'none-needed' | 'missing' | 'failed' | 'passed' | 'closed';

/** One proof of a task, and how it stands. */
export interface ProofStanding {
  readonly proof: Proof;
  readonly state: 'missing' | 'failed' | 'passed';
  /** Why, in the words of the check or of the person. */
  readonly words: string | null;
}

/** A planned task as it stands in a visit. */
export interface VisitTask {
  readonly code: string;
  readonly outcome: 'open' | 'done' | 'not-done';
  readonly doneAt: Instant | null;
  readonly by: string | null;
  readonly reason: string | null;
  readonly proofs: readonly ProofStanding[];
  readonly proof: ProofState;
  readonly closedBecause: string | null;
  readonly marks: readonly string[];
}

type Told<Body> = Body & { readonly id: string; readonly at: Instant; readonly by: string };

/** Why a unit cannot be signed for yet. */
export interface Obstacle {
  readonly code: 'unanswered' | 'unproved' | 'proof-failed' | 'not-restarted' | 'no-reason';
  readonly tasks: readonly string[];
  readonly sentence: string;
}

/** One unit of a visit: everything that was said of it, brought together. */
export interface UnitProgress {
  readonly tasks: readonly VisitTask[];
  readonly measured: readonly Told<MeasureBody>[];
  /** Checks left out before the work, with the reason. */
  readonly skipped: ReadonlyMap<string, string>;
  readonly parts: readonly Told<PartBody>[];
  readonly photos: readonly Told<PhotoBody>[];
  readonly notes: readonly Told<NoteBody>[];
  readonly faults: readonly Told<FaultBody>[];
  readonly hours: number | null;
  /** What the gauge showed with the drain open, where it does not rest at zero. */
  readonly gaugeOffZero: { readonly pressureBar: number; readonly provedBy: string | null } | null;
  readonly isRestarted: boolean;
  readonly signed: Told<SignBody> | null;
  readonly left: { readonly reason: string; readonly by: string; readonly at: Instant } | null;
  /** Empty when it can be signed for. */
  readonly obstacles: readonly Obstacle[];
  readonly isolationNotConfirmed: readonly string[];
}

/** What the fold of a visit's steps needs to know of the unit. */
export interface VisitUnit {
  readonly plate: DataPlate;
  /** Every task of the unit's plan. */
  readonly plan: readonly ServiceTask[];
  /** Codes of the tasks planned for the visit when it began. */
  readonly planned: readonly string[];
  /** Kinds of step that are known; default: all of this release. */
  readonly kinds?: StepKinds | undefined;
}

interface Answer extends Pick<TaskAnswer, 'outcome' | 'reason'> {
  readonly at: Instant;
  readonly by: string;
  readonly marks: readonly string[];
  /** Place in the order of things, for what comes before and after. */
  readonly index: number;
}

/** What was said, in its order, before it is judged. */
interface Gathered {
  readonly planned: Set<string>;
  readonly answers: Map<string, Answer>;
  readonly closed: Map<string, string>;
  readonly skipped: Map<string, string>;
  readonly measured: (Told<MeasureBody> & { readonly index: number })[];
  readonly tight: { readonly index: number; readonly tight: boolean; readonly words: string | null }[];
  readonly parts: Told<PartBody>[];
  readonly photos: Told<PhotoBody>[];
  readonly notes: Told<NoteBody>[];
  readonly faults: Told<FaultBody>[];
  hours: number | null;
  gaugeOffZero: UnitProgress['gaugeOffZero'];
  restartIndex: number;
  signed: (Told<SignBody> & { readonly index: number }) | null;
  left: UnitProgress['left'];
}

function gather({ planned, kinds }: VisitUnit, order: readonly VisitStep[]): Gathered {
  const found: Gathered = {
    planned: new Set(planned),
    answers: new Map(),
    closed: new Map(),
    skipped: new Map(),
    measured: [],
    tight: [],
    parts: [],
    photos: [],
    notes: [],
    faults: [],
    hours: null,
    gaugeOffZero: null,
    restartIndex: -1,
    signed: null,
    left: null,
  };
  order.forEach((step, index) => add(found, step, index, kinds));
  return found;
}

function add(
  found: Gathered,
  { id, doneAt: at, by, body, marks = [] }: VisitStep,
  index: number,
  kinds: StepKinds | undefined,
): void {
  const told = { id, at, by };
  for (const { task, outcome, reason } of moduleOf(body, kinds)?.answers?.(body) ?? []) {
    found.planned.add(task);
    found.answers.set(task, { outcome, at, by, reason, marks, index });
    found.closed.delete(task);
  }
  switch (body.kind) {
    case 'plan':
      return body.tasks.forEach((code) => found.planned.add(code));
    case 'measure':
      found.skipped.delete(body.check);
      return void found.measured.push({ ...body, ...told, index });
    case 'skip':
      return void found.skipped.set(body.check, body.reason);
    case 'part':
      return void found.parts.push({ ...body, ...told });
    case 'photo':
      return void found.photos.push({ ...body, ...told });
    case 'note':
      return void found.notes.push({ ...body, ...told });
    case 'fault':
      return void found.faults.push({ ...body, ...told });
    case 'hours':
      found.hours = body.hours;
      return;
    case 'isolate':
      return addIsolation(found, body);
    case 'restart':
      found.restartIndex = index;
      return;
    case 'tight':
      return void found.tight.push({ index, tight: body.tight, words: body.words ?? null });
    case 'close':
      return void found.closed.set(body.task, body.reason);
    case 'sign':
      found.signed = { ...body, ...told, index };
      found.left = null;
      return;
    case 'leave':
      found.left = { reason: body.reason, by, at };
      return;
  }
}

function addIsolation(found: Gathered, body: IsolateBody): void {
  if (body.step !== 'gauge-zero' || body.pressureBar === undefined) return;
  const { pressureBar, provedBy = null } = body;
  found.gaugeOffZero = pressureBar === 0 ? null : { pressureBar, provedBy };
}

/** Brings together what happened on one unit, whatever order it became known in. */
export function progressOf(unit: VisitUnit, steps: readonly VisitStep[]): UnitProgress {
  const found = gather(unit, inOrder(steps));
  const { planned, answers, closed, restartIndex, signed } = found;
  const known = new Map(unit.plan.map((task) => [task.code, task]));
  const tasks = [...planned].map((code) =>
    visitTask(code, known.get(code), answers.get(code), closed.get(code) ?? null, (proof, after) =>
      standingOfProof(found, proof, after),
    ),
  );
  const opened = [...answers].flatMap(([code, { outcome, index }]) =>
    outcome === 'done' && known.get(code)?.isolation === 'isolated-and-vented' ? [index] : [],
  );
  const isRestarted = restartIndex > Math.max(-1, ...opened);
  const hasNews = signed !== null && [...answers.values()].some(({ index }) => index > signed.index);
  return {
    tasks,
    measured: found.measured,
    skipped: found.skipped,
    parts: usedParts(found.parts),
    photos: found.photos,
    notes: found.notes,
    faults: found.faults,
    hours: found.hours,
    gaugeOffZero: found.gaugeOffZero,
    isRestarted,
    signed: hasNews ? null : signed,
    left: found.left,
    obstacles: obstaclesTo(tasks, known, opened.length > 0 && !isRestarted),
    isolationNotConfirmed: tasks.flatMap(({ code, marks }) => (marks.includes(NOT_CONFIRMED) ? [code] : [])),
  };

  function visitTask(
    code: string,
    task: ServiceTask | undefined,
    answer: Answer | undefined,
    closedBecause: string | null,
    standing: (proof: Proof, after: number) => ProofStanding,
  ): VisitTask {
    const isDone = answer?.outcome === 'done';
    const proofs =
      isDone && task ? proofsOf(task, unit.plate).map((proof) => standing(proof, answer.index)) : [];
    return {
      code,
      outcome: answer?.outcome ?? 'open',
      doneAt: isDone ? answer.at : null,
      by: answer?.by ?? null,
      reason: answer?.reason ?? null,
      proofs,
      proof: proofState(proofs, closedBecause),
      closedBecause,
      marks: answer?.marks ?? [],
    };
  }
}

/** Each part once, with how many of it stayed used. */
function usedParts(told: readonly Told<PartBody>[]): Told<PartBody>[] {
  const sums = new Map<string, Told<PartBody>>();
  for (const one of told) {
    const key = one.part ?? one.name;
    const before = sums.get(key);
    sums.set(key, before ? { ...before, count: before.count + one.count } : one);
  }
  return [...sums.values()].filter(({ count }) => count > 0);
}

/** The last word on a proof after the work: what was proved before it proves nothing. */
function standingOfProof({ tight, measured }: Gathered, proof: Proof, after: number): ProofStanding {
  if (proof.kind === 'tight') {
    const last = tight.findLast(({ index }) => index > after);
    const state = last === undefined ? 'missing' : last.tight ? 'passed' : 'failed';
    return { proof, state, words: last?.words ?? null };
  }
  const last = measured.findLast(
    ({ index, phase, check }) => index > after && phase === 'proof' && proof.anyOf.includes(check),
  );
  const state = last === undefined ? 'missing' : hasPassed(last) ? 'passed' : 'failed';
  return { proof, state, words: last?.reason ?? null };
}

/** Mark of work whose isolation nobody had confirmed for its moment. */
export const NOT_CONFIRMED = 'isolation-not-confirmed';

function hasPassed({ verdict }: MeasureBody): boolean {
  return verdict === 'good' || verdict === 'watch';
}

function proofState(proofs: readonly ProofStanding[], closedBecause: string | null): ProofState {
  if (proofs.length === 0) return 'none-needed';
  if (proofs.every(({ state }) => state === 'passed')) return 'passed';
  if (closedBecause !== null) return 'closed';
  return proofs.some(({ state }) => state === 'failed') ? 'failed' : 'missing';
}

function obstaclesTo(
  tasks: readonly VisitTask[],
  known: ReadonlyMap<string, ServiceTask>,
  mustRestart: boolean,
): Obstacle[] {
  const names = (codes: readonly string[]) => codes.map((code) => known.get(code)?.name ?? code).join(', ');
  const obstacle = (code: Obstacle['code'], found: readonly VisitTask[], say: (names: string) => string) =>
    found.length === 0
      ? []
      : [
          {
            code,
            tasks: found.map((task) => task.code),
            sentence: say(names(found.map((task) => task.code))),
          },
        ];
  return [
    ...obstacle(
      'unanswered',
      tasks.filter(({ outcome }) => outcome === 'open'),
      (found) => `Not answered yet: ${found}. Done, or not done and why?`,
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
            sentence: 'It was opened and has not been started again: what was done is not proved.',
          } as const,
        ]
      : []),
    ...obstacle(
      'proof-failed',
      tasks.filter(({ proof }) => proof === 'failed'),
      (found) => `The proof failed: ${found}. Mend it and prove it again, or close it with a reason.`,
    ),
    ...obstacle(
      'unproved',
      tasks.filter(({ proof }) => proof === 'missing'),
      (found) => `Not proved yet: ${found}. Prove it, or close it with a reason.`,
    ),
  ];
}

/** Tasks that count as done once the unit is signed for: done, and proved or closed. */
export function countedTasks({ tasks }: Pick<UnitProgress, 'tasks'>): readonly VisitTask[] {
  return tasks.filter(
    ({ outcome, proof }) => outcome === 'done' && proof !== 'missing' && proof !== 'failed',
  );
}
