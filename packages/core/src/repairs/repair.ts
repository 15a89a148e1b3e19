import { err, ok, type Instant, type Result } from '../basics/index.js';
import type { Verdict } from '../checks/index.js';
import { ourEntryKinds, type EntryKind } from './entries.js';

/** A fault to be mended; or what was changed on purpose, on the machine as it is or to make work easier. */
export const repairKinds = ['fault', 'modification', 'improvement'] as const;
export type RepairKind = (typeof repairKinds)[number];

/** How what is told of one begins. */
export const repairBegan: Readonly<Record<RepairKind, string>> = {
  fault: 'Fault found',
  modification: 'Modified',
  improvement: 'Improved',
};

/** A search for a cause: what was seen, and what was answered, by their codes. */
export interface FaultSearch {
  readonly symptom: string;
  readonly answers: readonly { readonly test: string; readonly answer: string }[];
}

/** Something that was said of a repair. */
export interface RepairEntry {
  readonly id: string;
  readonly at: Instant;
  readonly by: string;
  readonly kind: EntryKind;
  /** In words: the cause, the work, the part, the reason. For a step: its code. */
  readonly text: string;
  readonly minutes?: number | undefined;
  readonly count?: number | undefined;
  /** Code of the check that proves it, and what came out. */
  readonly check?: string | undefined;
  readonly verdict?: Verdict | undefined;
  /** Code of the cause that it names, among those that the fault finder knows. */
  readonly cause?: string | undefined;
  /** What the fault finder was told. */
  readonly search?: FaultSearch | undefined;
  /** Codes of what the work opened; empty: nothing. Left out where nobody said. */
  readonly opens?: readonly string[] | undefined;
  /** The page that it was told on. */
  readonly session?: string | undefined;
}

export type RepairState = 'found' | 'worked-on' | 'proof-failed' | 'proved' | 'closed';

/** How a repair stands. */
export interface RepairStanding {
  readonly state: RepairState;
  readonly isOpen: boolean;
  readonly cause: string | null;
  /** Code of that cause, where the fault finder named it. */
  readonly causeCode: string | null;
  /** Code of the cause that it was in truth, once somebody confirmed it. */
  readonly confirmed: string | null;
  /** What the fault finder was told last. */
  readonly search: FaultSearch | null;
  readonly minutes: number;
  readonly steps: ReadonlySet<string>;
  /** What is still missing, in a sentence; null when it is proved or closed. */
  readonly waitsFor: string | null;
}

/**
 * How a repair stands: open until a proving check after the last work passed, or it was closed with a reason.
 * A modification or an improvement is done when it is recorded.
 */
export function repairStanding(
  kind: RepairKind,
  entries: readonly RepairEntry[],
  kinds = ourEntryKinds,
): RepairStanding {
  const order = [...entries].sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));
  const named = order.findLast((entry) => entry.kind === 'cause');
  const of = (kind: EntryKind) => order.findLast((entry) => entry.kind === kind);
  const minutes = order.reduce((sum, entry) => sum + (entry.minutes ?? 0), 0);
  const steps = new Set(order.flatMap((entry) => (entry.kind === 'step' ? [entry.text] : [])));
  const lastWork = order.findLastIndex((entry) => kinds.get(entry.kind)?.isWork);
  const lastVerification = order.findLastIndex((entry) => entry.kind === 'proof');
  const isClosed = order.some((entry) => entry.kind === 'close');
  const cause = named?.text ?? null;
  const shared = {
    cause,
    causeCode: named?.cause ?? null,
    confirmed: of('confirmed')?.cause ?? null,
    search: of('search')?.search ?? null,
    minutes,
    steps,
  };
  if (kind !== 'fault') return { ...shared, state: 'proved', isOpen: false, waitsFor: null };
  if (lastVerification > lastWork && lastVerification >= 0 && hasPassed(order[lastVerification]!)) {
    return { ...shared, state: 'proved', isOpen: false, waitsFor: null };
  }
  if (isClosed) return { ...shared, state: 'closed', isOpen: false, waitsFor: null };
  if (lastVerification > lastWork && lastVerification >= 0) {
    return {
      ...shared,
      state: 'proof-failed',
      isOpen: true,
      waitsFor: 'The check failed: look again for the cause.',
    };
  }
  if (lastWork >= 0) {
    return {
      ...shared,
      state: 'worked-on',
      isOpen: true,
      waitsFor: 'Not proved yet: measure whether it helped.',
    };
  }
  return {
    ...shared,
    state: 'found',
    isOpen: true,
    waitsFor: cause === null ? 'The cause is not known yet.' : 'Nothing was done yet.',
  };
}

function hasPassed({ verdict }: RepairEntry): boolean {
  return verdict === 'good' || verdict === 'watch';
}

/** Whether an entry can be added to a repair as it stands. */
export function admitEntry(
  kind: RepairKind,
  entries: readonly RepairEntry[],
  entry: Pick<RepairEntry, 'kind' | 'verdict' | 'cause'>,
  kinds = ourEntryKinds,
): Result<null> {
  const module = kinds.get(entry.kind);
  if (kind !== 'fault' && !module?.isAlwaysTaken) {
    return err(
      'not-a-fault',
      'A modification or an improvement is done when it is recorded: add a note.',
      'kind',
    );
  }
  const lacking = module?.problem?.(entry);
  if (lacking) return lacking;
  const { isOpen, state } = repairStanding(kind, entries, kinds);
  if (!isOpen && !module?.isAlwaysTaken) {
    const how = state === 'proved' ? 'proved' : 'closed';
    return err('already-settled', `This repair is ${how}. What is found now is a new one.`);
  }
  return ok(null);
}

/**
 * Whether the words of an entry can be put right. It stays what it was, and when it was, with what it opened: what
 * else was wrong is taken back, and said anew by the door that judges it.
 */
export function admitRewording(
  { kind }: Pick<RepairEntry, 'kind'>,
  next: Pick<RepairEntry, 'kind'>,
  kinds = ourEntryKinds,
): Result<null> {
  const module = kinds.get(kind);
  if (next.kind === kind && module?.isWords) return ok(null);
  const name = module?.name ?? kind;
  const sentence =
    next.kind === kind
      ? `“${name}” cannot be corrected: withdraw it, and enter it again.`
      : `It was “${name}”, and stays that: withdraw it, and enter it again.`;
  return err('not-in-words', sentence, 'kind');
}
