import { err, ok, type Instant, type Result, type Problem } from '../basics/index.js';
import {
  againstTelling,
  isLockedBy,
  isolationOf,
  missingFor,
  describeMissing,
  type IsolationFold,
  type Missing,
} from '../isolation/index.js';
import { isDoneRunning, opensTogether } from './needs.js';
import { guardedOf, NOT_CONFIRMED, progressOf, type VisitCompressor } from './progress.js';
import { moduleOf, type StepBody, type VisitStep } from './visit-step.js';

/** What was done so long before it was told has already happened: it can be marked, not refused. */
export const LIVE_MS = 120_000;

/** Mark of what came in after the unit had been signed for. */
export const AFTER_SIGNING = 'after-signing';

/**
 * Whether a step may stand in a visit, and with which marks.
 *
 * Work that needs the machine isolated is refused while it is not, when it is told as it happens. Told later
 * (it was recorded without a connection) it has happened: it is taken, and marked where the isolation behind
 * it did not hold.
 *
 * @param steps of the unit in the visit, without this one
 * @param recordedAt when it became known
 */
export function admitStep(
  unit: VisitCompressor,
  steps: readonly VisitStep[],
  step: VisitStep,
  recordedAt: Instant,
): Result<readonly string[]> {
  const isLive = recordedAt - step.doneAt <= LIVE_MS;
  const marks: string[] = [];
  const module = moduleOf(step.body, unit.kinds);
  const tasks = new Set(unit.plan.map(({ code }) => code));
  const strange = module?.tasks?.(step.body).find((code) => !tasks.has(code));
  if (strange !== undefined) {
    return err('unknown-task', `“${strange}” is no task of this unit’s plan.`, 'details');
  }
  const problem = module?.problem?.(step.body, unit.plate);
  if (problem) return { ok: false, problem };
  const progress = progressOf(unit, steps);
  if (progress.signed !== null && !module?.isTakenAfterSigning) {
    if (isLive || step.body.kind === 'sign' || step.body.kind === 'leave') {
      return err(
        'already-signed',
        'This unit was signed for already. What is found now belongs to a new visit.',
      );
    }
    marks.push(AFTER_SIGNING);
  }
  if (step.body.kind === 'take-out') {
    const { tasks: taken } = step.body;
    const answered = progress.tasks.find(({ code, outcome }) => taken.includes(code) && outcome !== 'open');
    if (answered && isLive) {
      const name = unit.plan.find(({ code }) => code === answered.code)?.name ?? answered.code;
      return err('already-answered', `${name} is answered: take the answer back first.`, 'details');
    }
  }
  const guarded = admitByGuard(unit, steps, step);
  if (guarded !== null) {
    if (isLive) return { ok: false, problem: guarded };
    if (guarded.code === 'not-isolated') marks.push(NOT_CONFIRMED);
  }
  if (step.body.kind === 'sign') {
    const { informed = '' } = step.body;
    const [first] = progress.obstacles.filter(({ code }) => code !== 'stop-stands' || informed.trim() === '');
    if (first) return err(first.code, first.sentence);
  }
  return ok(marks);
}

/** What the guard has against a step, at its own moment. */
function admitByGuard(unit: VisitCompressor, steps: readonly VisitStep[], step: VisitStep): Problem | null {
  const fold = isolationAt(unit, steps, step.doneAt);
  const refusal = (found: { readonly code: string; readonly sentence: string } | null): Problem | null =>
    found === null ? null : { code: found.code, sentence: found.sentence, field: 'details' };
  const against = againstTelling(guardedOf(unit), fold, step);
  if (against !== null) return refusal(against);
  const missing = missingIsolation(unit, steps, step, fold);
  if (missing.length > 0)
    return refusal({ code: 'not-isolated', sentence: describeMissing(unit.plate, missing) });
  if (
    answeredDone(unit, step.body).some((task) => isDoneRunning(task, unit.plate)) &&
    isLockedBy(fold, step.by)
  ) {
    return refusal({
      code: 'is-isolated',
      sentence: 'That is done while it runs, and your lock is on: before isolating, or after the restart.',
    });
  }
  return null;
}

/** The isolation of a unit at a moment: by what was said in this visit, and anywhere else. */
export function isolationAt(unit: VisitCompressor, steps: readonly VisitStep[], at: Instant): IsolationFold {
  const known = [...steps, ...(unit.elsewhere ?? [])].filter(({ doneAt }) => doneAt <= at);
  return isolationOf(guardedOf(unit), known);
}

/** The points of isolation that a step needs, and that do not hold for who did it then. */
export function missingIsolation(
  unit: VisitCompressor,
  steps: readonly VisitStep[],
  { body, doneAt, by, session }: Pick<VisitStep, 'body' | 'doneAt' | 'by' | 'session'>,
  fold = isolationAt(unit, steps, doneAt),
): readonly Missing[] {
  const opens = openedBy(unit, body);
  if (opens?.length === 0) return [];
  return missingFor(guardedOf(unit), fold, opens, { at: doneAt, by, session });
}

/** What a step opens: the tasks that it answers as done, or the check that it takes. */
function openedBy(unit: VisitCompressor, body: StepBody): readonly string[] | null {
  const own = moduleOf(body, unit.kinds)?.opens?.(body);
  return own ?? opensTogether(answeredDone(unit, body), unit.plate);
}

function answeredDone(unit: VisitCompressor, body: StepBody) {
  const answers = moduleOf(body, unit.kinds)?.answers?.(body) ?? [];
  const done = answers.filter(({ outcome }) => outcome === 'done').map(({ task }) => task);
  return unit.plan.filter(({ code }) => done.includes(code));
}
