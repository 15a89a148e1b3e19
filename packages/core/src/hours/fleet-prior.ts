/**
 * What is believed of a machine's use before its own readings say more: learnt from machines at large. It is
 * a stored, dated fact, so that what one machine does later never moves the date of another.
 */
export interface FleetPrior {
  /** Scatter of a day's hours as a share of the machine's average: σ = spread × average. */
  readonly spread: number;
  /** How many intervals of its own a machine must show to weigh as much as {@link spread}. */
  readonly spreadWeight: number;
  /** How likely each of {@link WANDER_WINDOWS} is, beforehand; sums to 1. */
  readonly windows: readonly number[];
  /** Trust in a yearly pattern seen once and never compared, 0 to 1. */
  readonly seasonTrust: number;
}

/**
 * How quickly a rate wanders, as the number of days of readings that still speak of today: the filter
 * forgets about as fast as an average over so many days, λ = q²/σ² = 1/days². Steps of about two: two
 * neighbours forecast nearly alike. Longer than the longest is as good as a fixed rate within ten years of
 * readings, shorter than the shortest is less than a week.
 */
export const WANDER_WINDOWS = [2000, 800, 350, 160, 80, 40, 20, 10, 5] as const;

/** What a fleet teaches: of each machine, what its own readings said. */
export interface LearntFrom {
  readonly intervals: number;
  readonly typical: number | null;
  readonly scatter: number;
  readonly windowDays: number;
  /** Trust in its season, where it has one to compare. */
  readonly seasonTrust: number | null;
}

/** Intervals that a machine must show before the fleet learns from it, and machines that teach anything. */
const [LEAST_INTERVALS, LEAST_MACHINES] = [12, 10];
/** Machines that the former prior weighs as much as. */
const FORMER_WEIGHT = 20;

/**
 * Draws the former prior toward what the fleet's own machines show.
 *
 * @returns null when there are too few machines to learn from
 */
export function learnPrior(machines: readonly LearntFrom[], former: FleetPrior): FleetPrior | null {
  const teachers = machines.filter(
    ({ intervals, typical }) => intervals >= LEAST_INTERVALS && (typical ?? 0) > 0,
  );
  if (teachers.length < LEAST_MACHINES) return null;
  const own = teachers.length / (teachers.length + FORMER_WEIGHT);
  const spreads = teachers
    .map(({ scatter, typical }) => Math.log(Math.sqrt(scatter) / typical!))
    .sort((a, b) => a - b);
  const middle = spreads[spreads.length >>> 1]!;
  const trusts = teachers.flatMap(({ seasonTrust }) => (seasonTrust === null ? [] : [seasonTrust]));
  const ownTrust = trusts.length / (trusts.length + FORMER_WEIGHT);
  const meanTrust = trusts.reduce((sum, trust) => sum + trust, 0) / Math.max(1, trusts.length);
  return {
    spread: Math.exp(own * middle + (1 - own) * Math.log(former.spread)),
    spreadWeight: former.spreadWeight,
    windows: WANDER_WINDOWS.map((days, index) => {
      const count = teachers.filter(({ windowDays }) => windowDays === days).length;
      return own * (count / teachers.length) + (1 - own) * former.windows[index]!;
    }),
    seasonTrust: ownTrust * meanTrust + (1 - ownTrust) * former.seasonTrust,
  };
}

/** Without a fleet of one's own: common practice, from simulated machines of many habits. */
export const practicePrior: FleetPrior = {
  spread: 0.7,
  spreadWeight: 4,
  windows: WANDER_WINDOWS.map(() => 1 / WANDER_WINDOWS.length),
  seasonTrust: 0.4,
};
