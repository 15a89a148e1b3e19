import type { Instant } from '../basics/index.js';

export const counterKinds = ['total', 'loaded'] as const;
export type CounterKind = (typeof counterKinds)[number];

export const readingSources = ['typed', 'imported', 'gateway', 'estimated'] as const;
export type ReadingSource = (typeof readingSources)[number];

export const meterChangeReasons = ['replaced', 'reset', 'rolled-over'] as const;
export type MeterChangeReason = (typeof meterChangeReasons)[number];

/** No meter counts further than a machine that ran for a century. */
export const MOST_METER_HOURS = 1_000_000;

/** A figure read off the meter fitted at that moment. */
export interface HourReading {
  readonly takenAt: Instant;
  readonly hours: number;
  readonly counts: CounterKind;
  readonly source: ReadingSource;
  readonly recordedAt: Instant;
  /** When it became known to be wrong: withdrawn, or corrected by another. */
  readonly voidedAt?: Instant | null | undefined;
}

/** The meter jumped: a new one was fitted, it was set back, or it ran past its last digit. */
export interface MeterChange {
  readonly changedAt: Instant;
  /** Last figure before the jump; at a roll-over the figure at which it turns, such as 10,000. */
  readonly oldFinalHours: number;
  /** First figure after it; at a roll-over 0. */
  readonly newStartHours: number;
  readonly reason: MeterChangeReason;
  readonly recordedAt: Instant;
  readonly voidedAt?: Instant | null | undefined;
}

/** Everything the meters of one compressor ever said. Order does not matter. */
export interface HourLog {
  readonly readings: readonly HourReading[];
  readonly meterChanges: readonly MeterChange[];
}
