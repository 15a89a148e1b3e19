import type { DataPlate } from '../machine/index.js';

/** One thing to do in an overhaul. */
export interface ProcedureStep {
  readonly code: string;
  readonly name: string;
  /** How, and what goes wrong when it is done otherwise. */
  readonly how?: string | undefined;
  /** The hazard, where it is met. */
  readonly caution?: string | undefined;
  /** Bolts or screws of which the figure is asked for. */
  readonly torque?: string | undefined;
  /** Only on machines that are built so; left out: on all. */
  readonly onlyOn?: (plate: DataPlate) => boolean;
}

/** An overhaul in its order. Common practice: the maker's manual of the machine comes first. */
export interface Procedure {
  readonly code: string;
  readonly name: string;
  /** Task that it does, by code, where the plan has it. */
  readonly task?: string | undefined;
  readonly fits: (plate: DataPlate) => boolean;
  /** What is renewed at every such overhaul. */
  readonly renew: readonly string[];
  /** Codes of what it opens; left out: everything. */
  readonly opens?: (plate: DataPlate) => readonly string[];
  /** Check that shows whether it helped. */
  readonly provedBy: string;
  readonly steps: readonly ProcedureStep[];
}
