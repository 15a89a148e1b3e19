import { factKind } from './fact-kind.js';
import { describeDay, type Instant } from '../basics/index.js';
import {
  moduleOf,
  spelled,
  readRecordedBody,
  stepText,
  type StepKind,
  type StepKinds,
} from '../visit/index.js';

interface Visit {
  readonly siteId: string;
  readonly plannedOn: string;
  readonly units: readonly object[];
}

const visit = factKind<Visit>({
  kind: 'visit',
  title: 'Visits',
  content: ['siteId', 'plannedOn', 'units'],
  at: ({ recordedAt }) => recordedAt,
  text: ({ plannedOn, units: { length } }) =>
    `Visit planned for ${describeDay(plannedOn)}, ${length} ${length === 1 ? 'unit' : 'units'}`,
});

interface Step {
  readonly compressorId: string;
  readonly visitId: string;
  readonly kind: StepKind;
  readonly doneAt: Instant;
  readonly session: string;
  readonly details: object;
}

/** Steps of visits, of the kinds in a registry; default: all of this release. */
export function visitStepFact(kinds?: StepKinds) {
  const bodyOf = ({ kind, details }: Step) => readRecordedBody(kind, details, kinds);
  return factKind<Step>({
    kind: 'visit-step',
    title: 'Steps of visits',
    content: ['visitId', 'compressorId', 'kind', 'doneAt', 'session', 'details'],
    at: ({ doneAt }) => doneAt,
    text: (step, names) => {
      const body = bodyOf(step);
      if (body !== null && moduleOf(body, kinds)?.isFactOfItsOwn) return null;
      // What can no longer be read happened all the same.
      const text = body === null ? spelled(step.kind) : stepText(body, names, kinds);
      return [text, ...step.marks.map((mark) => spelled(mark).toLowerCase())].join(', ');
    },
    lead: (step) => {
      const body = bodyOf(step);
      return body?.kind === 'isolate' && body.confirmed && step.marks.length === 0 ? 'Isolated' : null;
    },
  });
}

const visitStep = visitStepFact();

/** Visits and what happened in them. */
export const visitFacts = { visit, visitStep } as const;
