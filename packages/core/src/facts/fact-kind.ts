import type { Instant } from '../basics/index.js';
import { formatFigure } from '../quantities/index.js';
import type { StepNames } from '../visit/index.js';

/** What the codes in a fact are called where it happened. */
export interface FactNames extends StepNames {
  /** Continuous hours on the meter that was fitted then. */
  hours(hours: number, at: Instant): string;
}

/** What every fact carries, whatever its kind. */
export interface AnyFact {
  readonly id: string;
  readonly recordedAt: Instant;
  readonly by: string;
  readonly note: string | null;
  readonly marks: readonly string[];
}

/**
 * Everything that is true of one kind of fact: how it is told from others, when it happened, what it says. Store,
 * logbook, revision, withdrawal and histories are made from a list of these; what none of them needs stays out.
 */
export interface FactKind<Fact extends object = object> {
  /** Its code: on record, in addresses and in exports. */
  readonly kind: string;
  /** What the logbook calls facts of the kind, in the plural; left out for what does not stand in it. */
  readonly title?: string;
  /** The properties that make up its content: what a repeated id must agree on. */
  readonly content: readonly (keyof Fact & string)[];
  /** When it happened. */
  at(fact: Fact & AnyFact): Instant;
  /** What it says in a line of the logbook; null for what stands there as a fact of another kind. */
  text?(fact: Fact & AnyFact, names: FactNames): string | null;
  /** Beginning that lines which follow each other share: they are shown as one. */
  lead?(fact: Fact & AnyFact): string | null;
  /** The property that says when it happened, where that is sent with it. */
  readonly moment?: keyof Fact & string;
  /** Where facts of the kind are read and withdrawn, below the compressor that they are about. */
  readonly collection?: string;
}

/** A kind as lists of kinds hold it: each is only ever asked about facts of its own. */
export function factKind<Fact extends object>(kind: FactKind<Fact>): FactKind {
  return kind as unknown as FactKind;
}

/** Run hours in a line of the logbook. */
export function hoursText(hours: number): string {
  return `${formatFigure(hours, { figures: 6, maxDecimals: 1 })} h`;
}
