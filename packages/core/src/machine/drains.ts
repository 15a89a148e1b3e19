import { stagesOf, type DataPlate } from './data-plate.js';
import { stationsOf } from './stations.js';

/** A drain of a machine: where its water is let out, by whom, how often. */
export interface Drain {
  readonly station: string;
  readonly name: string;
  readonly by: NonNullable<DataPlate['drainsBy']> | null;
  /** How it stands while the machine does. */
  readonly rests: NonNullable<DataPlate['drainsRest']> | null;
  /** Minutes of running between two drainings. */
  readonly everyMin: number;
  /** Nobody said how often: what is usual stands there. */
  readonly isUsual: boolean;
}

/** Minutes between two drainings where nobody said (common practice). */
export const USUAL_DRAIN_MIN = {
  /** At high pressure: 12 to 15 by hand, 7 to 15 by itself. */
  highPressureByHand: 12,
  highPressureAutomatic: 10,
  /** Two stages: once a shift. */
  twoStages: 480,
  /** Everything else: once a day. */
  others: 1440,
} as const;

/** At high pressure no drain waits longer, whoever opens it (common practice). */
export const MOST_HIGH_PRESSURE_DRAIN_MIN = 15;

/** Stations at whose foot water stands, by family. */
function isDrained(plate: DataPlate, station: string): boolean {
  switch (plate.family) {
    case 'high-pressure':
      return station === 'tower' || station === 'final-separator' || /^separator-\d$/.test(station);
    case 'screw':
      // What stands at the foot of its separator vessel is oil.
      return ['water-separator', 'dryer', 'receiver'].includes(station);
    default:
      return (
        ['separator', 'receiver'].includes(station) || (stagesOf(plate) === 2 && station === 'intercooler-1')
      );
  }
}

function usualMinutes(plate: DataPlate): number {
  if (plate.family === 'high-pressure')
    return plate.drainsBy === 'automatic'
      ? USUAL_DRAIN_MIN.highPressureAutomatic
      : USUAL_DRAIN_MIN.highPressureByHand;
  return stagesOf(plate) === 2 && plate.family === 'piston'
    ? USUAL_DRAIN_MIN.twoStages
    : USUAL_DRAIN_MIN.others;
}

/** The drains of a machine, in the order of its air. */
export function drainsOf(plate: DataPlate): readonly Drain[] {
  const { drainsBy = null, drainsRest = null, drainEveryMin } = plate;
  return stationsOf(plate)
    .path.filter(({ code }) => isDrained(plate, code))
    .map(({ code, name }) => ({
      station: code,
      name,
      by: drainsBy,
      rests: drainsRest,
      everyMin: drainEveryMin ?? usualMinutes(plate),
      isUsual: drainEveryMin === undefined,
    }));
}
