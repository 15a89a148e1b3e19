import { factKind } from './fact-kind.js';

interface Vessel {
  readonly kind: string;
  readonly details: object;
}

const vessel = factKind<Vessel>({
  kind: 'vessel',
  content: ['kind', 'details'],
  at: ({ recordedAt }) => recordedAt,
});

interface VesselChange {
  readonly vesselId: string;
  readonly changes: object;
}

const vesselChange = factKind<VesselChange>({
  kind: 'vessel-change',
  content: ['vesselId', 'changes'],
  at: ({ recordedAt }) => recordedAt,
});

interface Examination {
  readonly vesselId: string;
  readonly kind: 'test' | 'inspection';
  readonly doneOn: string;
  readonly passed: boolean;
}

const vesselExamination = factKind<Examination>({
  kind: 'vessel-examination',
  title: 'Vessels',
  content: ['vesselId', 'kind', 'doneOn', 'passed'],
  // A day, and no moment of it: the middle lies in that day wherever it was.
  at: ({ doneOn }) => Date.parse(`${doneOn}T12:00:00Z`),
  text: ({ kind, passed }) =>
    `Vessel, ${kind === 'test' ? 'pressure test' : 'inspection'}: ${passed ? 'passed' : 'not passed'}`,
});

/** Receivers, banks and cylinders. */
export const vesselFacts = { vessel, vesselChange, vesselExamination } as const;
