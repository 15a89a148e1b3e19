import type { Instant, LocalDate } from '../basics/index.js';

export const vesselKinds = ['receiver', 'bank', 'cylinder'] as const;
export type VesselKind = (typeof vesselKinds)[number];

export const vesselExaminations = ['test', 'inspection'] as const;
export type VesselExamination = (typeof vesselExaminations)[number];

/** A receiver or cylinder was tested or inspected. */
export interface VesselRecord {
  readonly kind: VesselExamination;
  readonly doneOn: LocalDate;
  readonly passed: boolean;
  readonly recordedAt: Instant;
  readonly voidedAt?: Instant | null | undefined;
}

/** A receiver, bank or cylinder, as far as its dates need it. */
export interface VesselHistory {
  readonly id: string;
  readonly tag: string;
  readonly kind: VesselKind;
  readonly recordedAt: Instant;
  /** Out of service from this day on. */
  readonly retiredOn?: LocalDate | undefined;
  /** Months between pressure tests, and between inspections, as the local law says; none until entered. */
  readonly testEveryMonths?: number | undefined;
  readonly inspectEveryMonths?: number | undefined;
  readonly records: readonly VesselRecord[];
}

/** The vessel that a date belongs to. */
export interface VesselRef {
  readonly id: string;
  readonly tag: string;
  readonly examination: VesselExamination;
}
