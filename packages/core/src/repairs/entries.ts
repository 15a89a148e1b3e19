import { err, type Result } from '../basics/index.js';
import type { Verdict } from '../checks/index.js';

/** What is asked of an entry before it may stand. */
interface Asked {
  /** Code of a cause. */
  readonly cause?: string | undefined;
  readonly verdict?: Verdict | undefined;
}

/** Everything that is true of one kind of entry in a repair. */
export interface EntryModule<Kind extends string = string> {
  readonly kind: Kind;
  /** How the logbook begins its line. */
  readonly name: string;
  /** Whether something was done to the machine: what was proved before proves nothing any more. */
  readonly isWork?: true;
  /** Whether something is opened for it: by what it says, by the guide it follows, or everything. */
  readonly mayOpen?: true;
  /** Whether it may be said of whatever is settled, and of what was changed on purpose. */
  readonly isAlwaysTaken?: true;
  /** Whether it is words alone, which can be put right as words; what is no more than that is taken back instead. */
  readonly isWords?: true;
  /** What it lacks. */
  readonly problem?: (entry: Asked) => Result<never> | null;
}

function entryKind<const Kind extends string>(module: EntryModule<Kind>): EntryModule<Kind> {
  return module;
}

const known = [
  entryKind({ kind: 'cause', name: 'Cause', isWords: true }),
  entryKind({ kind: 'work', name: 'Work done', isWork: true, mayOpen: true, isWords: true }),
  entryKind({ kind: 'part', name: 'Part used', isWork: true }),
  entryKind({ kind: 'step', name: 'Step', isWork: true, mayOpen: true }),
  entryKind({
    kind: 'proof',
    name: 'Proof',
    problem: ({ verdict }) =>
      verdict === undefined
        ? err('missing', 'Say by which check it is proved, and what came out.', 'check')
        : null,
  }),
  entryKind({ kind: 'close', name: 'Closed', isWords: true }),
  entryKind({ kind: 'note', name: 'Note', isAlwaysTaken: true, isWords: true }),
  entryKind({ kind: 'search', name: 'Fault finder' }),
  entryKind({
    kind: 'confirmed',
    name: 'Cause confirmed',
    isAlwaysTaken: true,
    problem: ({ cause }) => (cause === undefined ? err('missing', 'Say which cause it was.', 'cause') : null),
  }),
] as const;

export type EntryKind = (typeof known)[number]['kind'];

/** Kinds of entry by their code. */
export type EntryKinds = ReadonlyMap<string, EntryModule>;

export function entryKindsOf(modules: readonly EntryModule[]): EntryKinds {
  return new Map(modules.map((module) => [module.kind, module]));
}

export const entryModules: readonly EntryModule[] = known;

/** All kinds of this release. */
export const ourEntryKinds = entryKindsOf(known);
