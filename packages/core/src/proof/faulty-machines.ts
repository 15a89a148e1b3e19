import {
  beginFinding,
  chanceOfBoth,
  isAllowed,
  KeptOdds,
  play,
  summingToOne,
  symptomsOf,
  USUAL_BELIEF,
  watchingWay,
  type BeliefOptions,
  type FaultyMachine,
  type Finding,
  type Way,
} from '../faults/index.js';
import type { DataPlate } from '../machine/index.js';

type Random = () => number;

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
