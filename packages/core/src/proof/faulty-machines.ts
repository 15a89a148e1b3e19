import {
  beginFinding,
  beliefAfter,
  type Belief,
  chanceOfBoth,
  machineStates,
  summingToOne,
  symptomsOf,
  USUAL_BELIEF,
  type BeliefOptions,
  type Finding,
  type PlanPoint,
} from '../faults/index.js';
import type { DataPlate } from '../machine/index.js';

type Random = () => number;

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

/** Every symptom of a machine, made ready. */
export function findingsOf(plate: DataPlate, isElectrician: boolean): Finding[] {
  return symptomsOf(plate).map((symptom) => beginFinding(symptom, plate, { isElectrician }));
}

/** Draws machines with a symptom: causes by their rates, some slight, some in twos, some answers that nobody can tell. */
export function drawMachine(
  { starting, tests, tables, problem }: Finding,
  random: Random,
  { pairs, slight }: BeliefOptions = USUAL_BELIEF,
): FaultyMachine {
  const other = starting.causes.indexOf('OTHER');
  const draw = () => {
    let left = random();
    const at = starting.rates.findIndex((rate) => (left -= rate) <= 0);
    return at < 0 ? starting.rates.length - 1 : at;
  };
  const first = draw();
  const truth = [first];
  if (first !== other && random() < pairs) {
    const second = draw();
    if (second !== first && second !== other) truth.push(second);
  }
  const isSlight = truth.map(() => random() < slight);
  const answers = tests.map((_test, at) => {
    if (random() < problem.unclear) return null;
    const columns = truth.map((cause, i) =>
      (isSlight[i] ? tables[at]!.slight : tables[at]!.full).map((row) => row[cause]!),
    );
    return drawAnswer(columns, tables[at]!.others, random);
  });
  return { truth, answers };
}

