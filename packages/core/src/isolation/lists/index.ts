import type { DataPlate } from '../../machine/index.js';
import type { IsolationList, IsolationPoint } from '../point.js';
import { highPressureList } from './high-pressure.js';
import { oilFreeList } from './oil-free.js';
import { pistonList } from './piston.js';
import { pointOfUse, pointOpening } from './point-of-use.js';
import { portableList, screwList } from './screw.js';
import { waterCooledList } from './water-cooled.js';

function machineList(plate: DataPlate): IsolationList {
  switch (plate.family) {
    case 'piston':
      return plate.cooling === 'water' ? waterCooledList(plate) : pistonList(plate);
    case 'piston-oil-free':
      return oilFreeList(plate);
    case 'screw':
      return plate.motor === 'diesel' ? portableList(plate) : screwList(plate);
    case 'high-pressure':
      return highPressureList(plate);
  }
}

const made = new WeakMap<DataPlate, IsolationList>();

/**
 * The isolation of a machine: its points in the order of doing them, what each piece of work needs of them, and
 * those of a point of use behind its own valve. Common practice: the maker’s book, local rules for lock-out and
 * pressure equipment, and licensed trades come first.
 */
export function isolationList(plate: DataPlate): IsolationList {
  const known = made.get(plate);
  if (known) return known;
  const list = machineList(plate);
  const whole: IsolationList = {
    points: [...list.points, ...pointOfUse],
    openings: { ...list.openings, point: pointOpening },
    everything: list.everything,
  };
  made.set(plate, whole);
  return whole;
}

/** A point of a machine's isolation by its code. */
export function pointOf(plate: DataPlate, code: string): IsolationPoint | undefined {
  return isolationList(plate).points.find((point) => point.code === code);
}

/** Whether a point belongs to a point of use and not to the machine. */
export function isOfPointOfUse(code: string): boolean {
  return pointOfUse.some((point) => point.code === code);
}

/** Whether a lid comes off: of what does not say what it opens, one is reckoned with. */
export function opensLid(plate: DataPlate, opens: readonly string[] | null): boolean {
  const { openings } = isolationList(plate);
  const known = Object.values(openings).some(({ hasLid }) => hasLid);
  return opens === null ? known : opens.some((code) => openings[code]?.hasLid);
}

/**
 * Codes of the points that work needs, in their order.
 *
 * @param opens codes of what it opens; null where nobody said: then everything
 */
export function pointsNeeded(plate: DataPlate, opens: readonly string[] | null): readonly string[] {
  const { points, openings, everything } = isolationList(plate);
  const needed = new Set(
    opens === null ? everything : opens.flatMap((code) => openings[code]?.needs ?? everything),
  );
  return points.flatMap(({ code }) => (needed.has(code) ? [code] : []));
}
