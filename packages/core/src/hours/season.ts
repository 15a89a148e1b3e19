import { DAY_MS, type Instant } from '../basics/index.js';
import { hoursAt, lastIndexUpTo, type RunHours } from './run-hours.js';

/** The year is looked at in so many equal parts, of about a fortnight each: readings seldom tell more. */
export const PARTS_OF_YEAR = 24;
const YEAR_DAYS = 365.25;
const PART_MS = (YEAR_DAYS / PARTS_OF_YEAR) * DAY_MS;

/** How much a machine is used in each part of the year against its yearly average. */
export interface Season {
  /** One factor for each of {@link PARTS_OF_YEAR}, from the turn of the year on; 1 on the average, never 0. */
  readonly factors: readonly number[];
  /** How far the earlier years are believed: 0 not at all, 1 wholly. */
  readonly trust: number;
  /** Whole years looked at. */
  readonly years: number;
  /** Variance that is left of a factor as it was found: what in the pattern was chance. */
  readonly noise: number;
}

/** Below this a part counts as idle; quite 0 would leave an hour run in it without any day to belong to. */
const LEAST_FACTOR = 0.03;
/** Factors that all lie this near to 1, or are trusted this little, are no season. */
const LEAST_SWING = 0.12;
const LEAST_TRUST = 0.15;
/** So many days of an earlier year weigh as much as the fleet's prior trust. */
const PRIOR_OVERLAP_DAYS = 45;
const MOST_YEARS = 4;

/** Parts counted from 1970, whose first begins at the turn of a year. */
function partOf(at: Instant): number {
  return Math.floor(at / PART_MS);
}

/** Which part of the year a counted part is, 0 to 23. */
function ofYear(part: number): number {
  return ((part % PARTS_OF_YEAR) + PARTS_OF_YEAR) % PARTS_OF_YEAR;
}

const sum = (figures: readonly number[]) => figures.reduce((total, figure) => total + figure, 0);

/** How far factors lie from 1, in the mean of squares. */
const swingOf = (factors: readonly number[]) =>
  sum(factors.map((factor) => (factor - 1) ** 2)) / PARTS_OF_YEAR;

interface YearlyUse {
  readonly gained: number[];
  readonly days: number[];
}

/** Hours and days by part of the year, from one moment to another. */
function useByPart(runHours: RunHours, from: Instant, to: Instant): YearlyUse {
  const gained = new Array<number>(PARTS_OF_YEAR).fill(0);
  const days = new Array<number>(PARTS_OF_YEAR).fill(0);
  let at = from;
  let hours = hoursAt(runHours, at, null)!.hours;
  for (let part = partOf(from); at < to; part++) {
    const end = Math.min(to, (part + 1) * PART_MS);
    const next = hoursAt(runHours, end, null)!.hours;
    gained[ofYear(part)]! += next - hours;
    days[ofYear(part)]! += (end - at) / DAY_MS;
    [at, hours] = [end, next];
  }
  return { gained, days };
}

/**
 * Looks for a season: the pattern of the last twelve months, and of the years before them.
 *
 * A single year cannot tell a season from a change that came to stay. What was read before the last twelve
 * months is therefore compared, part by part, with the same parts of the last: as far as they agree, the
 * pattern is believed (the usual ratio of true to observed variance); where there is little to compare, as
 * far as the fleet's prior says.
 *
 * @param priorTrust trust without anything to compare, 0 to 1
 * @returns null with less than a year of readings, or where there is no season to speak of
 */
export function seasonOf(runHours: RunHours, priorTrust: number): Season | null {
  const { at } = runHours;
  const [start, end] = [at[0]!, at.at(-1)!];
  const span = (end - start) / DAY_MS;
  if (!(span >= YEAR_DAYS)) return null;
  const yearsBack = (years: number) => end - years * YEAR_DAYS * DAY_MS;
  const years = Math.min(MOST_YEARS, Math.floor(span / YEAR_DAYS));
  const pattern = new Array<number>(PARTS_OF_YEAR).fill(0);
  let latest: number[] = pattern;
  for (let year = 0; year < years; year++) {
    const { gained, days } = useByPart(runHours, yearsBack(year + 1), yearsBack(year));
    const total = sum(gained);
    if (total <= 0) return null;
    const factors = gained.map((hours, part) => (hours / days[part]!) * (YEAR_DAYS / total));
    if (year === 0) latest = factors;
    factors.forEach((factor, part) => (pattern[part]! += factor / years));
  }
  const trust = trustIn(latest, runHours, Math.max(start, yearsBack(MOST_YEARS)), yearsBack(1), priorTrust);
  if (trust < LEAST_TRUST) return null;
  const factors = pattern.map((factor) => Math.max(LEAST_FACTOR, 1 + trust * (factor - 1)));
  if (factors.every((factor) => Math.abs(factor - 1) < LEAST_SWING)) return null;
  return { factors, trust, years, noise: (1 - trust) * swingOf(latest) };
}

