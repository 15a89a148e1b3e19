import { bounds, outOfRange, ok, type Result } from '../basics/index.js';
import { waterPerM3 } from './condensate.js';
import { HOURS_OF_YEAR, weatherYear, type Climate } from './weather-year.js';

/** A machine as its water over a year sees it. */
export interface WaterYearInput {
  readonly climate: Climate;
  readonly intakeBarAbs: number;
  readonly fadLpm: number;
  readonly hoursPerWeek: number;
  /** Pressure of the last separator, bar absolute. */
  readonly finalBarAbs: number;
  /** By how much the last separator is warmer than the intake, K. */
  readonly separatorAboveK: number;
  /** Water that a cartridge takes up before it is changed, g; left out where there is none. */
  readonly cartridgeG?: number;
}

/** One month of it. */
export interface WaterMonth {
  /** 0 January to 11 December */
  readonly month: number;
  readonly meanTempC: number;
  /** Condensate while it runs, ml an hour. */
  readonly condensateMlPerHour: number;
  /** Running hours that a cartridge lasts in it; null without one, or where the air is dry. */
  readonly cartridgeHours: number | null;
}

/** A year of it. */
export interface WaterYear {
  readonly months: readonly WaterMonth[];
  readonly condensateL: number;
  readonly runningHours: number;
  /** Cartridges used up in the year; null without one. */
  readonly cartridges: number | null;
  /** The same if every one were changed by fixed hours, warm and cold half of the year apart. */
  readonly bySeasonHours: number | null;
}

/** What a portable tower is given by season where nothing is reckoned, hours (common practice). */
export const seasonCartridgeHours = { warm: 20, cold: 30 } as const;

/** Hours reckoned between two looks at whether to go on. */
const HOURS_A_STEP = 730;

/**
 * Water over a year of weather, hour by hour: what falls out in the separators, what reaches the cartridge, and
 * how many of them that takes. Running is spread evenly over the year.
 *
 * @yields the share of the year reckoned so far
 */
export function* waterYear(input: WaterYearInput): Generator<number, Result<WaterYear>> {
  const wrong = inputProblem(input);
  if (wrong) return wrong;
  const weather = weatherYear(input.climate);
  if (!weather.ok) return weather;
  const { intakeBarAbs, fadLpm, hoursPerWeek, finalBarAbs, separatorAboveK, cartridgeG } = input;
  const m3PerHour = (fadLpm * 60) / 1000;
  const months = Array.from({ length: 12 }, () => ({ hours: 0, tempC: 0, condensate: 0, vapour: 0 }));
  for (const { hour, month, tempC, relativeHumidity } of weather.value) {
    const intake = { pressureBarAbs: intakeBarAbs, tempC, relativeHumidity };
    const separator = { pressureBarAbs: finalBarAbs, tempC: tempC + separatorAboveK };
    const water = waterPerM3(intake, separator);
    if (!water.ok) return water;
    const stays = Math.min(water.value.taken, water.value.most);
    const sums = months[month]!;
    sums.hours += 1;
    sums.tempC += tempC;
    sums.condensate += (water.value.taken - stays) * m3PerHour;
    sums.vapour += stays * m3PerHour;
    if (hour % HOURS_A_STEP === HOURS_A_STEP - 1) yield (hour + 1) / HOURS_OF_YEAR;
  }
  const share = hoursPerWeek / 168;
  const warmth = [...months].map(({ tempC, hours }) => tempC / hours);
  const mean = warmth.reduce((sum, one) => sum + one, 0) / 12;
  const total = (of: (month: (typeof months)[number], index: number) => number) =>
    months.reduce((sum, month, index) => sum + of(month, index), 0);
  return ok({
    months: months.map(({ hours, tempC, condensate, vapour }, month): WaterMonth => ({
      month,
      meanTempC: tempC / hours,
      condensateMlPerHour: condensate / hours,
      cartridgeHours: cartridgeG === undefined || vapour === 0 ? null : (cartridgeG * hours) / vapour,
    })),
    condensateL: total(({ condensate }) => (condensate * share) / 1000),
    runningHours: HOURS_OF_YEAR * share,
    cartridges: cartridgeG === undefined ? null : total(({ vapour }) => (vapour * share) / cartridgeG),
    bySeasonHours:
      cartridgeG === undefined
        ? null
        : total(
            ({ hours }, index) =>
              (hours * share) /
              (warmth[index]! >= mean ? seasonCartridgeHours.warm : seasonCartridgeHours.cold),
          ),
  });
}

function inputProblem(input: WaterYearInput): Result<never> | null {
  return outOfRange([
    bounds.pressureBarAbs('intakeBarAbs', input.intakeBarAbs, 'The pressure at the intake'),
    bounds.positive('fadLpm', input.fadLpm, 200_000, 'The free air delivered'),
    bounds.positive('hoursPerWeek', input.hoursPerWeek, 168, 'The hours a week'),
    bounds.pressureBarAbs('finalBarAbs', input.finalBarAbs, 'The pressure of the last separator'),
    {
      field: 'separatorAboveK',
      value: input.separatorAboveK,
      min: -20,
      max: 80,
      sentence: 'The separator lies between 20 K under and 80 K above the intake.',
    },
    ...(input.cartridgeG === undefined
      ? []
      : [bounds.positive('cartridgeG', input.cartridgeG, 100_000, 'The water that the cartridge holds, g,')]),
  ]);
}
