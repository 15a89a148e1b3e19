import type { PRNG } from 'seedrandom';
import { DAY_MS } from '@entretien/core/basics';

/** Draws that the habits are made of. */
export interface Random {
  /** Evenly between two figures. */
  between(low: number, high: number): number;
  normal(): number;
  /** Days until something happens that happens every `mean` days on the average. */
  wait(mean: number): number;
  chance(share: number): boolean;
}

export function randomOf(prng: PRNG): Random {
  const between = (low: number, high: number) => low + (high - low) * prng();
  return {
    between,
    normal: () => Math.sqrt(-2 * Math.log(1 - prng())) * Math.cos(2 * Math.PI * prng()),
    wait: (mean) => -mean * Math.log(1 - prng()),
    chance: (share) => prng() < share,
  };
}

/** How long a machine has been on record and how often it was read, days. */
export interface Record {
  readonly days: number;
  readonly gap: number;
}

/** A way of using a machine. */
export interface Habit {
  /** Its record, where the habit says something of it; otherwise two months to four years, read every 3 to 40 days. */
  readonly record?: (random: Random) => Record;
  /** Hours of running on each of so many days, day 0 being a Monday in January; `now` is the day of the question. */
  readonly use: (random: Random, days: number, now: number) => number[];
}

const YEAR = 365.25;
const bounded = (hours: number) => Math.min(24, Math.max(0, hours));
const onEach = (days: number, hours: (day: number) => number) =>
  Array.from({ length: days }, (_, day) => hours(day));

/** Hours about a mean, scattering by a share of it. */
function about(random: Random, mean: number, share: number): number {
  return bounded(mean * (1 + share * random.normal()));
}

/** 1 on the day of the year about which it swings, −1 half a year later. */
const wave = (day: number, peak: number) => Math.cos((2 * Math.PI * (day - peak)) / YEAR);
const ofYear = (day: number) => ((day % YEAR) + YEAR) % YEAR;

/** Spells in every year, each drawn anew by some days about where it usually lies. */
function spells(random: Random, days: number, usual: readonly (readonly [number, number])[], shift: number) {
  const inside = new Uint8Array(days);
  for (let year = -1; year * YEAR < days; year++) {
    for (const [from, length] of usual) {
      const start = Math.round(year * YEAR + from + shift * random.normal());
      inside.fill(1, Math.max(0, start), Math.max(0, start + Math.round(length)));
    }
  }
  return inside;
}

/** Jobs of some days to weeks, and days to weeks of waiting. */
function jobs(random: Random, days: number, busy: number, idle: number, hours: () => number): number[] {
  const use: number[] = [];
  while (use.length < days) {
    for (let left = random.wait(busy); left > 0; left--) use.push(hours());
    for (let left = random.wait(idle); left > 0; left--) use.push(0);
  }
  return use.slice(0, days);
}

/** One working week of a workshop. */
function workshop(random: Random, days: number, low = 1, high = 9): number[] {
  const [mean, share] = [random.between(low, high), random.between(0.1, 0.5)];
  const workdays = random.chance(0.7) ? 5 : 6;
  return onEach(days, (day) => (day % 7 >= workdays ? 0 : about(random, mean, share)));
}

const schoolYear: Habit['use'] = (random, days) => {
  const mean = random.between(0.5, 5);
  const holidays = spells(
    random,
    days,
    [
      [0, 5],
      [40, 8],
      [95, 14],
      [185, 44],
      [285, 14],
      [355, 10],
    ],
    2,
  );
  return onEach(days, (day) => (day % 7 >= 5 || holidays[day] ? 0 : about(random, mean, 0.4)));
};

/** So many times the use from a number of days before the question on. */
function changed(factor: number, days: readonly [number, number], years: readonly number[]): Habit {
  return {
    record: (random) => {
      const chosen = years[Math.floor(random.between(0, years.length))]!;
      return { days: Math.round(chosen * YEAR), gap: random.between(7, 30) };
    },
    use: (random, length, now) => {
      const since = now - Math.round(random.between(...days));
      const [mean, share] = [random.between(0.5, Math.min(6, 20 / factor)), random.between(0.1, 0.6)];
      const workdays = random.chance(0.5) ? 5 : 7;
      return onEach(length, (day) =>
        day % 7 >= workdays ? 0 : about(random, mean * (day < since ? 1 : factor), share),
      );
    },
  };
}

