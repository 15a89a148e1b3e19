import type { FleetPrior } from './fleet-prior.js';
import { LEAST_WINDOW, levelExpert, type LevelExpert } from './level-expert.js';
import type { LevelStart } from './local-level.js';
import { stretchesOf, tried, type Track, type Tried } from './past-score.js';
import { regimeExpert, type RegimeExpert } from './regimes.js';
import { takeRow } from './rows.js';
import type { RunHours } from './run-hours.js';
import type { Season, OperatingTime } from './season.js';
import { trendExpert, type TrendExpert } from './trend-expert.js';
import { relativeScatter, type UseIntervals } from './use-intervals.js';

/** What all experts look at. */
interface Seen {
  readonly runHours: RunHours;
  readonly use: UseIntervals;
  readonly typical: number;
  readonly start: LevelStart | null;
  readonly prior: FleetPrior;
}

type Member = LevelExpert | RegimeExpert | TrendExpert;

/** An expert with its past. */
interface View<One extends Member = Member> {
  readonly expert: One;
  readonly past: Tried;
}

/** The experts on one way of counting days. */
export interface Views extends Track {
  readonly time: OperatingTime;
  readonly scatter: number;
  readonly season: Season | null;
  readonly views: readonly [View<LevelExpert>, View<RegimeExpert>, View<TrendExpert>];
}

export interface Panel extends Seen {
  readonly plain: Views;
  readonly seasonal: Views | null;
}

/** A season explains what swings within the year: shorter windows would take its ragged edges for wandering. */
const LEAST_SEASON_WINDOW = 160;
/** With a season, a change for good is so many times rarer: what swings is explained. */
const SEASON_RARENESS = 10;
/** A pattern is out by this share of typical use on any day: where there are few working days that is much. */
const PATTERN_OFF = 0.2;
/** A short window that a single jump called for is no reason to be very sure. */
const [SHORT_WINDOW, SHORT_SCALE] = [80, 0.9];

/** Lets every expert look at the readings, in working days. */
export function viewsOf(seen: Seen, time: OperatingTime, worked: Float64Array, season: Season | null): Views {
  const { scatter, experts } = expertsOn(seen, worked, season !== null);
  const { use, typical } = seen;
  const stretches = stretchesOf({ use, worked, typical });
  const viewOf = <One extends Member>(expert: One, leastScale = 0): View<One> => ({
    expert,
    past: tried(expert, stretches, Infinity, leastScale),
  });
  const [level, regimes, trend] = experts;
  const leastScale = level.windowDays <= SHORT_WINDOW ? SHORT_SCALE : 0;
  return {
    use,
    worked,
    typical,
    time,
    scatter,
    season,
    views: [viewOf(level, leastScale), viewOf(regimes), viewOf(trend)],
  };
}

export function expertsOn({ use, typical, start, prior }: Seen, worked: Float64Array, isSeasonal: boolean) {
  const { gained, count } = use;
  const scatter = relativeScatter(use, worked, typical, prior.spread ** 2);
  const noise = isSeasonal ? patternNoise(use, worked, typical) : null;
  const leastWindow = isSeasonal ? LEAST_SEASON_WINDOW : LEAST_WINDOW;
  const scattered = { count, gained, days: worked, typical, scatter, start, noise };
  const experts: readonly [LevelExpert, RegimeExpert, TrendExpert] = [
    levelExpert({ days: worked, gained, count }, start, typical, prior, leastWindow),
    regimeExpert(scattered, isSeasonal ? SEASON_RARENESS : 1),
    trendExpert(scattered),
  ];
  return { scatter, experts };
}

function patternNoise({ count, days }: UseIntervals, worked: Float64Array, typical: number): Float64Array {
  const noise = takeRow();
  for (let i = 0; i < count; i++) noise[i] = ((PATTERN_OFF * typical * days[i]!) / worked[i]!) ** 2;
  return noise;
}
