import { RECORD_COUNTS_MS, symptomsOf, type CauseCode, type Symptom } from '@entretien/core/faults';
import type { MeasurementView, RepairView } from '@entretien/contracts';
import type { DataPlate } from '@entretien/core/machine';

/** Symptoms that a failed measurement on record already is, with that measurement. */
export function measuredSymptoms(
  plate: DataPlate,
  measurements: readonly MeasurementView[],
  at: number,
): readonly { readonly symptom: Symptom; readonly measurement: MeasurementView }[] {
  return symptomsOf(plate).flatMap((symptom) => {
    const latest = measurements.find(
      ({ check, takenAt, voided }) =>
        voided === undefined &&
        (symptom.checks?.includes(check) ?? false) &&
        Date.parse(takenAt) >= at - RECORD_COUNTS_MS,
    );
    const hasFailed = latest?.judgement.verdict === 'act' || latest?.judgement.verdict === 'stop';
    return latest && hasFailed ? [{ symptom, measurement: latest }] : [];
  });
}

/** A cause that was confirmed on a unit tells of it for so long. */
const TWO_YEARS_MS = 2 * 365 * 86_400_000;

/** Causes that were confirmed on a unit before. */
export function confirmedBefore(repairs: readonly RepairView[], at: number): readonly CauseCode[] {
  return repairs.flatMap(({ confirmed = null, foundAt }) =>
    confirmed !== null && Date.parse(foundAt) >= at - TWO_YEARS_MS ? [confirmed as CauseCode] : [],
  );
}

/** When something was last worked on: what was measured before says nothing of how it is now. */
export function lastWorkAt(repairs: readonly RepairView[]): number {
  const done = repairs.flatMap(({ entries }) =>
    entries.flatMap(({ kind, at }) => (kind === 'work' || kind === 'part' ? [Date.parse(at)] : [])),
  );
  return Math.max(0, ...done);
}