const YEARS_ON_RECORD = [1.3, 2.5, 6] as const;

/** The habits that a forecast is judged by; none was drawn to suit it. */
export const habits: Readonly<{ [name: string]: Habit }> = {
  'steady shift': {
    use: (random, days) => {
      const [mean, share] = [random.between(5, 9), random.between(0.05, 0.2)];
      return onEach(days, (day) => (day % 7 >= 5 ? 0 : about(random, mean, share)));
    },
  },
  'two shifts, closures': {
    record: (random) => ({ days: Math.round(random.between(400, 1800)), gap: random.between(5, 35) }),
    use: (random, days) => {
      const mean = random.between(12, 16);
      const summer: [number, number] = [random.between(195, 215), random.between(14, 21)];
      const closed = spells(random, days, [summer, [356, random.between(8, 14)]], 3);
      return onEach(days, (day) => (day % 7 >= 5 || closed[day] ? 0 : about(random, mean, 0.1)));
    },
  },
  'school, one year': {
    record: (random) => ({ days: Math.round(random.between(370, 500)), gap: random.between(5, 30) }),
    use: schoolYear,
  },
  'school, three years': {
    record: (random) => ({ days: Math.round(random.between(1000, 1400)), gap: random.between(5, 30) }),
    use: schoolYear,
  },
  harvest: {
    record: (random) => ({ days: Math.round(random.between(500, 1800)), gap: random.between(5, 40) }),
    use: (random, days) => {
      const [from, length, mean] = [random.between(180, 250), random.between(40, 80), random.between(6, 16)];
      const season = spells(random, days, [[from, length]], 8);
      return onEach(days, (day) =>
        season[day] ? about(random, mean, 0.4) : random.chance(0.1) ? random.between(0.2, 1.5) : 0,
      );
    },
  },
  'winter only': {
    record: (random) => ({ days: Math.round(random.between(400, 1800)), gap: random.between(5, 40) }),
    use: (random, days) => {
      const [from, length, mean] = [random.between(290, 335), random.between(90, 150), random.between(1, 8)];
      const season = spells(random, days, [[from, length]], 10);
      return onEach(days, (day) => (season[day] ? about(random, mean, 0.5) : 0));
    },
  },
  'irregular days': {
    use: (random, days) => {
      const [share, mean] = [random.between(0.1, 0.5), random.between(1, 6)];
      return onEach(days, (day) =>
        random.chance(day % 7 >= 5 ? Math.min(0.9, 1.6 * share) : share)
          ? bounded(mean * Math.exp(0.6 * random.normal()))
          : 0,
      );
    },
  },
  'hired out': {
    use: (random, days) => {
      const [busy, idle, mean] = [random.between(8, 40), random.between(8, 50), random.between(4, 10)];
      return jobs(random, days, busy, idle, () => about(random, mean, 0.3));
    },
  },
  standby: {
    use: (random, days) => {
      const [test, mean, between] = [
        random.between(0.2, 0.6),
        random.between(8, 22),
        random.between(60, 200),
      ];
      const length = random.between(2, 10);
      const runs = jobs(random, days, length, between, () => about(random, mean, 0.2));
      return runs.map((hours, day) => (day % 7 === 0 ? Math.max(hours, test) : hours));
    },
  },
  'round the clock': {
    use: (random, days) => {
      const [mean, stop] = [random.between(20, 24), random.between(0.003, 0.02)];
      return onEach(days, () => (random.chance(stop) ? random.between(0, 12) : about(random, mean, 0.03)));
    },
  },
  'read monthly': {
    record: (random) => ({ days: Math.round(random.between(240, 1500)), gap: random.between(25, 35) }),
    use: (random, days) => workshop(random, days),
  },
  'read very sparsely': {
    record: (random) => ({ days: Math.round(random.between(400, 1800)), gap: random.between(70, 180) }),
    use: (random, days) => workshop(random, days, 0.5, 6),
  },
  'two or three readings': {
    record: (random) => {
      const gap = random.between(3, 40);
      return { days: Math.round(gap * (random.chance(0.5) ? 1 : 2)), gap };
    },
    use: (random, days) =>
      random.chance(0.5)
        ? workshop(random, days)
        : jobs(random, days, random.between(2, 12), random.between(2, 8), () => about(random, 5, 0.4)),
  },
  growing: {
    record: (random) => ({ days: Math.round(random.between(300, 1500)), gap: random.between(5, 40) }),
    use: (random, days, now) => {
      const [end, growth] = [random.between(2, 12), Math.log(1 + random.between(0.25, 0.9))];
      return onEach(days, (day) =>
        day % 7 >= 5 ? 0 : about(random, end * Math.exp((growth * (day - now)) / YEAR), 0.3),
      );
    },
  },
  declining: {
    record: (random) => ({ days: Math.round(random.between(300, 1500)), gap: random.between(5, 40) }),
    use: (random, days, now) => {
      const [end, loss] = [random.between(0.8, 6), Math.log(1 - random.between(0.2, 0.5))];
      return onEach(days, (day) =>
        day % 7 >= 5 ? 0 : about(random, end * Math.exp((loss * (day - now)) / YEAR), 0.3),
      );
    },
  },
  'daily, then weekly': {
    record: (random) => ({ days: Math.round(random.between(500, 1800)), gap: random.between(5, 35) }),
    use: (random, days, now) => {
      const [mean, since] = [random.between(1, 5), now - Math.round(random.between(60, 420))];
      return onEach(days, (day) =>
        day < since
          ? day % 7 >= 5
            ? 0
            : about(random, mean, 0.3)
          : day % 7 === 2
            ? about(random, mean, 0.4)
            : 0,
      );
    },
  },
  'fivefold rise': changed(5, [30, 120], YEARS_ON_RECORD),
  /** Every day alike, but for some scatter. */
  steady: {
    use: (random, days) => {
      const [mean, share] = [random.between(0.5, 16), random.between(0.05, 0.5)];
      return onEach(days, () => about(random, mean, share));
    },
  },
  /** Five or six working days, a closed fortnight in every year. */
  weekly: {
    use: (random, days) => {
      const use = workshop(random, days, 1, 10);
      const closedFrom = random.between(0, 365);
      return use.map((hours, day) => ((day - closedFrom + 3650) % 365 < 10 ? 0 : hours));
    },
  },
  /** One, two or three shifts by turns of some weeks. */
  'shifts by turns': {
    use: (random, days) => {
      const turn = Math.round(random.between(1, 4)) * 7;
      const load = random.between(0.4, 0.9);
      return onEach(days, (day) =>
        day % 7 >= 6 ? 0 : about(random, load * 8 * (1 + (Math.floor(day / turn) % 3)), 0.15),
      );
    },
  },
  /** All year round, more in one half of it. */
  swinging: {
    use: (random, days) => {
      const [mean, peak, swing] = [random.between(1, 8), random.between(0, YEAR), random.between(0.4, 0.9)];
      return onEach(days, (day) => about(random, mean * (1 + swing * wave(day, peak)), 0.4));
    },
  },
  /** In one season only, four to eight months long. */
  'one season': {
    use: (random, days) => {
      const [mean, peak, edge] = [random.between(1, 12), random.between(0, YEAR), random.between(-0.5, 0.5)];
      return onEach(days, (day) => (wave(ofYear(day), peak) > edge ? about(random, mean, 0.4) : 0));
    },
  },
  bursts: {
    use: (random, days) => {
      const [busy, idle, mean] = [random.between(2, 12), random.between(2, 12), random.between(2, 12)];
      return jobs(random, days, busy, idle, () => about(random, mean, 0.4));
    },
  },
  /** A rate that wanders slowly. */
  drift: {
    use: (random, days) => {
      let log = Math.log(random.between(1, 10));
      const pace = random.between(0.01, 0.03);
      return onEach(days, () => {
        log = Math.min(Math.log(20), log + pace * random.normal());
        return about(random, Math.exp(log), 0.4);
      });
    },
  },
  /** One day the work changes for good. */
  step: {
    use: (random, days, now) => {
      const [before, factor] = [random.between(1, 8), Math.exp(random.between(-1, 1))];
      const [when, share] = [random.between(0.1, 0.9) * now, random.between(0.1, 0.5)];
      return onEach(days, (day) => about(random, before * (day < when ? 1 : factor), share));
    },
  },
};

