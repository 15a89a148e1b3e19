import { Planner, type Depth, type PlanProblem } from '../faults/index.js';

/** A small problem that can be solved to the end: causes with their chances, tests, repairs. */
export interface SmallProblem {
  readonly problem: PlanProblem;
  readonly prior: Float64Array;
}

type Random = () => number;

/** Draws a problem of three to five causes and three to five tests of two or three answers. */
export function drawSmallProblem(random: Random): SmallProblem {
  const within = (low: number, high: number) => low + (high - low) * random();
  const whole = (low: number, high: number) => Math.floor(within(low, high + 1));
  const [causes, tests] = [whole(3, 5), whole(3, 5)];
  const raw = Array.from({ length: causes }, () => random() ** 2 + 0.05);
  const sum = raw.reduce((total, one) => total + one, 0);
  const problem: PlanProblem = {
    repairs: Array.from({ length: causes }, () => ({ minutes: within(5, 150), state: whole(0, 2) })),
    tests: Array.from({ length: tests }, () => ({
      minutes: within(1, 20),
      states: [whole(0, 2)],
      penalty: 0,
      danger: 0,
      chances: drawChances(causes, whole(2, 3), random),
    })),
    switching: [
      [0, 3, within(11, 23)],
      [3, 0, within(8, 20)],
      [10, 0, 0],
    ],
    verifying: 8,
    unclear: 0.1,
  };
  return { problem, prior: Float64Array.from(raw, (one) => one / sum) };
}

/** Chances of answers: by each cause one of them is plain, more or less so. */
function drawChances(causes: number, outcomes: number, random: Random): Float64Array[] {
  const rows = Array.from({ length: outcomes }, () => new Float64Array(causes));
  for (let i = 0; i < causes; i++) {
    const plain = Math.floor(random() * outcomes);
    const chance = 0.6 + 0.37 * random();
    rows.forEach((row, at) => {
      row[i] = at === plain ? chance : (1 - chance) / (outcomes - 1);
    });
  }
  return rows;
}

/** What is to be done next at a point: a test, or a repair. */
export type Decision = { readonly test: number } | { readonly repair: number };

interface Node {
  readonly belief: Float64Array;
  readonly state: number;
  readonly asked: readonly boolean[];
}

/** Chance of each outcome of a test with what is believed then; that nobody can tell is the last. */
function outcomesOf({ problem }: SmallProblem, { belief }: Node, test: number) {
  const { chances } = problem.tests[test]!;
  const told = chances.map((row) => {
    const joint = belief.map((one, i) => one * row[i]!);
    const chance = joint.reduce((sum, one) => sum + one, 0);
    return { chance: chance * (1 - problem.unclear), belief: joint.map((one) => one / chance) };
  });
  return [...told, { chance: problem.unclear, belief }];
}

/** Expected minutes of one decision, with what follows valued by `then`. */
function valueOf(
  small: SmallProblem,
  planner: Planner,
  node: Node,
  decision: Decision,
  then: (node: Node) => number,
): number {
  if ('test' in decision) {
    const { test } = decision;
    const { minutes, after } = planner.costOf(small.problem.tests[test]!, node.state);
    const asked = node.asked.map((one, at) => one || at === test);
    return outcomesOf(small, node, test).reduce(
      (sum, { chance, belief }) => (chance <= 0 ? sum : sum + chance * then({ belief, state: after, asked })),
      minutes,
    );
  }
  const { repair } = decision;
  const left = 1 - node.belief[repair]!;
  const minutes = planner.repairMinutes(repair, node.state);
  if (left <= 1e-12) return minutes;
  const belief = node.belief.map((one, at) => (at === repair ? 0 : one / left));
  return minutes + left * then({ belief, state: 0, asked: node.asked });
}

function keyOf({ belief, state, asked }: Node): string {
  return `${state}|${asked.map(Number).join('')}|${Array.from(belief, (one) => one.toFixed(9)).join(',')}`;
}

function begin({ problem, prior }: SmallProblem): Node {
  return { belief: prior, state: 0, asked: problem.tests.map(() => false) };
}

/** The least expected minutes that any course can reach, by looking through all of them. */
export function exactMinutes(small: SmallProblem): number {
  const planner = new Planner(small.problem);
  const known = new Map<string, number>();
  const value = (node: Node): number => {
    const key = keyOf(node);
    const before = known.get(key);
    if (before !== undefined) return before;
    let best = Infinity;
    const consider = (decision: Decision) => {
      best = Math.min(best, valueOf(small, planner, node, decision, value));
    };
    small.problem.tests.forEach((_test, test) => {
      if (!node.asked[test]) consider({ test });
    });
    node.belief.forEach((one, repair) => {
      if (one > 1e-12) consider({ repair });
    });
    known.set(key, best);
    return best;
  };
  return value(begin(small));
}

/** Expected minutes of the planner’s own course, over everything that can be answered. */
export function plannedMinutes(small: SmallProblem, depth: Depth): number {
  const planner = new Planner(small.problem);
  const known = new Map<string, number>();
  const value = (node: Node): number => {
    const key = keyOf(node);
    const before = known.get(key);
    if (before !== undefined) return before;
    const { test, repair } = planner.choose(node, depth);
    const found = valueOf(small, planner, node, test === null ? { repair } : { test }, value);
    known.set(key, found);
    return found;
  };
  return value(begin(small));
}
