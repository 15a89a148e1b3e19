import { bounds, outOfRange, refuse, type Bounded, succeed, type Outcome } from '../basics/index.js';
import { halve } from './halve.js';
import { ATMOSPHERE_BAR, R_WATER, WATER_TO_AIR, ZERO_C } from './constants.js';

/**
 * Saturation pressure of water by Hyland & Wexler (ASHRAE Handbook of Fundamentals): over ice below 0 °C,
 * over water above.
 *
 * @param tempC −40 to 200 °C
 * @returns bar
 * @example saturationBar(20) // → 0.02339 bar
 */
export function saturationBar(tempC: number): Outcome<number> {
  const wrong = outOfRange([saturationTemp('tempC', tempC)]);
  return wrong ?? succeed(saturationOf(tempC));
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
export function saturatedWaterGPerM3(tempC: number): Outcome<number> {
  const wrong = outOfRange([saturationTemp('tempC', tempC)]);
  return wrong ?? succeed((saturationOf(tempC) * 1e5 * 1000) / (R_WATER * (tempC + ZERO_C)));
}

/**
 * By how much more water saturated air holds than the ideal formula says: the enhancement factor. Near one
 * atmosphere by Buck (1981): 1.00072 + p·(3.2·10⁻³ + 5.9·10⁻⁷·t²), p in bar, t in °C; in dense air near 20 °C
 * about 1.55 at 150 bar, 1.8 at 200, 2.4 at 300 (virial estimates, memory), between which its logarithm grows
 * with the pressure. Leaving it out overstates the life of a cartridge, the unsafe way.
 *
 * @param tempC moves only the part near the atmosphere: how it moves the dense part is not known here
 */
export function enhancementFactor(pressureBarAbs: number, tempC = 20): number {
  // Between the points the logarithm runs straight; the last slope is carried on.
  const upper = POINTS.findIndex(([pressure]) => pressure >= pressureBarAbs);
  const index = upper < 0 ? POINTS.length - 1 : upper;
  const atAtmosphere: Point = [ATMOSPHERE_BAR, 1.00072 + ATMOSPHERE_BAR * (3.2e-3 + 5.9e-7 * tempC ** 2)];
  const pointAt = (one: number): Point => (one === 1 ? atAtmosphere : POINTS[one]!);
  const [p0, f0] = pointAt(Math.max(0, index - 1));
  const [p1, f1] = pointAt(Math.max(1, index));
  const share = (pressureBarAbs - p0) / (p1 - p0);
  return Math.exp(Math.log(f0) + share * (Math.log(f1) - Math.log(f0)));
}

type Point = readonly [number, number];

const POINTS: readonly Point[] = [
  [0, 1],
  [ATMOSPHERE_BAR, Number.NaN], // by Buck's formula
  [150, 1.55],
  [200, 1.8],
  [300, 2.4],
];

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
): Outcome<number> {
  return ratioWith(enhancementFactor(pressureBarAbs, tempC), pressureBarAbs, tempC, relativeHumidity);
}

/** The same as an ideal gas would have it, without the enhancement: 0.4 to 0.5 % less at one atmosphere. */
export function idealHumidityRatio(
  pressureBarAbs: number,
  tempC: number,
  relativeHumidity: number,
): Outcome<number> {
  return ratioWith(1, pressureBarAbs, tempC, relativeHumidity);
}

function ratioWith(
  enhancement: number,
  pressureBarAbs: number,
  tempC: number,
  relativeHumidity: number,
): Outcome<number> {
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
    return refuse(
      'out-of-range',
      'At that temperature and pressure water boils: there is no moist air.',
      'tempC',
    );
  }
  return succeed((WATER_TO_AIR * vapour) / (pressureBarAbs - vapour));
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
): Outcome<number> {
  const { barAbs, tempC, relativeHumidity } = intake;
  const ratio = humidityRatio(barAbs, tempC, relativeHumidity);
  if (!ratio.ok) return ratio;
  const wrong = outOfRange([bounds.pressureBarAbs('pressureBarAbs', pressureBarAbs, 'The pressure')]);
  if (wrong) return wrong;
  // The share of water in the air stays the same; its vapour pressure rises with the whole.
  const vapour = (pressureBarAbs * ratio.value) / (WATER_TO_AIR + ratio.value);
  return succeed(halve(-40, 200, (at) => saturationOf(at) * enhancementFactor(pressureBarAbs, at) < vapour));
}
