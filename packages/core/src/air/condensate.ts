import { bounds, outOfRange, ok, type Result } from '../basics/index.js';
import { R_AIR, WATER_TO_AIR, ZERO_C } from './constants.js';
import { humidityRatio } from './moist-air.js';

/** Air as it is taken in. */
export interface IntakeAir {
  readonly pressureBarAbs: number;
  readonly tempC: number;
  /** 0 to 1 */
  readonly relativeHumidity: number;
}

/** Dry air in a cubic metre of free air, kg. */
function dryDensity({ pressureBarAbs, tempC }: IntakeAir, ratio: number): number {
  const vapour = (pressureBarAbs * ratio) / (WATER_TO_AIR + ratio);
  return ((pressureBarAbs - vapour) * 1e5) / (R_AIR * (tempC + ZERO_C));
}

/** What air is compressed and cooled to. */
interface Cooled {
  readonly pressureBarAbs: number;
  readonly tempC: number;
}

/** Water that a cubic metre of free air brings in, and the most it can keep once cooled, g. */
export function waterPerM3(
  intake: IntakeAir,
  cooled: Cooled,
): Result<{ readonly taken: number; readonly most: number }> {
  const taken = humidityRatio(intake.pressureBarAbs, intake.tempC, intake.relativeHumidity);
  if (!taken.ok) return taken;
  const most = humidityRatio(cooled.pressureBarAbs, cooled.tempC, 1);
  if (!most.ok) return most;
  const gramsDry = dryDensity(intake, taken.value) * 1000;
  return ok({ taken: gramsDry * taken.value, most: gramsDry * most.value });
}

/**
 * Water that falls out of each cubic metre of free air when it is compressed and cooled:
 * ρ_dry·(W_in − min(W_in, W_sat(T₂, p₂))).
 *
 * @returns g/m³ of free air
 */
export function condensateGPerM3(intake: IntakeAir, cooled: Cooled): Result<number> {
  const water = waterPerM3(intake, cooled);
  return water.ok ? ok(Math.max(0, water.value.taken - water.value.most)) : water;
}

/**
 * Water that stays in the air as vapour: what reaches whatever comes after the last separator.
 *
 * @returns g/m³ of free air
 */
export function vapourGPerM3(intake: IntakeAir, separator: Cooled): Result<number> {
  const water = waterPerM3(intake, separator);
  return water.ok ? ok(Math.min(water.value.taken, water.value.most)) : water;
}

/**
 * How long a separator may fill before it must be drained.
 *
 * @param holdsMl water it holds
 * @param margin share of it to use, 0 to 1; half where nothing else is known (common practice)
 * @returns minutes of running; Infinity when nothing falls out
 */
export function drainIntervalMin(
  holdsMl: number,
  condensatePerM3: number,
  fadLpm: number,
  margin = 0.5,
): Result<number> {
  const wrong = outOfRange([
    bounds.positive('holdsMl', holdsMl, 100_000, 'What the separator holds, ml,'),
    {
      field: 'condensatePerM3',
      value: condensatePerM3,
      min: 0,
      max: 500,
      sentence: 'Condensate lies between 0 and 500 g/m³.',
    },
    bounds.positive('fadLpm', fadLpm, 200_000, 'The free air delivered'),
    { field: 'margin', value: margin, min: 0.05, max: 1, sentence: 'The margin lies between 5 and 100 %.' },
  ]);
  return wrong ?? ok((holdsMl * margin) / ((condensatePerM3 * fadLpm) / 1000));
}

/**
 * Life of a purifier cartridge: usable capacity ÷ (water reaching it × free air delivered). The water is that
 * of saturated air at the last separator's temperature and the holding valve's pressure, the enhancement of
 * dense air included: without it the life is overstated, the unsafe way.
 *
 * @param capacityG water that it takes up before it must be changed
 * @returns hours of running; Infinity for air that is dry already
 */
export function cartridgeLifeHours(capacityG: number, vapourPerM3: number, fadLpm: number): Result<number> {
  const wrong = outOfRange([
    bounds.positive('capacityG', capacityG, 100_000, 'The capacity, g,'),
    {
      field: 'vapourPerM3',
      value: vapourPerM3,
      min: 0,
      max: 200,
      sentence: 'Water in the air lies between 0 and 200 g/m³.',
    },
    bounds.positive('fadLpm', fadLpm, 200_000, 'The free air delivered'),
  ]);
  return wrong ?? ok(capacityG / ((vapourPerM3 * fadLpm * 60) / 1000));
}
