import { outOfRange, ok, type Result } from '../basics/index.js';

/** A place's weather, as few figures as describe it. */
export interface Climate {
  /** Mean temperature of the warmest and the coldest month, °C. */
  readonly warmMonthC: number;
  readonly coldMonthC: number;
  /** From the coolest hour of a day to the warmest, K. */
  readonly daySwingK: number;
  /** Mean relative humidity of a day, 0 to 1. */
  readonly humidity: number;
  /** Month that is warmest, 1 to 12: 7 in the north, 1 in the south. */
  readonly warmestMonth?: number;
}

/** One hour of the year. */
export interface WeatherHour {
  /** 0 to 8,759 */
  readonly hour: number;
  /** 0 January to 11 December */
  readonly month: number;
  readonly tempC: number;
  /** 0 to 1 */
  readonly relativeHumidity: number;
}

export const HOURS_OF_YEAR = 8760;
const MONTH_DAYS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31] as const;
/** Slope of the logarithm of saturation pressure with temperature near 15 °C, 1/K. */
const SATURATION_SLOPE = 0.065;
/** Hour of the day that is warmest. */
const WARMEST_HOUR = 15;

/** What is not possible about a climate. */
export function climateProblem({
  warmMonthC,
  coldMonthC,
  daySwingK,
  humidity,
}: Climate): Result<never> | null {
  const month = (field: string, value: number) => ({
    field,
    value,
    min: -40,
    max: 50,
    sentence: 'The mean of a month lies between −40 and 50 °C. Was it read in °F?',
  });
  return outOfRange([
    month('warmMonthC', warmMonthC),
    month('coldMonthC', coldMonthC),
    {
      field: 'coldMonthC',
      value: coldMonthC,
      min: -40,
      max: warmMonthC,
      sentence: 'The coldest month is no warmer than the warmest. Are the two mixed up?',
    },
    {
      field: 'daySwingK',
      value: daySwingK,
      min: 0,
      max: 40,
      sentence: 'A day swings by 0 to 40 K.',
    },
    { field: 'humidity', value: humidity, min: 0.05, max: 1, sentence: 'Humidity lies between 5 and 100 %.' },
  ]);
}

/**
 * A year of weather by the hour: a cosine over the year and one over the day, with the water in the air of each
 * day steady, so that it is driest when warmest. A made-up average year, not a forecast.
 */
export function weatherYear(climate: Climate): Result<readonly WeatherHour[]> {
  const wrong = climateProblem(climate);
  if (wrong) return wrong;
  const { warmMonthC, coldMonthC, daySwingK, humidity, warmestMonth = 7 } = climate;
  const [mean, swing] = [(warmMonthC + coldMonthC) / 2, (warmMonthC - coldMonthC) / 2];
  const warmestDay = (warmestMonth - 0.5) * (365 / 12);
  const monthOfDay = MONTH_DAYS.flatMap((days, month) => Array<number>(days).fill(month));
  return ok(
    Array.from({ length: HOURS_OF_YEAR }, (_, hour): WeatherHour => {
      const day = Math.floor(hour / 24);
      const season = Math.cos((2 * Math.PI * (day - warmestDay)) / 365);
      const daily = (daySwingK / 2) * Math.cos((2 * Math.PI * ((hour % 24) - WARMEST_HOUR)) / 24);
      return {
        hour,
        month: monthOfDay[day]!,
        tempC: Math.max(-40, Math.min(60, mean + swing * season + daily)),
        relativeHumidity: Math.min(1, humidity * Math.exp(-SATURATION_SLOPE * daily)),
      };
    }),
  );
}
