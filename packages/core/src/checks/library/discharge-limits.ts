import { stagesOf, type DataPlate } from '../../machine/index.js';

/** Discharge temperatures at which a machine is watched, acted on, stopped; °C, in the gas. */
export interface DischargeLimits {
  readonly machine: string;
  readonly watch: number;
  readonly act: number;
  readonly stop: number;
}

interface Row extends DischargeLimits {
  readonly fits: (plate: DataPlate) => boolean;
}

/** Highest working pressure of the two-stage sets of a workshop, bar; above it they are water-cooled as a rule. */
const WORKSHOP_BAR = 15;

const isInjected = (plate: DataPlate) => plate.family === 'screw' && plate.lubrication !== 'none';
const isWorkshop = ({ cooling, workingPressureBar = 0 }: DataPlate) =>
  cooling !== 'water' && workingPressureBar <= WORKSHOP_BAR;

/**
 * Reckoned for sound sets (polytropic exponent 1.25, intake 35 °C) and rounded to what is common practice. One limit
 * for all pistons would be wrong both ways: one stage to 10 bar reaches 190 to 210 °C when nothing is wrong, five
 * stages to 330 bar hardly 115.
 */
const rows: readonly Row[] = [
  {
    machine: 'screw, diesel portable',
    watch: 108,
    act: 114,
    stop: 120,
    fits: (plate) => isInjected(plate) && plate.motor === 'diesel',
  },
  { machine: 'screw, stationary', watch: 95, act: 102, stop: 110, fits: isInjected },
  {
    machine: 'oil-free piston, at the head outlet',
    watch: 160,
    act: 180,
    stop: 200,
    fits: ({ family }) => family === 'piston-oil-free',
  },
  {
    machine: 'piston, one stage',
    watch: 200,
    act: 210,
    stop: 220,
    fits: (plate) => plate.family === 'piston' && stagesOf(plate) === 1,
  },
  {
    machine: 'piston, two stages, to 15 bar, air-cooled',
    watch: 160,
    act: 180,
    stop: 200,
    fits: (plate) => plate.family === 'piston' && isWorkshop(plate),
  },
  {
    machine: 'piston, two stages, 25 to 40 bar, or water-cooled',
    watch: 175,
    act: 185,
    stop: 200,
    fits: ({ family }) => family === 'piston',
  },
  {
    machine: 'high-pressure, three stages',
    watch: 175,
    act: 190,
    stop: 205,
    fits: (plate) => plate.family === 'high-pressure' && stagesOf(plate) === 3,
  },
  {
    machine: 'high-pressure, four or five stages',
    watch: 155,
    act: 165,
    stop: 185,
    fits: ({ family }) => family === 'high-pressure',
  },
];

/** The limits of every kind of machine, as they stand in the handbook. */
export const dischargeTable: readonly DischargeLimits[] = rows;

/** The limits of a machine; undefined for a dry screw, which no table here covers. */
export function dischargeLimitsOf(plate: DataPlate): DischargeLimits | undefined {
  return rows.find(({ fits }) => fits(plate));
}