/** The answer of a test to one cause or two. */
function drawAnswer(
  columns: readonly (readonly number[])[],
  others: readonly number[],
  random: Random,
): number {
  const [a, b] = columns;
  let left = random();
  const at = others.findIndex((_one, answer) => {
    left -= b === undefined ? a![answer]! : chanceOfBoth(a!, b, others, answer);
    return left <= 0;
  });
  return at < 0 ? others.length - 1 : at;
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
      if (asked[test] || (tests[test]!.trade && !finding.isElectrician)) forbidden += 1;
      const cost = planner.costOf(problem.tests[test]!, state);
      if (!tests[test]!.states.includes(machineStates[cost.state]!)) forbidden += 1;
      if (way.odds && isDaring(finding, test, { odds: way.odds(), state, asked })) daring += 1;
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

/**
 * Whether a test could have waited for a safer one: of danger 0 or 1, open to be asked, within three times its
 * minutes, and parting every two likely causes that it parts. Said here once more, apart from the planner.
 */
function isDaring(
  { planner, problem, tests, tables, isElectrician }: Finding,
  chosen: number,
  {
    odds,
    state,
    asked,
  }: { readonly odds: Float64Array; readonly state: number; readonly asked: readonly boolean[] },
): boolean {
  if (tests[chosen]!.danger < 2) return false;
  const shares = summingToOne(odds);
  const likely = [...shares.keys()].filter((i) => shares[i]! >= 0.03);
  const pairs = likely.flatMap((i) => likely.filter((j) => j > i).map((j) => [i, j] as const));
  const parts = (test: number, [i, j]: readonly [number, number]) =>
    tables[test]!.full.some((row) => Math.abs(row[i]! - row[j]!) >= 0.25);
  const parted = pairs.filter((pair) => parts(chosen, pair));
  const most = 3 * planner.costOf(problem.tests[chosen]!, state).minutes;
  return tests.some(
    ({ danger, trade }, at) =>
      !asked[at] &&
      danger < 2 &&
      (!trade || isElectrician) &&
      planner.costOf(problem.tests[at]!, state).minutes <= most &&
      parted.length > 0 &&
      parted.every((pair) => parts(at, pair)),
  );
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
function watchingWay(
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

const isAllowed = ({ tests, isElectrician }: Finding, at: number) => isElectrician || !tests[at]!.trade;

/** The fault finder itself. */
export function finderWay(finding: Finding, depth: 1 | 2 = 2): Way {
  return watchingWay(finding, (point) =>
    finding.planner.choose(point, depth, (at) => isAllowed(finding, at)),
  );
}

/** Repairs in order of chance over minutes, no tests. */
export function repairsWay({ planner, starting }: Finding): Way {
  const order = starting.rates
    .map((rate, at) => ({ at, worth: rate / planner.repairMinutes(at, 0) }))
    .sort((a, b) => b.worth - a.worth)
    .map(({ at }) => at);
  return { next: () => ({ repair: order[0]! }), answered: () => undefined, mended: () => void order.shift() };
}

/** A list on paper: tests in their order; what one finds is put right at once, and nothing is kept of the rest. */
export function paperWay(finding: Finding, list: readonly number[]): Way {
  const waiting = [...list];
  const rest = repairsWay(finding);
  const gone = new Set<number>();
  let found: number | null = null;
  return {
    next: () => {
      if (found !== null) return { repair: found };
      const test = waiting.shift();
      if (test !== undefined) return { test };
      for (;;) {
        const next = rest.next() as { readonly repair: number };
        if (!gone.has(next.repair)) return next;
        rest.mended(next.repair);
      }
    },
    answered: (test, answer) => {
      if (answer === null || answer === finding.tests[test]!.answers.length) return;
      const row = finding.tables[test]!.full[answer]!;
      const weights = finding.starting.rates.map((rate, i) => (gone.has(i) ? 0 : rate * row[i]!));
      const most = Math.max(...weights);
      if (most > 0) found = weights.indexOf(most);
    },
    mended: (cause) => {
      gone.add(cause);
      found = null;
    },
  };
}

/** A list of tests that keeps odds: it goes on until one cause is sure enough, then by chance over minutes. */
export function listWithOddsWay(finding: Finding, list: readonly number[], sureFrom: number): Way {
  const kept = new KeptOdds(finding);
  const waiting = [...list];
  return {
    next: () => {
      const odds = kept.odds();
      const test = waiting[0];
      if (test === undefined || Math.max(...odds) >= sureFrom) {
        return { repair: finding.planner.firstRepair(summingToOne(odds), 0) };
      }
      waiting.shift();
      return { test };
    },
    answered: (test, answer) => kept.answered(test, answer),
    mended: (cause) => kept.belief.mended(cause),
    odds: () => kept.odds(),
  };
}

/** The test that tells most for its minutes, until one cause is sure enough. */
export function informationWay(finding: Finding, sureFrom: number): Way {
  const { planner, problem } = finding;
  return watchingWay(finding, ({ belief, state, asked }, odds) => {
    const repair = planner.firstRepair(belief, state);
    if (Math.max(...odds) >= sureFrom) return { test: null, repair };
    let [test, most] = [null as number | null, 1e-6];
    problem.tests.forEach((one, at) => {
      if (asked[at] || !isAllowed(finding, at)) return;
      const rate = informationOf(one.chances, belief) / planner.costOf(one, state).minutes;
      if (rate > most) [test, most] = [at, rate];
    });
    return { test, repair };
  });
}

function entropy(shares: Float64Array): number {
  let sum = 0;
  for (const share of shares) if (share > 0) sum -= share * Math.log2(share);
  return sum;
}

/** How much a test is expected to tell, in bits. */
function informationOf(chances: readonly Float64Array[], shares: Float64Array): number {
  let left = 0;
  for (const row of chances) {
    const joint = shares.map((share, i) => share * row[i]!);
    const chance = joint.reduce((sum, one) => sum + one, 0);
    if (chance > 0) left += chance * entropy(joint.map((one) => one / chance));
  }
  return entropy(shares) - left;
}

/** Mean minutes of a way over machines. */
export function meanMinutes(finding: Finding, machines: readonly FaultyMachine[], way: () => Way): number {
  return machines.reduce((sum, machine) => sum + play(finding, machine, way()).minutes, 0) / machines.length;
}

/** The best order of tests that a search finds: begun by what helps most at once, then moved about. */
export function searchList(
  finding: Finding,
  value: (list: readonly number[]) => number,
  { random, tries }: { readonly random: Random; readonly tries: number },
): { readonly list: readonly number[]; readonly value: number } {
  const able = finding.tests.flatMap(({ trade }, at) => (trade && !finding.isElectrician ? [] : [at]));
  let best: { list: readonly number[]; value: number } = { list: [], value: value([]) };
  const consider = (list: readonly number[]) => {
    const found = value(list);
    if (found < best.value - 1e-9) best = { list, value: found };
  };
  for (let grew = true; grew;) {
    const { list } = best;
    for (const at of able) if (!list.includes(at)) consider([...list, at]);
    grew = best.list !== list;
  }
  for (let k = 0; k < tries; k++) {
    const list = [...best.list];
    const at = Math.floor(random() * able.length);
    const from = list.indexOf(able[at]!);
    if (from >= 0) list.splice(from, 1);
    // Some are left out, the others go elsewhere.
    if (from < 0 || random() < 0.8) list.splice(Math.floor(random() * (list.length + 1)), 0, able[at]!);
    consider(list);
  }
  return best;
}
