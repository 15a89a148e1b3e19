import {
  interstagePressures,
  diagnoseStages,
  type InterstagePressures,
  type StageDiagnosis,
} from '../air/index.js';
import { err, ok, type Result } from '../basics/index.js';
import { ambient, gauge, number, quantity, type FieldDefinition } from '../checks/index.js';
import { stagesOf, type DataPlate } from '../machine/index.js';
import type { BenchValues } from './bench.js';

const MOST_STAGES = 5;

/** Of the machine: what the ladder should be. */
export const interstageFields: readonly FieldDefinition[] = [
  number('', 'stages', 'Stages', 1, MOST_STAGES, { plate: 'stages' }),
  gauge('workingBar', 'Built for', { plate: 'workingPressureBar' }),
  ambient('intakeTempC', 'Intake air'),
  quantity('temperature', 'cooledTempC', 'After each cooler', -40, 120, {
    optional: true,
    hint: '10 K above the intake where not known.',
  }),
  quantity('flow', 'fadLpm', 'Free air delivered', 1, 200_000, { optional: true, plate: 'fadLpm' }),
];

/** What each stage shows: pressure and temperature. */
export function stageFields(stages: number): FieldDefinition[] {
  return Array.from({ length: Math.max(0, Math.min(MOST_STAGES, stages)) }, (_, index) => [
    gauge(`stage${index + 1}Bar`, `After stage ${index + 1}`, { optional: true }),
    quantity('temperature', `stage${index + 1}TempC`, `Outlet ${index + 1}`, -40, 300, { optional: true }),
  ]).flat();
}

/** The ladder of a machine: as it should be, and as it was found where anything was measured. */
export interface InterstageBench {
  readonly stages: number;
  readonly expected: InterstagePressures;
  /** Ideal power for the free air delivered, kW; null where it is not known. */
  readonly powerKw: number | null;
  /** Null while not all stage pressures are there, or with a single stage. */
  readonly reading: StageDiagnosis | null;
}

/** Stages to reckon with; null while they are not known. */
export function interstageStages(values: BenchValues, plate: DataPlate | undefined): number | null {
  const typed = values.number('stages');
  return typed ?? (plate ? stagesOf(plate) : null);
}

/** Expected pressures, temperatures and power, and the reading of what was measured. */
export function interstageBench(
  values: BenchValues,
  plate: DataPlate | undefined,
  atmosphereBarAbs: number,
): Result<InterstageBench> {
  const stages = interstageStages(values, plate);
  if (stages === null) return err('missing', 'Enter the stages.', 'stages');
  const needed = values.need('workingBar', 'intakeTempC');
  if (!needed.ok) return needed;
  const { workingBar, intakeTempC } = needed.value;
  const cooled = values.number('cooledTempC') ?? intakeTempC + 10;
  const expected = interstagePressures({
    stages,
    intakeBarAbs: atmosphereBarAbs,
    finalBarAbs: workingBar + atmosphereBarAbs,
    intakeTempC,
    cooledTempC: cooled,
  });
  if (!expected.ok) return inGauge(expected, { finalBarAbs: 'workingBar' });
  const fad = values.number('fadLpm');
  const bench = {
    stages,
    expected: expected.value,
    powerKw: fad === undefined ? null : (expected.value.powerKwPerM3Min * fad) / 1000,
  };
  const numbers = Array.from({ length: stages }, (_, index) => index + 1);
  const pressures = numbers.map((stage) => values.number(`stage${stage}Bar`));
  if (stages < 2 || pressures.some((one) => one === undefined)) return ok({ ...bench, reading: null });
  const final = pressures[stages - 1]!;
  const reading = diagnoseStages({
    intakeBarAbs: atmosphereBarAbs,
    intakeTempC,
    cooledTempC: cooled,
    designBarAbs: Math.max(workingBar, final) + atmosphereBarAbs,
    pressuresBarAbs: pressures.map((one) => one! + atmosphereBarAbs),
    outletTempsC: numbers.map((stage) => values.number(`stage${stage}TempC`) ?? null),
  });
  return reading.ok ? ok({ ...bench, reading: reading.value }) : reading;
}

function inGauge(outcome: Result<never>, names: Readonly<Record<string, string>>): Result<never> {
  if (outcome.ok) return outcome;
  const { field } = outcome.problem;
  return field && names[field]
    ? { ok: false, problem: { ...outcome.problem, field: names[field] } }
    : outcome;
}