function trustIn(
  latest: readonly number[],
  runHours: RunHours,
  from: Instant,
  to: Instant,
  priorTrust: number,
): number {
  const swing = swingOf(latest);
  if (swing === 0) return 0;
  const { gained, days } = useByPart(runHours, from, to);
  const total = sum(days);
  // The level may differ from year to year: the earlier parts are measured against the level that makes
  // them fit the latest year best, except where there is too little of them to tell a level.
  const expected = sum(latest.map((factor, part) => factor * days[part]!));
  const yearly = useOver(runHours, to, to + YEAR_DAYS * DAY_MS);
  const ownLevel = expected > 0 ? sum(gained) / expected : yearly;
  const known = Math.min(1, total / YEAR_DAYS);
  const level = known * ownLevel + (1 - known) * yearly;
  let disagreement = 0;
  for (let part = 0; part < PARTS_OF_YEAR; part++) {
    if (days[part]! <= 0) continue;
    disagreement += days[part]! * (gained[part]! / days[part]! / Math.max(level, 1e-9) - latest[part]!) ** 2;
  }
  const prior = 2 * swing * (1 - priorTrust);
  const noise = (disagreement + PRIOR_OVERLAP_DAYS * prior) / (total + PRIOR_OVERLAP_DAYS) / 2;
  return Math.min(1, Math.max(0, 1 - noise / swing));
}

function useOver(runHours: RunHours, from: Instant, to: Instant): number {
  const gained = hoursAt(runHours, to, null)!.hours - hoursAt(runHours, from, null)!.hours;
  return (gained / (to - from)) * DAY_MS;
}

/**
 * Days as the machine counts them: a day in a time of the year when it runs twice its average counts as two. The
 * model of use runs on these days, and its dates are read back off them.
 */
export interface WorkingTime {
  /** Working days from a fixed moment on. */
  at(moment: Instant): number;
  /** The moment at which so many working days are up. */
  momentOf(workingDays: number): Instant;
  /** Working days per day at a moment. */
  factorAt(moment: Instant): number;
}

/** Without a season, days are days. */
export function plainTime(origin: Instant): WorkingTime {
  return {
    at: (moment) => (moment - origin) / DAY_MS,
    momentOf: (workingDays) => origin + workingDays * DAY_MS,
    factorAt: () => 1,
  };
}

/** @param from a moment before which nothing will be asked, `to` one after which nothing will */
export function seasonalTime({ factors }: Pick<Season, 'factors'>, from: Instant, to: Instant): WorkingTime {
  const firstPart = partOf(from);
  const starts: Instant[] = [];
  const upTo: number[] = [];
  let working = 0;
  for (let part = firstPart; ; part++) {
    const start = part * PART_MS;
    starts.push(start);
    upTo.push(working);
    if (start > to) break;
    working += (PART_MS / DAY_MS) * factors[ofYear(part)]!;
  }
  const factorOf = (index: number) => factors[ofYear(firstPart + index)]!;
  return {
    at: (moment) => {
      const index = partIndex(starts, moment);
      return upTo[index]! + ((moment - starts[index]!) / DAY_MS) * factorOf(index);
    },
    momentOf: (workingDays) => {
      const index = partIndex(upTo, workingDays);
      return starts[index]! + ((workingDays - upTo[index]!) / factorOf(index)) * DAY_MS;
    },
    factorAt: (moment) => factorOf(partIndex(starts, moment)),
  };
}

/** The part that a value falls into, the first when it lies before all. */
function partIndex(starts: readonly number[], value: number): number {
  return Math.max(0, lastIndexUpTo(starts, value));
}
