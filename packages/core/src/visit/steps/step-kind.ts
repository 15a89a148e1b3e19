import type { Problem } from '../../basics/index.js';
import type { DataPlate } from '../../machine/index.js';

/** What the codes in a step are called on its machine. */
export interface StepNames {
  task(code: string): string;
  check(code: string): string;
  isolationStep(code: string): string;
  isolationTile(code: string, tile: string): string;
}

/** Longest texts of a step, and how many codes it may name. */
export const stepLimits = {
  code: 40,
  name: 120,
  reason: 500,
  note: 2000,
  strokes: 20_000,
  codes: 100,
} as const;

/** How a field is understood in a step that is on record; with a question mark it may be missing. */
export type FieldType = `${'text' | 'number' | 'flag' | 'codes' | 'values'}${'' | '?'}`;

/** What became of a task. */
export interface TaskAnswer {
  readonly task: string;
  /** `looked`: not done, but where it counts from is known now. */
  readonly outcome: 'open' | 'done' | 'not-done' | 'looked';
  readonly reason: string | null;
}

export interface AnyBody {
  readonly kind: string;
}

/**
 * Everything that is true of one kind of step, wherever a step is read, admitted, brought together or worded. What
 * a sender must keep to stands in its contract; what is on record is understood by its fields alone.
 */
export interface StepModule<Body extends AnyBody = AnyBody> {
  readonly kind: Body['kind'];
  /** Whether somebody answers for the machine by it, with a name. */
  readonly isSigned?: true;
  readonly fields: Readonly<Record<string, FieldType>>;
  /** What it says, in a line. */
  text(body: Body, names: StepNames): string;
  /** Whether it is recorded as a fact of its own besides: in the logbook it stands as that. */
  readonly isFactOfItsOwn?: true;
  /** Tasks that it names: they must be of the unit's plan. */
  tasks?(body: Body): readonly string[];
  /** What became of tasks by it; what is done needs the machine as the task wants it. */
  answers?(body: Body): readonly TaskAnswer[];
  /** What is opened for it, by the codes of isolation; left out: what its tasks open. */
  opens?(body: Body): readonly string[];
  /** Whether it may be said of a unit that is signed for: it changes nothing that was signed. */
  readonly isTakenAfterSigning?: true;
  /** What the machine itself has against it. */
  problem?(body: Body, plate: DataPlate): Problem | null;
}

/** A kind as lists of kinds hold it: each is only ever asked about steps of its own. */
export function stepKind<Body extends AnyBody>(
  module: StepModule<Body>,
): StepModule & { readonly body: Body } {
  return module as unknown as StepModule & { readonly body: Body };
}