/** A change of use so many days before the question, with so many years on record. */
export const rises: readonly { readonly name: string; readonly daysAgo: number; readonly habit: Habit }[] = [
  5, 2,
].flatMap((factor) =>
  YEARS_ON_RECORD.flatMap((years) =>
    [30, 60, 120].map((daysAgo) => ({
      name: `${factor === 5 ? 'fivefold' : 'doubled'}, ${years} years, ${daysAgo} d ago`,
      daysAgo,
      habit: changed(factor, [daysAgo, daysAgo], [years]),
    })),
  ),
);

/** A machine of a habit, read now and then, and the service intervals that are asked about. */
export interface Simulated {
  readonly at: readonly number[];
  readonly hours: readonly number[];
  readonly targets: readonly { readonly hours: number; readonly trueDays: number }[];
}

/** Days after the question for which a machine's running is drawn: what comes later counts as never. */
const AHEAD_DAYS = 2200;
/** Service intervals asked about, as days at the machine's past rate. */
const INTERVALS: readonly (readonly [number, number])[] = [
  [10, 45],
  [45, 120],
  [120, 300],
];

/** One machine: its readings, and three intervals to come, calculated by what it ran in the past. */
export function simulate({ record, use: useOf }: Habit, random: Random): Simulated {
  for (;;) {
    const { days: now, gap } = record?.(random) ?? {
      days: Math.round(random.between(60, 1460)),
      gap: random.between(3, 40),
    };
    const turn = Math.floor(random.between(0, 365));
    const drawn = useOf(random, turn + now + AHEAD_DAYS, turn + now).slice(turn);
    const upTo = [0];
    for (const hours of drawn) upTo.push(upTo.at(-1)! + hours);
    const hoursAt = (day: number) => {
      const whole = Math.min(Math.floor(day), drawn.length - 1);
      return upTo[whole]! + (day - whole) * drawn[whole]!;
    };
    const resolution = random.chance(0.5) ? 1 : 0.1;
    const read = (day: number) => Math.floor(hoursAt(day) / resolution) * resolution;
    const readOn = [0];
    for (let day = 0; ;) {
      day += Math.max(2, gap * random.between(0.6, 1.4));
      if (day >= now - 1) break;
      readOn.push(day);
    }
    readOn.push(now);
    const hours = readOn.map(read);
    const rate = (hours.at(-1)! - hours[0]!) / now;
    // A machine that has hardly run has no rate to reckon an interval by.
    if (rate * 10 < 1) continue;
    const start = Date.UTC(2023, 0, 2) + turn * DAY_MS;
    return {
      at: readOn.map((day) => start + Math.round(day * DAY_MS)),
      hours,
      targets: INTERVALS.map(([low, high]) => {
        const target = hours.at(-1)! + Math.ceil(rate * random.between(low, high));
        return { hours: target, trueDays: dayOf(upTo, target) - now };
      }),
    };
  }
}

/** The day on which so many hours were run; Infinity where it is not among those drawn. */
function dayOf(upTo: readonly number[], target: number): number {
  if (!(upTo.at(-1)! >= target)) return Infinity;
  let [low, high] = [0, upTo.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >>> 1;
    if (upTo[middle]! >= target) high = middle;
    else low = middle;
  }
  return low + (target - upTo[low]!) / (upTo[high]! - upTo[low]!);
}
