import type { HourLog, HourReading } from '@entretien/core/hours';
import type { CompressorFacts } from '../../data/queries.js';

/** The figures on record as the core judges them: readings, and those noted with services. */
export function hourLogOf(facts: CompressorFacts): HourLog {
  const noted = facts.services.flatMap((service): HourReading[] =>
    service.hours === undefined
      ? []
      : [
          {
            takenAt: Date.parse(service.doneAt),
            hours: service.hours,
            counts: 'total',
            source: 'typed',
            recordedAt: Date.parse(service.recordedAt),
          },
        ],
  );
  return {
    readings: [
      ...facts.readings.map((reading) => ({
        takenAt: Date.parse(reading.takenAt),
        hours: reading.hours,
        counts: reading.counts,
        source: reading.source,
        recordedAt: Date.parse(reading.recordedAt),
      })),
      ...noted,
    ],
    meterChanges: facts.meterChanges.map((change) => ({
      changedAt: Date.parse(change.changedAt),
      oldFinalHours: change.oldFinalHours,
      newStartHours: change.newStartHours,
      reason: change.reason,
      recordedAt: Date.parse(change.recordedAt),
    })),
  };
}

/** The last figure read off the meter up to a moment. */
export function lastFigure(log: HourLog, at: number): HourReading | undefined {
  return log.readings
    .filter((reading) => reading.counts === 'total' && reading.takenAt <= at)
    .reduce<HourReading | undefined>(
      (last, reading) => (!last || reading.takenAt > last.takenAt ? reading : last),
      undefined,
    );
}

/** A figure as it is being typed, for the core to judge. */
export function typedReading(hours: number, takenAt: number, now: number): HourReading {
  return { takenAt, hours, counts: 'total', source: 'typed', recordedAt: now };
}
