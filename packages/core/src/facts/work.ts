import type { Instant } from '../basics/index.js';
import { factKind, hoursText } from './fact-kind.js';
import { describeVerdict, type CheckValues, type Judgement, type Verdict } from '../checks/index.js';
import {
  ourEntryKinds,
  procedureStepName,
  repairBegan,
  type EntryKind,
  type FaultSearch,
  type RepairKind,
} from '../repairs/index.js';
import { listed, LOOKED_AT, readRecordedBody, spelled, stepText } from '../visit/index.js';

interface Service {
  readonly compressorId: string;
  readonly doneAt: Instant;
  readonly hours: number | null;
  readonly tasks: readonly string[];
  readonly corrects: string | null;
}

const service = factKind<Service>({
  kind: 'service',
  title: 'Services',
  collection: 'services',
  content: ['compressorId', 'doneAt', 'hours', 'tasks', 'corrects'],
  at: ({ doneAt }) => doneAt,
  text: ({ tasks, hours, marks }, names) => {
    const isSeen = (code: string) => marks.includes(`${LOOKED_AT}${code}`);
    const named = tasks.map((code) =>
      isSeen(code) ? `${names.task(code)} (looked at, no result)` : names.task(code),
    );
    return `Service: ${listed(named)}${hours === null ? '' : `, at ${hoursText(hours)}`}`;
  },
});

interface Measurement {
  readonly compressorId: string;
  readonly check: string;
  readonly takenAt: Instant;
  readonly values: CheckValues;
  readonly hours: number | null;
  readonly baseline: boolean;
  readonly corrects: string | null;
  readonly verdict: Verdict;
  readonly judgement: Judgement;
}

const measurement = factKind<Measurement>({
  kind: 'measurement',
  title: 'Measurements',
  collection: 'measurements',
  content: ['compressorId', 'check', 'takenAt', 'values', 'hours', 'baseline', 'corrects'],
  at: ({ takenAt }) => takenAt,
  text: ({ check, judgement }, names) =>
    `${names.check(check)}, ${describeVerdict(judgement)}: ${judgement.reason}`,
});

interface Repair {
  readonly compressorId: string;
  readonly kind: RepairKind;
  readonly foundAt: Instant;
  readonly found: string;
  readonly station: string | null;
}

const repair = factKind<Repair>({
  kind: 'repair',
  title: 'Repairs',
  content: ['compressorId', 'kind', 'foundAt', 'found', 'station'],
  at: ({ foundAt }) => foundAt,
  text: ({ kind, found }) => `${repairBegan[kind]}: ${found}`,
});

interface RepairEntry {
  readonly compressorId: string;
  readonly repairId: string;
  readonly kind: EntryKind;
  readonly at: Instant;
  readonly text: string;
  readonly minutes: number | null;
  readonly count: number | null;
  readonly part: string | null;
  readonly check: string | null;
  readonly values: CheckValues | null;
  readonly cause: string | null;
  readonly search: FaultSearch | null;
  readonly opens: readonly string[] | null;
  readonly session: string | null;
  readonly outcome: { readonly verdict: Verdict } | null;
  readonly corrects: string | null;
}

/** What was done about repairs, by the kinds in a registry; default: all of this release. */
export function repairEntryFact(kinds = ourEntryKinds) {
  return factKind<RepairEntry>({
    kind: 'repair-entry',
    title: 'Work on repairs',
    content: [
      'repairId',
      'kind',
      'at',
      'text',
      'minutes',
      'count',
      'part',
      'check',
      'values',
      'cause',
      'search',
      'opens',
      'session',
      'corrects',
    ],
    at: ({ at }) => at,
    text: ({ kind, text, minutes, outcome }) =>
      `${kinds.get(kind)?.name ?? spelled(kind)}: ${kind === 'step' ? procedureStepName(text) : text}${minutes === null ? '' : `, ${minutes} min`}${outcome === null ? '' : `, ${outcome.verdict}`}`,
  });
}

const repairEntry = repairEntryFact();

interface RepairStep {
  readonly compressorId: string;
  readonly repairId: string;
  readonly kind: 'isolate' | 'restart';
  readonly doneAt: Instant;
  readonly session: string;
  readonly details: object;
}

/** Isolating and starting again, told of a repair. */
const repairStep = factKind<RepairStep>({
  kind: 'repair-step',
  title: 'Isolation in repairs',
  content: ['repairId', 'kind', 'doneAt', 'session', 'details'],
  at: ({ doneAt }) => doneAt,
  text: ({ kind, details }, names) => {
    const body = readRecordedBody(kind, details);
    return body === null ? spelled(kind) : stepText(body, names);
  },
  lead: ({ kind, details }) =>
    kind === 'isolate' && (details as { confirmed?: boolean }).confirmed === true ? 'Isolated' : null,
});

/** What was done, measured and mended. */
export const workFacts = { service, measurement, repair, repairEntry, repairStep } as const;
