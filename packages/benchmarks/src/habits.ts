import type { PRNG } from 'seedrandom';
import { DAY } from './seed.js';

/** How a machine is used: hours of running on each day, day 0 being a Monday. */
export type Habit = (random: Random, days: number) => number[];

/** Draws that the habits are made of. */
export interface Random {
  /** Evenly between two figures. */
  between(low: number, high: number): number;
  normal(): number;
  /** Days until something happens that happens every `mean` days on the average. */
  wait(mean: number): number;
}

export function randomOf(prng: PRNG): Random {
  const between = (low: number, high: number) => low + (high - low) * prng();
  return {
    between,
    normal: () => Math.sqrt(-2 * Math.log(1 - prng())) * Math.cos(2 * Math.PI * prng()),
    wait: (mean) => -mean * Math.log(1 - prng()),
  };
}

const bounded = (hours: number) => Math.min(24, Math.max(0, hours));

/** Hours about a mean, scattering by a share of it. */
function about(random: Random, mean: number, share: number): number {
  return bounded(mean * (1 + share * random.normal()));
}

/** 1 on the day of the year about which it swings, −1 half a year later. */
const wave = (day: number, peak: number) => Math.cos((2 * Math.PI * (day - peak)) / 365.25);

export const habits: Readonly<Record<string, Habit>> = {
  /** Every day alike, but for some scatter. */
  steady: (random, days) => {
    const [mean, share] = [random.between(0.5, 16), random.between(0.05, 0.5)];
    return Array.from({ length: days }, () => about(random, mean, share));
  },
  /** Five or six working days, a closed fortnight in some years. */
  weekly: (random, days) => {
    const [mean, share] = [random.between(1, 10), random.between(0.1, 0.5)];
    const workdays = random.between(0, 1) < 0.7 ? 5 : 6;
    const closedFrom = random.between(0, 365);
    return Array.from({ length: days }, (_, day) =>
      day % 7 >= workdays || (day - closedFrom + 3650) % 365 < 10 ? 0 : about(random, mean, share),
    );
  },
  /** One, two or three shifts by turns of some weeks. */
  shifts: (random, days) => {
    const turn = Math.round(random.between(1, 4)) * 7;
    const load = random.between(0.4, 0.9);
    return Array.from({ length: days }, (_, day) =>
      day % 7 >= 6 ? 0 : about(random, load * 8 * (1 + (Math.floor(day / turn) % 3)), 0.15),
    );
  },
  /** All year round, more in one half of it. */
  swinging: (random, days) => {
    const [mean, peak, swing] = [random.between(1, 8), random.between(0, 365.25), random.between(0.4, 0.9)];
    return Array.from({ length: days }, (_, day) => about(random, mean * (1 + swing * wave(day, peak)), 0.4));
  },
  /** In one season only, four to eight months long. */
  'one season': (random, days) => {
    const [mean, peak, edge] = [random.between(1, 12), random.between(0, 365.25), random.between(-0.5, 0.5)];
    return Array.from({ length: days }, (_, day) => (wave(day, peak) > edge ? about(random, mean, 0.4) : 0));
  },
  /** Jobs of some days to weeks, and days to weeks of waiting. */
  bursts: (random, days) => {
    const [busy, idle, mean] = [random.between(2, 12), random.between(2, 12), random.between(2, 12)];
    const use: number[] = [];
    while (use.length < days) {
      for (let left = random.wait(busy); left > 0; left--) use.push(about(random, mean, 0.4));
      for (let left = random.wait(idle); left > 0; left--) use.push(0);
    }
    return use.slice(0, days);
  },
  /** A rate that wanders slowly. */
  drift: (random, days) => {
    let log = Math.log(random.between(1, 10));
    const pace = random.between(0.01, 0.03);
    return Array.from({ length: days }, () => {
      log = Math.min(Math.log(20), log + pace * random.normal());
      return about(random, Math.exp(log), 0.4);
    });
  },
  /** One day the work changes for good. */
  step: (random, days) => {
    const [before, factor] = [random.between(1, 8), Math.exp(random.between(-1, 1))];
    const [when, share] = [random.between(0.1, 0.9) * days, random.between(0.1, 0.5)];
    return Array.from({ length: days }, (_, day) => about(random, before * (day < when ? 1 : factor), share));
  },
};

/** A machine of a habit, read now and then, and when it truly reached a figure after its last reading. */
export interface Simulated {
  readonly habit: string;
  readonly at: readonly number[];
  readonly hours: readonly number[];
  readonly target: number;
  /** Days from the last reading to the true moment. */
  readonly trueDays: number;
}

const START = Date.UTC(2023, 0, 2);

/**
 * One machine: readings with gaps of 3 to 60 days over two months to four years, and a target 20 to 150 days
 * out. Where the machine stands still at the end of its horizon, the target was reached before: then another
 * machine of the habit is drawn, unless that was still 20 days out.
 */
export function simulate(habit: string, random: Random): Simulated {
  for (;;) {
    const machine = drawn(habit, random);
    if (machine.trueDays >= 20) return machine;
  }
}

function drawn(habit: string, random: Random): Simulated {
  const pastDays = Math.round(random.between(60, 1460));
  const horizon = random.between(20, 150);
  const use = habits[habit]!(random, pastDays + 800);
  const upTo = [0];
  for (const hours of use) upTo.push(upTo.at(-1)! + hours);
  const hoursAt = (day: number) => {
    const whole = Math.min(Math.floor(day), use.length - 1);
    return upTo[whole]! + (day - whole) * use[whole]!;
  };
  const meanGap = random.between(3, 40);
  const resolution = random.between(0, 1) < 0.5 ? 1 : 0.1;
  const at: number[] = [];
  const hours: number[] = [];
  const read = (day: number) => {
    at.push(START + Math.round(day * DAY));
    hours.push(Math.floor(hoursAt(day) / resolution) * resolution);
  };
  let day = 0;
  while (day < pastDays) {
    read(day);
    day += Math.min(60, Math.max(3, meanGap * random.between(0.5, 1.5)));
  }
  read(pastDays);
  const target = hoursAt(pastDays + horizon);
  let trueDay = pastDays;
  while (upTo[Math.floor(trueDay) + 1]! < target) trueDay = Math.floor(trueDay) + 1;
  const whole = Math.floor(trueDay);
  const reachedAt = whole + (target - upTo[whole]!) / Math.max(use[whole]!, 1e-9);
  return { habit, at, hours, target, trueDays: Math.max(trueDay, reachedAt) - pastDays };
}
