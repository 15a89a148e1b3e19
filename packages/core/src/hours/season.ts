import { DAY_MS, type Instant } from '../basics/index.js';
import type { RunHours } from './run-hours.js';

/** The year is looked at in so many equal parts, of about a fortnight each: readings seldom tell more. */
export const PARTS_OF_YEAR = 24;
export const YEAR_DAYS = 365.25;
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
const LEAST_TRUST = 0.25;
/** So many days of an earlier year weigh as much as the fleet's prior trust. */
const PRIOR_OVERLAP_DAYS = 45;
const MOST_YEARS = 4;
/** Within the season its pattern is believed this far at least: that there is none is another expert's view. */
const LEAST_BELIEVED = 0.95;
/** Growth from year to year that is taken out of the pattern, as a logarithm. */
const MOST_GROWTH = 0.8;

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

/** Hours and days by part of the year, from one moment to another that both lie within what was read. */
function useByPart({ at, hours }: RunHours, from: Instant, to: Instant): YearlyUse {
  const gained = new Array<number>(PARTS_OF_YEAR).fill(0);
  const days = new Array<number>(PARTS_OF_YEAR).fill(0);
  // The readings are walked along: `next` is the first at or after the moment looked at.
  let next = 1;
  const hoursBy = (moment: Instant) => {
    while (next < at.length - 1 && at[next]! < moment) next += 1;
    const before = at[next - 1]!;
    const passed = at[next]! - before;
    const share = passed > 0 ? (moment - before) / passed : 1;
    return hours[next - 1]! + (hours[next]! - hours[next - 1]!) * share;
  };
  let begin = from;
  let hoursThen = hoursBy(from);
  for (let part = partOf(from); begin < to; part++) {
    const end = Math.min(to, (part + 1) * PART_MS);
    const hoursNow = hoursBy(end);
    const place = ofYear(part);
    gained[place]! += hoursNow - hoursThen;
    days[place]! += (end - begin) / DAY_MS;
    begin = end;
    hoursThen = hoursNow;
  }
  return { gained, days };
}

/**
 * Looks for a season: the pattern of the last twelve months, and of the years before them.
 *
 * A single year cannot tell a season from a change that came to stay. What was read before the last twelve
 * months is therefore compared, part by part, with the same parts of the last: the pattern is believed as far as
 * the two go up and down **together** (their covariance over the variance of the last year). A flat past says
 * nothing of the last year's swing, and a lasting change is then no season. Where there is little to compare, the
 * fleet's prior decides. What all years together show is surer than one (Spearman–Brown).
 *
 * @param priorTrust trust without anything to compare, 0 to 1
 * @returns null with less than a year of readings, or where there is no season to speak of
 */
export function seasonOf(runHours: RunHours, priorTrust: number): Season | null {
  const found = patternOf(runHours, priorTrust, runHours.at.at(-1)!);
  if (!found || found.trust < LEAST_TRUST) return null;
  const factors = believedFactors(found.pattern, found.trust);
  if (factors.every((factor) => Math.abs(factor - 1) < LEAST_SWING)) return null;
  const { trust, years, noise } = found;
  return { factors, trust, years, noise };
}

/**
 * The factors that would have been found a year before the last reading, to try a season on what it had not seen.
 *
 * @returns null with less than a year of readings before that
 */
export function earlierFactors(runHours: RunHours, { trust }: Season, priorTrust: number): number[] | null {
  const found = patternOf(runHours, priorTrust, runHours.at.at(-1)! - YEAR_DAYS * DAY_MS);
  return found && believedFactors(found.pattern, trust);
}

const believedFactors = (pattern: readonly number[], trust: number) =>
  pattern.map((factor) => Math.max(LEAST_FACTOR, 1 + Math.max(trust, LEAST_BELIEVED) * (factor - 1)));

interface YearlyPattern {
  readonly pattern: readonly number[];
  readonly trust: number;
  readonly years: number;
  readonly noise: number;
}

function patternOf(runHours: RunHours, priorTrust: number, end: Instant): YearlyPattern | null {
  const start = runHours.at[0]!;
  const span = (end - start) / DAY_MS;
  if (!(span >= YEAR_DAYS)) return null;
  const yearsBack = (years: number) => end - years * YEAR_DAYS * DAY_MS;
  const years = Math.min(MOST_YEARS, Math.floor(span / YEAR_DAYS));
  const totals: number[] = [];
  const yearly = Array.from({ length: years }, (_, year) => {
    const { gained, days } = useByPart(runHours, yearsBack(year + 1), yearsBack(year));
    totals.push(sum(gained));
    return gained.map((hours, part) => hours / days[part]!);
  });
  if (totals.some((total) => total <= 0)) return null;
  const trendless = withoutGrowth(totals, ofYear(partOf(end)));
  const patterns = yearly.map((use) => normalised(use, trendless));
  const latest = patterns[0]!;
  const pattern = years === 1 ? latest : latest.map((_, part) => meanOver(patterns, part));
  const swing = swingOf(latest);
  if (swing < 1e-6) return null;
  const from = Math.max(start, yearsBack(MOST_YEARS));
  const earlier = useByPart(runHours, from, yearsBack(1));
  const compared = sum(earlier.days);
  const ofOneYear = agreement(latest, swing, totals[0]! / YEAR_DAYS, earlier, trendless, priorTrust);
  const seen = compared >= 0.9 * YEAR_DAYS ? years : 1;
  const trust = (seen * ofOneYear) / (1 + (seen - 1) * ofOneYear);
  return { pattern, trust, years, noise: (1 - trust) * swing };
}

