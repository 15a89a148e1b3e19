import type { Instant, LocalDate } from '../basics/index.js';
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

/** What was believed of machines at large from a day on. */
export interface DatedPrior {
  readonly fixedAt: Instant;
  readonly prior: FleetPrior;
}

/** Everything on record that decides what is due on one compressor. Order does not matter. */
export interface UnitHistory extends HourLog {
  readonly timeZone: string;
  readonly commissionedOn: LocalDate;
  /** `new`: tasks count from commissioning. `unknown`: no task has a starting point until it is done. */
  readonly history: 'new' | 'unknown';
  readonly declaredHoursPerWeek?: number | undefined;
  readonly closedWeekdays?: DeclaredDuty['closedWeekdays'];
  readonly closures?: DeclaredDuty['closures'];
  /** By the day they were fixed; without any, common practice. */
  readonly fleetPriors?: readonly DatedPrior[] | undefined;
  readonly services: readonly ServiceRecord[];
}

/**
 * What had happened by `at`, as known at `knownAt`: the history that a person asking then would have seen.
 * Facts found to be wrong stay in until it was known that they were.
 *
 * @returns the same history when that is all of it: what was worked out for it can be kept
 */
export function historyUpTo(history: UnitHistory, at: Instant, knownAt: Instant): UnitHistory {
  const stands = (fact: Recorded) =>
    fact.recordedAt <= knownAt &&
    (fact.voidedAt === undefined || fact.voidedAt === null || fact.voidedAt > knownAt);
  const readings = keep(history.readings, (fact) => fact.takenAt <= at && stands(fact));
  const meterChanges = keep(history.meterChanges, (fact) => fact.changedAt <= at && stands(fact));
  const services = keep(history.services, (fact) => fact.doneAt <= at && stands(fact));
  const isWhole =
    readings === history.readings && meterChanges === history.meterChanges && services === history.services;
  return isWhole ? history : { ...history, readings, meterChanges, services };
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
export function allReadings({ readings, services }: UnitHistory): readonly HourReading[] {
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
