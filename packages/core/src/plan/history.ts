import type { Instant, LocalDate } from '../basics/index.js';
import type { VesselHistory } from './vessel-history.js';
import type { DeclaredDuty, FleetPrior, HourLog, HourReading } from '../hours/index.js';

/** Work that was done. */
export interface ServiceRecord {
  readonly doneAt: Instant;
  readonly recordedAt: Instant;
  /** Figure on the meter then fitted; counts as a reading too. */
  readonly hours?: number | undefined;
  readonly tasks: readonly string[];
  /** When it became known to be wrong. */
  readonly voidedAt?: Instant | null | undefined;
}

/** A figure that was measured, as far as the plan looks at it. */
export interface MeasuredFact {
  /** Code of the check. */
  readonly check: string;
  readonly takenAt: Instant;
  readonly recordedAt: Instant;
  readonly voidedAt?: Instant | null | undefined;
  /** The check's figure, in its own unit, with the standard uncertainty of measuring it. */
  readonly value: number;
  readonly uncertainty: number;
  readonly baseline?: boolean | undefined;
  /** Temperature of discharge, where that is what was measured, °C. */
  readonly tempC?: number | null | undefined;
}

/** What it can rest on where a task counts from, without a record of the work itself. */
export const startingBases = ['inspection', 'estimate', 'sticker'] as const;
export type StartingBasis = (typeof startingBases)[number];

/** Where a task counts from, set by a first inspection, an accepted estimate or what its sticker says. */
export interface StartingPointFact {
  readonly task: string;
  /** When it was looked at. */
  readonly setAt: Instant;
  readonly recordedAt: Instant;
  readonly voidedAt?: Instant | null | undefined;
  readonly basis: StartingBasis;
  /** Hours of its interval that were used by then; default: as the clock says since `countsFromOn`. */
  readonly hoursUsed?: number | null | undefined;
  /** Figure that the meter showed when it was done, as the sticker says, h. */
  readonly hoursThen?: number | null | undefined;
  /** Day that its months count from; default: the day it was looked at. */
  readonly countsFromOn?: LocalDate | null | undefined;
}

/** A task was put off: with the reason, and until when. */
export interface Deferral {
  readonly task: string;
  readonly deferredAt: Instant;
  readonly recordedAt: Instant;
  readonly voidedAt?: Instant | null | undefined;
  /** It ends at these run hours or at the start of this day, whichever comes first. */
  readonly untilHours?: number | null | undefined;
  readonly untilOn?: LocalDate | null | undefined;
  readonly reason: string;
  /** The risk of waiting, by name: a safety task cannot be put off without. */
  readonly risk?: string | null | undefined;
}

/** What the place and the data plate say of how hard the machine has it. */
export interface PlaceConditions {
  readonly dust?: 'clean' | 'normal' | 'dusty' | undefined;
  readonly humidity?: 'dry' | 'normal' | 'damp' | undefined;
  /** Temperature of discharge that the oil's life is rated at, °C. */
  readonly oilRatedTempC?: number | undefined;
}

/** What was believed of machines at large from a day on. */
export interface DatedPrior {
  readonly fixedAt: Instant;
  readonly prior: FleetPrior;
}

/** Everything on record that decides what is due on one compressor. Order does not matter. */
export interface CompressorHistory extends HourLog {
  readonly timeZone: string;
  readonly commissionedOn: LocalDate;
  /** `new`: tasks count from commissioning. `unknown`: no task has a starting point until it is done. */
  readonly history: 'new' | 'unknown';
  /** Whether the meter has counted since the machine was new; left out where nobody said. */
  readonly meterFrom?: 'new' | 'later' | undefined;
  readonly declaredHoursPerWeek?: number | undefined;
  readonly closedWeekdays?: DeclaredDuty['closedWeekdays'];
  readonly closures?: DeclaredDuty['closures'];
  /** By the day they were fixed; without any, common practice. */
  readonly fleetPriors?: readonly DatedPrior[] | undefined;
  readonly services: readonly ServiceRecord[];
  readonly place?: PlaceConditions | undefined;
  /** Left out where the plan looks at no measurement. */
  readonly measurements?: readonly MeasuredFact[] | undefined;
  readonly startingPoints?: readonly StartingPointFact[] | undefined;
  readonly deferrals?: readonly Deferral[] | undefined;
  readonly vessels?: readonly VesselHistory[] | undefined;
}

/**
 * What had happened by `at`, as known at `knownAt`: the history that a person asking then would have seen.
 * Facts found to be wrong stay in until it was known that they were.
 *
 * @returns the same history when that is all of it: what was worked out for it can be kept
 */
export function historyUpTo(history: CompressorHistory, at: Instant, knownAt: Instant): CompressorHistory {
  const stands = (fact: Recorded) =>
    fact.recordedAt <= knownAt &&
    (fact.voidedAt === undefined || fact.voidedAt === null || fact.voidedAt > knownAt);
  const readings = keep(history.readings, (fact) => fact.takenAt <= at && stands(fact));
  const meterChanges = keep(history.meterChanges, (fact) => fact.changedAt <= at && stands(fact));
  const services = keep(history.services, (fact) => fact.doneAt <= at && stands(fact));
  const measurements = keepSome(history.measurements, (fact) => fact.takenAt <= at && stands(fact));
  const startingPoints = keepSome(history.startingPoints, (fact) => fact.setAt <= at && stands(fact));
  const deferrals = keepSome(history.deferrals, (fact) => fact.deferredAt <= at && stands(fact));
  const vessels = vesselsUpTo(history.vessels, knownAt, stands);
  const isWhole =
    readings === history.readings &&
    meterChanges === history.meterChanges &&
    services === history.services &&
    measurements === history.measurements &&
    startingPoints === history.startingPoints &&
    deferrals === history.deferrals &&
    vessels === history.vessels;
  return isWhole
    ? history
    : { ...history, readings, meterChanges, services, measurements, startingPoints, deferrals, vessels };
}

function vesselsUpTo(
  vessels: readonly VesselHistory[] | undefined,
  knownAt: Instant,
  stands: (fact: Recorded) => boolean,
): readonly VesselHistory[] | undefined {
  if (!vessels) return vessels;
  const known = keep(vessels, (vessel) => vessel.recordedAt <= knownAt);
  const cut = known.map((vessel) => {
    const records = keep(vessel.records, stands);
    return records === vessel.records ? vessel : { ...vessel, records };
  });
  return cut.every((vessel, index) => vessel === known[index]) ? known : cut;
}

function keepSome<Fact>(
  facts: readonly Fact[] | undefined,
  belongs: (fact: Fact) => boolean,
): readonly Fact[] | undefined {
  return facts && keep(facts, belongs);
}

interface Recorded {
  readonly recordedAt: Instant;
  readonly voidedAt?: Instant | null | undefined;
}

/** Filters, but hands back the same array when everything stays: asking about today is the usual case. */
function keep<Fact>(facts: readonly Fact[], belongs: (fact: Fact) => boolean): readonly Fact[] {
  for (let i = 0; i < facts.length; i++) if (!belongs(facts[i]!)) return facts.filter(belongs);
  return facts;
}

/** All meter figures: the readings, and those noted with a service. */
export function allReadings({ readings, services }: CompressorHistory): readonly HourReading[] {
  const noted = services.filter((service) => service.hours !== undefined);
  if (noted.length === 0) return readings;
  return readings.concat(
    noted.map((service) => ({
      takenAt: service.doneAt,
      hours: service.hours!,
      counts: 'total',
      source: 'typed',
      recordedAt: service.recordedAt,
    })),
  );
}
