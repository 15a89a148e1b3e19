import type { StepOutcome, VisitStepView } from '@entretien/contracts';
import { DEFAULT_PERSON_ID } from '@entretien/contracts/light';
import type { StepBody, VisitStep } from '@entretien/core/visit';
import type { OutboxItem } from '../../data/outbox/outbox-item.js';

/** A step of the server's as the core sees it, with what came out of a measurement. */
function toStep({
  id,
  doneAt,
  by,
  session,
  marks,
  kind,
  details,
  outcome,
  ...view
}: VisitStepView): VisitStep {
  const body = bodyOf(kind, details, outcome);
  return {
    id,
    doneAt: Date.parse(doneAt),
    by,
    session,
    marks,
    body,
    recordedAt: Date.parse(view.recordedAt),
    isBeforeSpaces: view.isBeforeSpaces,
  };
}

function bodyOf(kind: StepBody['kind'], details: object, outcome: StepOutcome | undefined): StepBody {
  const { figure: _figure, ...judged } = outcome ?? {};
  return { kind, ...details, ...judged } as StepBody;
}

/** A step that waits on this device, as it will be. */
function queuedStep({ id, body, personId, outcome }: OutboxItem): VisitStep {
  const { kind, doneAt, session, details } = body as {
    kind: StepBody['kind'];
    doneAt: string;
    session: string;
    details: object;
  };
  return {
    id,
    doneAt: Date.parse(doneAt),
    by: personId ?? DEFAULT_PERSON_ID,
    session,
    body: bodyOf(kind, details, outcome),
  };
}

/**
 * Everything known of a unit's steps: those of the server's last answer, those it has taken since, and those
 * that wait; each once, in the order in which they happened. What was refused is not among them.
 */
export function mergeSteps(
  compressorId: string,
  answered: readonly VisitStepView[],
  taken: readonly VisitStepView[],
  queued: readonly OutboxItem[],
): readonly VisitStep[] {
  const steps = new Map<string, VisitStep>();
  for (const item of queued) {
    const isStep = item.kind === 'visit-step' && item.compressorId === compressorId && item.problem === null;
    if (isStep) steps.set(item.id, queuedStep(item));
  }
  for (const step of [...taken, ...answered]) {
    if (step.compressorId === compressorId) steps.set(step.id, toStep(step));
  }
  return [...steps.values()].sort((a, b) => a.doneAt - b.doneAt || (a.id < b.id ? -1 : 1));
}
