import { bounds, outOfRange, err, type Bounded, ok, type Result } from '../basics/index.js';
import { halve } from './halve.js';
import { R_WATER, WATER_TO_AIR, ZERO_C } from './constants.js';
import { compressibilityOf } from './real-gas.js';

/**
 * Saturation pressure of water by Hyland & Wexler (ASHRAE Handbook of Fundamentals): over ice below 0 °C,
 * over water above.
 *
 * @param tempC −40 to 200 °C
 * @returns bar
 * @example saturationBar(20) // → 0.02339 bar
 */
export function saturationBar(tempC: number): Result<number> {
  const wrong = outOfRange([saturationTemp('tempC', tempC)]);
  return wrong ?? ok(saturationOf(tempC));
}

function saturationTemp(field: string, value: number): Bounded {
  return {
    field,
    value,
    min: -40,
    max: 200,
    sentence: 'The temperature of moist air must lie between −40 and 200 °C. Was it read in °F?',
  };
}

/** The same for a temperature known to be within range. */
export function saturationOf(tempC: number): number {
  const t = tempC + ZERO_C;
  const logPascal =
    tempC < 0
      ? -5674.5359 / t +
        6.3925247 -
        9.677843e-3 * t +
        6.2215701e-7 * t ** 2 +
        2.0747825e-9 * t ** 3 -
        9.484024e-13 * t ** 4 +
        4.1635019 * Math.log(t)
      : -5800.2206 / t +
        1.3914993 -
        4.8640239e-2 * t +
        4.1764768e-5 * t ** 2 -
        1.4452093e-8 * t ** 3 +
        6.5459673 * Math.log(t);
  return Math.exp(logPascal) / 1e5;
}

/**
 * Water in saturated air: its vapour density.
 *
 * @returns g per m³ of space
 */
export function saturatedWaterGPerM3(tempC: number): Result<number> {
  const wrong = outOfRange([saturationTemp('tempC', tempC)]);
  return wrong ?? ok((saturationOf(tempC) * 1e5 * 1000) / (R_WATER * (tempC + ZERO_C)));
}

/** Gas constant, J/(mol·K). */
const R = 8.314462;
/** Molar volume of water, liquid and ice, m³/mol. */
const WATER_MOLAR = { liquid: 18.07e-6, ice: 19.65e-6 } as const;
/** How often the small share of vapour in the mixture is put in anew: it moves the last digit. */
const ROUNDS = 3;

/** Second virial coefficients of water with air and with itself, third of two of air with one of water (Hyland & Wexler, memory). */
function virialOf(kelvin: number) {
  const t = kelvin;
  return {
    /** m³/mol */
    airWater: (32.366097 - 14113.8 / t - 1.244535e6 / t ** 2 - 2.348789e9 / t ** 4) * 1e-6,
    /** m³/mol */
    waterWater: R * t * (0.7e-8 - 0.147184e-8 * Math.exp(1734.29 / t)),
    /** m⁶/mol² */
    airAirWater:
      (482.737 + 1.05678e5 / t - 6.56394e7 / t ** 2 + 2.94442e10 / t ** 3 - 3.19317e12 / t ** 4) * 1e-12,
  };
}

/** Air that dissolves in water, as a share by moles for each bar (Henry’s law; handbooks, memory). */
function dissolvedPerBar(tempC: number): number {
  return tempC < 0 ? 0 : 2.3e-5 * Math.exp(-0.022 * tempC) + 0.6e-6;
}

/**
 * By how much more water saturated air holds than the ideal formula says: the enhancement factor. Its logarithm is
 * the work that the pressure does on the water (Poynting), less what air and vapour attract each other in the
 * mixture: the virial series in the density of real air, with the coefficients of Hyland & Wexler (memory). In
 * density, not pressure, it holds to 300 bar: within 4 % between 0 and 50 °C. Leaving it out overstates the life of a
 * cartridge, the unsafe way; leaving out the temperature did so in the cold.
 *
 * @param pressureBarAbs 0.3 to 600 bar absolute
 * @param tempC −40 to 200 °C
 * @returns without unit, 1 or more; 1 where water boils
 * @example enhancementFactor(200, 20) // → about 1.8
 */
