import { shortStationName } from '../../../components/air-path/short-names.js';
import type { CompressorView, MeasurementView, StandingView, TaskStandingView } from '@entretien/contracts';
import { chartedFigure, checksFor, type CheckDefinition, type Verdict } from '@entretien/core/checks';
import { stationCodes, stationsOf, type DataPlate } from '@entretien/core/machine';
import type { RoutineTask } from '@entretien/core/plan';
import type { QuantityKind } from '@entretien/core/quantities';
import { shownFigure } from '../../../components/checks/format-figure.js';
import type { ChosenUnits } from '../../../components/checks/check-entries.js';
import { latestByCheck } from '../checks/check-chart.js';

/** One station of a machine with everything that belongs to it. */
export interface StationFacts {
  readonly code: string;
  readonly name: string;
  /** As it stands under the drawing, where room is short. */
  readonly short: string;
  /** Its place along the air path, from 1; null for what stands beside it. */
  readonly place: number | null;
  /** The most pressing first; what a bigger task covers last. */
  readonly tasks: readonly TaskStandingView[];
  readonly routine: readonly RoutineTask[];
  readonly checks: readonly {
    readonly check: CheckDefinition;
    readonly latest: MeasurementView | undefined;
  }[];
  /** What is known of it in a few characters: the latest figure, or what stands on the plate. */
  readonly text: string;
  /** The gravest of its latest verdicts; null where nothing was measured. */
  readonly verdict: Verdict | null;
}

export interface MachineFacts {
  readonly path: readonly StationFacts[];
  readonly beside: readonly StationFacts[];
}

/** Where a machine without a receiver meets what it fills. */
const FILLING = 'fill';

const gravity: Record<Verdict, number> = { good: 0, watch: 1, act: 2, stop: 3 };

/** Lays out a machine's facts by its stations. */
export function machineFacts(
  unit: CompressorView,
  standing: Pick<StandingView, 'tasks' | 'routine'>,
  measurements: readonly MeasurementView[],
  units: ChosenUnits,
): MachineFacts {
  const { path, beside } = stationsOf(unit);
  const latest = latestByCheck(measurements);
  const known = stationCodes(unit);
  const checks = checksFor(unit).map((check) => ({ check, at: check.station(unit) }));
  const facts = (code: string, name: string, place: number | null): StationFacts => {
    const own = checks
      .filter(({ at }) => at === code)
      .map(({ check }) => ({ check, latest: latest.get(check.code) }));
    return {
      code,
      name,
      short: shortStationName(code) ?? name,
      place,
      tasks: standing.tasks.filter(({ station }) => (known.has(station) ? station : FILLING) === code),
      routine: standing.routine.filter(({ station }) => station === code),
      checks: own,
      text: stagePressure(code, latest, units) ?? measuredText(own, units) ?? plateText(unit, code, units),
      verdict: worstOf(own)?.verdict ?? null,
    };
  };
  return {
    path: path.map(({ code, name }, index) => facts(code, name, index + 1)),
    beside: beside.map(({ code, name }) => facts(code, name, null)),
  };
}

/** The task that a station's drop stands for: the most pressing of it, or null. */
export function leadingTask({ tasks }: StationFacts): TaskStandingView | null {
  return tasks.find(({ coveredBy }) => coveredBy === null) ?? tasks[0] ?? null;
}

/** The station that somebody opening the machine wants to see: where the most pressing task is done. */
export function stationToShow(
  { tasks }: Pick<StandingView, 'tasks'>,
  { path, beside }: MachineFacts,
): string {
  const pressing = tasks.find(({ station }) => [...path, ...beside].some(({ code }) => code === station));
  return pressing?.station ?? path[0]!.code;
}

function stagePressure(
  code: string,
  latest: ReadonlyMap<string, MeasurementView>,
  units: ChosenUnits,
): string | null {
  const stage = /^stage-(\d)$/.exec(code)?.[1];
  const value = stage && latest.get('stage-pressures')?.values[`stage${stage}Bar`];
  return typeof value === 'number' ? format(value, 'pressure', units) : null;
}

/** The latest figure; but where a verdict is not good, that of the same check: figure and verdict belong together. */
function measuredText(own: StationFacts['checks'], units: ChosenUnits): string | null {
  const measured = own
    .flatMap(({ check, latest }) => {
      const value = latest && chartedFigure(check.figure, latest)?.value;
      return latest && value !== undefined && check.figure ? [{ figure: check.figure, latest, value }] : [];
    })
    .sort((a, b) => (a.latest.takenAt < b.latest.takenAt ? 1 : -1));
  const worst = worstOf(own);
  const bad = worst !== null && worst.verdict !== 'good';
  const shown = bad ? measured.find(({ latest }) => latest.id === worst.id) : measured[0];
  if (bad && !shown) return worst.name;
  if (!shown) return null;
  const { figure, unit } = shownFigure(shown.value, shown.figure, units);
  return `${figure} ${unit.split(' ')[0]}`.trim();
}

/** The gravest of the latest verdicts of a station, and whose it is; null where nothing was measured. */
function worstOf(own: StationFacts['checks']) {
  return own.reduce<{ readonly id: string; readonly name: string; readonly verdict: Verdict } | null>(
    (worst, { check, latest }) => {
      const verdict = latest?.judgement.verdict;
      if (!latest || verdict === undefined) return worst;
      const isWorse = worst === null || gravity[verdict] > gravity[worst.verdict];
      return isWorse ? { id: latest.id, name: check.name, verdict } : worst;
    },
    null,
  );
}

/** What the plate says of a station. */
const plateFigures: Readonly<Record<string, readonly [keyof DataPlate, QuantityKind]>> = {
  receiver: ['receiverL', 'volume'],
  outlet: ['fadLpm', 'flow'],
  fill: ['workingPressureBar', 'pressure'],
  relief: ['reliefBar', 'pressure'],
  'pressure-maintaining-valve': ['maintainingValveBar', 'pressure'],
  crankcase: ['oilChargeL', 'volume'],
  oil: ['oilChargeL', 'volume'],
};

function plateText(unit: CompressorView, code: string, units: ChosenUnits): string {
  const [field, kind] = plateFigures[code] ?? [];
  const value = field && unit[field];
  return typeof value === 'number' && kind ? format(value, kind, units) : '';
}

function format(value: number, quantity: QuantityKind, units: ChosenUnits): string {
  const { figure, unit } = shownFigure(value, { quantity }, units);
  return `${figure} ${unit}`;
}
