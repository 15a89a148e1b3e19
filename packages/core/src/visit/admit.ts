import { refuse, succeed, type Instant, type Outcome } from '../basics/index.js';
import { isolationFor } from './guard.js';
import { isolationSteps, stepsNeededFor } from './isolation-steps.js';
import { NOT_CONFIRMED, progressOf, type VisitUnit } from './progress.js';
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
 * it had gone stale.
 *
 * @param steps of the unit in the visit, without this one
 * @param recordedAt when it became known
 */
export function admitStep(
  unit: VisitUnit,
  steps: readonly VisitStep[],
  step: VisitStep,
  recordedAt: Instant,
  awayMinutes?: number,
): Outcome<readonly string[]> {
  const isLive = recordedAt - step.doneAt <= LIVE_MS;
  const marks: string[] = [];
  const module = moduleOf(step.body, unit.kinds);
  const tasks = new Set(unit.plan.map(({ code }) => code));
  const strange = module?.tasks?.(step.body).find((code) => !tasks.has(code));
  if (strange !== undefined) {
    return refuse('unknown-task', `“${strange}” is no task of this unit’s plan.`, 'details');
  }
  const progress = progressOf(unit, steps);
  if (progress.signed !== null && !module?.isTakenAfterSigning) {
    if (isLive || step.body.kind === 'sign' || step.body.kind === 'leave') {
      return refuse(
        'already-signed',
        'This unit was signed for already. What is found now belongs to a new visit.',
      );
    }
    marks.push(AFTER_SIGNING);
  }
  const missing = missingIsolation(unit, steps, step, awayMinutes);
  if (missing.length > 0) {
    if (isLive) return refuse('not-isolated', sayMissing(unit, missing));
    marks.push(NOT_CONFIRMED);
  }
  const problem = module?.problem?.(step.body, unit.plate);
  if (problem) return { ok: false, problem };
  if (step.body.kind === 'sign') {
    const [first] = progress.obstacles;
    if (first) return refuse(first.code, first.sentence);
  }
  return succeed(marks);
}

/** The isolation steps that work of a step needs, and that do not hold for who did it then. */
export function missingIsolation(
  unit: VisitUnit,
  steps: readonly VisitStep[],
  { body, doneAt, by, session }: Pick<VisitStep, 'body' | 'doneAt' | 'by' | 'session'>,
  awayMinutes?: number,
): readonly string[] {
  const needed = neededBy(unit, body);
  if (needed.length === 0) return [];
  const { confirmed } = isolationFor(steps, { at: doneAt, by, session, awayMinutes });
  return needed.filter((code) => !confirmed.has(code));
}

function neededBy(unit: VisitUnit, body: StepBody): readonly string[] {
  const answers = moduleOf(body, unit.kinds)?.answers?.(body) ?? [];
  const done = answers.filter(({ outcome }) => outcome === 'done').map(({ task }) => task);
  const states = new Set(
    unit.plan.filter(({ code }) => done.includes(code)).map(({ isolation }) => isolation),
  );
  const needed = new Set([...states].flatMap((state) => stepsNeededFor(state, unit.plate)));
  return isolationSteps(unit.plate).flatMap(({ code }) => (needed.has(code) ? [code] : []));
}

function sayMissing(unit: VisitUnit, missing: readonly string[]): string {
  const names = isolationSteps(unit.plate).flatMap(({ code, name }) =>
    missing.includes(code) ? [name] : [],
  );
  return `The machine is not isolated for that. Still to do: ${names.join(', ')}.`;
}