export function enhancementFactor(pressureBarAbs: number, tempC = 20): number {
  const kelvin = tempC + ZERO_C;
  const saturation = saturationOf(tempC);
  if (saturation >= pressureBarAbs) return 1;
  const { airWater, waterWater, airAirWater } = virialOf(kelvin);
  const z = compressibilityOf(pressureBarAbs, tempC);
  const density = (pressureBarAbs * 1e5) / (z * R * kelvin);
  const molar = tempC < 0 ? WATER_MOLAR.ice : WATER_MOLAR.liquid;
  const poynting = (molar * (pressureBarAbs - saturation) * 1e5) / (R * kelvin);
  const ownVapour = (waterWater * saturation * 1e5) / (R * kelvin);
  let factor = 1;
  for (let round = 0; round < ROUNDS; round++) {
    const vapour = Math.min(0.9, (factor * saturation) / pressureBarAbs);
    const air = 1 - vapour;
    const attraction =
      2 * density * (air * airWater + vapour * waterWater) + 1.5 * (density * air) ** 2 * airAirWater;
    const dissolved = Math.log1p(-dissolvedPerBar(tempC) * air * pressureBarAbs);
    factor = Math.exp(poynting + ownVapour - attraction + Math.log(z) + dissolved);
  }
  return Math.max(1, factor);
}

/**
 * Humidity ratio of moist air, 0.622·p_v/(p − p_v), with the enhancement factor in p_v.
 *
 * @param pressureBarAbs 0.3 to 600 bar absolute
 * @param tempC −40 to 200 °C
 * @param relativeHumidity 0 to 1
 * @returns kg of water per kg of dry air; `out-of-range` with a sentence
 * @example humidityRatio(1.01325, 20, 1) // → 0.01476 (ASHRAE Fundamentals)
 */
export function humidityRatio(
  pressureBarAbs: number,
  tempC: number,
  relativeHumidity: number,
): Result<number> {
  return ratioWith(enhancementFactor(pressureBarAbs, tempC), pressureBarAbs, tempC, relativeHumidity);
}

/** The same as an ideal gas would have it, without the enhancement: 0.4 to 0.5 % less at one atmosphere. */
export function idealHumidityRatio(
  pressureBarAbs: number,
  tempC: number,
  relativeHumidity: number,
): Result<number> {
  return ratioWith(1, pressureBarAbs, tempC, relativeHumidity);
}

function ratioWith(
  enhancement: number,
  pressureBarAbs: number,
  tempC: number,
  relativeHumidity: number,
): Result<number> {
  const wrong = outOfRange([
    bounds.pressureBarAbs('pressureBarAbs', pressureBarAbs, 'The pressure'),
    saturationTemp('tempC', tempC),
    {
      field: 'relativeHumidity',
      value: relativeHumidity,
      min: 0,
      max: 1,
      sentence: 'Relative humidity must lie between 0 and 100 %.',
    },
  ]);
  if (wrong) return wrong;
  const vapour = relativeHumidity * saturationOf(tempC) * enhancement;
  if (vapour >= 0.9 * pressureBarAbs) {
    return err(
      'out-of-range',
      'At that temperature and pressure water boils: there is no moist air.',
      'tempC',
    );
  }
  return ok((WATER_TO_AIR * vapour) / (pressureBarAbs - vapour));
}

/**
 * Temperature at which water falls out of air that was drawn in moist and compressed: its pressure dew point.
 *
 * @param intake air drawn in: bar absolute, °C, relative humidity 0 to 1
 * @param pressureBarAbs compressed to, bar absolute
 * @returns °C, −40 to 200; `out-of-range` with a sentence
 * @example 25 °C, 70 %, to 10 bar gauge → about 64 °C
 */
export function pressureDewPoint(
  intake: { readonly barAbs: number; readonly tempC: number; readonly relativeHumidity: number },
  pressureBarAbs: number,
): Result<number> {
  const { barAbs, tempC, relativeHumidity } = intake;
  const ratio = humidityRatio(barAbs, tempC, relativeHumidity);
  if (!ratio.ok) return ratio;
  const wrong = outOfRange([bounds.pressureBarAbs('pressureBarAbs', pressureBarAbs, 'The pressure')]);
  if (wrong) return wrong;
  // The share of water in the air stays the same; its vapour pressure rises with the whole.
  const vapour = (pressureBarAbs * ratio.value) / (WATER_TO_AIR + ratio.value);
  return ok(halve(-40, 200, (at) => saturationOf(at) * enhancementFactor(pressureBarAbs, at) < vapour));
}
