import type {
  CauseCode,
  Counts,
  FindingView,
  GivenAnswer,
  KnownOfMachine,
  MachineState,
} from '@entretien/core/faults';
import type { DataPlate } from '@entretien/core/machine';

/** What is asked of the fault finder, away from the page. */
export interface FindingRequest {
  readonly plate: DataPlate;
  readonly symptom: string;
  readonly answers: readonly GivenAnswer[];
  readonly state: MachineState;
  readonly mended: readonly CauseCode[];
  readonly counts: Counts;
  readonly known: KnownOfMachine;
  readonly isElectrician: boolean;
}

/** A question by its number: only the answer to the latest is shown. */
export interface NumberedRequest {
  readonly number: number;
  readonly request: FindingRequest;
}

export interface NumberedView {
  readonly number: number;
  readonly view: FindingView;
}
