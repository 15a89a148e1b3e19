import type { Belief } from './belief.js';
import { machineStates } from './cause.js';
import { isDaring } from './daring.js';
import { beliefAfter, isAllowed, summingToOne, type Finding } from './finding.js';
import type { PlanPoint } from './planner.js';

/** A machine with what is wrong in it, and what each test would answer: the same whoever asks. */
export interface FaultyMachine {
  /** Indices of the causes that are there: one, or two. */
  readonly truth: readonly number[];
  /** Index of each test’s answer; null where nobody could tell. */
  readonly answers: readonly (number | null)[];
}

/** What became of one machine. */
export interface Found {
  /** Until it is mended and that is shown. */
  readonly minutes: number;
  /** The same without the work of the right repairs themselves: what was spent on getting to them. */
  readonly minutesToRepair: number;
  /** Whether the cause named first when a repair was begun was there. */
  readonly isFirstRight: boolean;
  /** How sure it was called. */
  readonly sureness: number;
  readonly tests: number;
  /** Tests that were proposed in a state in which they cannot be done. */
  readonly forbidden: number;
  /** Tests of danger 2 or 3 where a safer one would have parted the same causes. */
  readonly daring: number;
}

/** A way to go about it: told what was learnt, it says what is done next. */
export interface Way {
  next(): { readonly test: number } | { readonly repair: number };
  answered(test: number, answer: number | null): void;
  mended(cause: number): void;
  /** How sure it is of each cause; left out by a way that keeps no odds. */
  odds?(): Float64Array;
}

/** Plays a way on a machine until it is mended; minutes are counted alike for every way. */
export function play(finding: Finding, { truth, answers }: FaultyMachine, way: Way): Found {
  const { planner, problem, tests } = finding;
  const left = new Set(truth);
  const asked = tests.map(() => false);
  let [minutes, state, count, forbidden, daring] = [0, 0, 0, 0, 0];
  let first: { readonly isRight: boolean; readonly sureness: number } | null = null;
  while (left.size > 0) {
    const next = way.next();
    if ('test' in next) {
      const { test } = next;
      if (asked[test] || !isAllowed(finding, test)) forbidden += 1;
      const cost = planner.costOf(problem.tests[test]!, state);
      if (!tests[test]!.states.includes(machineStates[cost.state]!)) forbidden += 1;
      if (way.odds && isDaring(finding, test, { belief: summingToOne(way.odds()), state, asked }))
        daring += 1;
      asked[test] = true;
      minutes += cost.minutes;
      state = cost.after;
      count += 1;
      way.answered(test, answers[test]!);
      continue;
    }
    const { repair } = next;
    if (first === null) {
      const odds = way.odds?.();
      const named = odds ? odds.indexOf(Math.max(...odds)) : repair;
      first = { isRight: truth.includes(named), sureness: odds?.[named] ?? 0 };
    }
    minutes += planner.repairMinutes(repair, state);
    state = 0;
    left.delete(repair);
    if (left.size > 0) way.mended(repair);
  }
  const work = truth.reduce((sum, cause) => sum + problem.repairs[cause]!.minutes + problem.verifying, 0);
  return {
    minutes,
    minutesToRepair: minutes - work,
    isFirstRight: first!.isRight,
    sureness: first!.sureness,
    tests: count,
    forbidden,
    daring,
  };
}

/** What is kept of odds by every way that keeps them. */
export class KeptOdds {
  readonly belief: Belief;
  constructor(private readonly finding: Finding) {
    this.belief = beliefAfter(finding, []);
  }

  answered(test: number, answer: number | null): void {
    if (answer !== null) this.belief.answer(this.finding.tables[test]!, answer);
  }

  odds(): Float64Array {
    return this.belief.odds();
  }
}

/** A way that keeps odds and knows how the machine stands: `choose` says which test is next, null for a repair. */
export function watchingWay(
  finding: Finding,
  choose: (point: PlanPoint, odds: Float64Array) => { readonly test: number | null; readonly repair: number },
): Way {
  const kept = new KeptOdds(finding);
  const asked = finding.tests.map(() => false);
  let state = 0;
  return {
    next: () => {
      const odds = kept.odds();
      const { test, repair } = choose({ belief: summingToOne(odds), state, asked }, odds);
      return test === null ? { repair } : { test };
    },
    answered: (test, answer) => {
      kept.answered(test, answer);
      asked[test] = true;
      state = finding.planner.costOf(finding.problem.tests[test]!, state).after;
    },
    mended: (cause) => {
      kept.belief.mended(cause);
      state = 0;
    },
    odds: () => kept.odds(),
  };
}

/** The fault finder itself. */
export function finderWay(finding: Finding, depth: 1 | 2 = 2): Way {
  return watchingWay(finding, (point) =>
    finding.planner.choose(point, depth, (at) => isAllowed(finding, at)),
  );
}