/** What takes out of each part of the year how far use grew or fell within it, going by the totals of the years. */
function withoutGrowth(totals: readonly number[], endPart: number): readonly number[] {
  const years = totals.length;
  if (years < 2) return UNCHANGED;
  const growth = Math.log(totals[0]! / totals[years - 1]!) / (years - 1);
  const bounded = Math.min(MOST_GROWTH, Math.max(-MOST_GROWTH, growth));
  return UNCHANGED.map((_, part) => {
    const back = ((endPart - part + PARTS_OF_YEAR) % PARTS_OF_YEAR) / PARTS_OF_YEAR;
    return Math.exp(bounded * (back - 0.5));
  });
}

const UNCHANGED: readonly number[] = new Array<number>(PARTS_OF_YEAR).fill(1);

function normalised(use: readonly number[], trendless: readonly number[]): number[] {
  const cleared = use.map((one, part) => one * trendless[part]!);
  const mean = sum(cleared) / PARTS_OF_YEAR;
  return cleared.map((one) => one / mean);
}

function meanOver(patterns: readonly (readonly number[])[], part: number): number {
  let total = 0;
  for (const pattern of patterns) total += pattern[part]!;
  return total / patterns.length;
}

/** How far the last year's pattern and what was read before it go together, 0 to 1. */
function agreement(
  latest: readonly number[],
  swing: number,
  yearlyUse: number,
  { gained, days }: YearlyUse,
  trendless: readonly number[],
  priorTrust: number,
): number {
  const compared = sum(days);
  // Parts that nothing was read in before weigh nothing: their days are 0.
  let expected = 0;
  let run = 0;
  for (let part = 0; part < PARTS_OF_YEAR; part++) {
    expected += latest[part]! * days[part]!;
    run += trendless[part]! * gained[part]!;
  }
  // The level may differ from year to year: the earlier parts are measured against the level that makes
  // them fit the latest year best, except as far as there is too little of them to tell a level.
  const own = expected > 0 ? run / expected : yearlyUse;
  const known = Math.min(1, compared / YEAR_DAYS);
  const level = Math.max(known * own + (1 - known) * yearlyUse, 1e-9);
  const isWhole = compared >= YEAR_DAYS;
  const [meanBefore, meanLatest] = isWhole ? [run / level / compared, expected / compared] : [1, 1];
  let together = 0;
  let alone = 0;
  for (let part = 0; part < PARTS_OF_YEAR; part++) {
    const off = latest[part]! - meanLatest;
    together += ((trendless[part]! * gained[part]!) / level - days[part]! * meanBefore) * off;
    alone += days[part]! * off * off;
  }
  const weight = compared > 0 ? Math.min(compared, YEAR_DAYS) / compared : 0;
  const prior = PRIOR_OVERLAP_DAYS * swing;
  return Math.min(1, Math.max(0, (together * weight + prior * priorTrust) / (alone * weight + prior)));
}

/**
 * Days as the machine counts them: a day in a time of the year when it runs twice its average counts as two. The
 * model of use runs on these days, and its dates are read back off them.
 */
export interface OperatingTime {
  /** Working days from a fixed moment on. */
  at(moment: Instant): number;
  /** Working days per day at a moment. */
  factorAt(moment: Instant): number;
}

/** Without a season, days are days. */
export function plainTime(origin: Instant): OperatingTime {
  return {
    at: (moment) => (moment - origin) / DAY_MS,
    factorAt: () => 1,
  };
}

/** @param from a moment before which nothing will be asked, `to` one after which nothing will */
export function seasonalTime(
  { factors }: Pick<Season, 'factors'>,
  from: Instant,
  to: Instant,
): OperatingTime {
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
  const lastPart = starts.length - 1;
  const partAt = (moment: Instant) => Math.min(lastPart, Math.max(0, partOf(moment) - firstPart));
  return {
    at: (moment) => {
      const index = partAt(moment);
      return upTo[index]! + ((moment - starts[index]!) / DAY_MS) * factorOf(index);
    },
    factorAt: (moment) => factorOf(partAt(moment)),
  };
}
