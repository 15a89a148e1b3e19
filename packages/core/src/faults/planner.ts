/** A repair by which a cause is put right. */
export interface PlannedRepair {
  readonly minutes: number;
  readonly state: number;
}

/** A test with the chance of each outcome under each cause. */
export interface PlannedTest {
  readonly minutes: number;
  /** States in which it can be done. */
  readonly states: readonly number[];
  /** State in which it leaves the machine; left out: as it was. */
  readonly after?: number | undefined;
  /** Minutes that its danger counts for. */
  readonly penalty: number;
  /** Danger, 0 to 3: the dangerous waits where a safer one does as well. */
  readonly danger: number;
  /** By outcome, the usual one last, then by cause; each cause’s column sums to 1. */
  readonly chances: readonly Float64Array[];
}

/** What the planner decides about: causes by index, how they are put right, what tells them apart. */
export interface PlanProblem {
  readonly repairs: readonly PlannedRepair[];
  readonly tests: readonly PlannedTest[];
  /** Minutes from one state to another; state 0 is running, where a repair is verified. */
  readonly switching: readonly (readonly number[])[];
  /** Minutes to verify a repair. */
  readonly verifying: number;
  /** Chance that a test’s answer is that nobody can tell. */
  readonly unclear: number;
}

/** What is known at a point: the chance of each cause, summing to 1; the state; what was asked already. */
export interface PlanPoint {
  readonly belief: Float64Array;
  readonly state: number;
  readonly asked: readonly boolean[];
}

export interface PlanChoice {
  /** Index of the test; null where the best is to begin a repair. */
  readonly test: number | null;
  /** Index of the cause to be put right first, if no test is made. */
  readonly repair: number;
}

export type Depth = 1 | 2;

/** Something that can be done next, with the minutes that are expected then. */
interface Action {
  readonly kind: 'test' | 'repair';
  readonly at: number;
  readonly value: number;
}

/** The least minutes first; a repair before a test that saves nothing. */
const byValue = (a: Action, b: Action) =>
  Math.abs(a.value - b.value) < 1e-9
    ? a.kind === b.kind
      ? 0
      : a.kind === 'repair'
        ? -1
        : 1
    : a.value - b.value;

/** So many of the best by one step are looked at by two. */
const LOOKED_INTO = 8;
const REPAIRS_LOOKED_INTO = 3;
/** What is no worse than this, of the best, counts as good. */
const AS_GOOD_AS = 1.02;
/** A safer test comes first within so many times the minutes. */
const SAFER_WITHIN = 3;
/** Causes below this are not counted among those that a test parts. */
const COUNTS_FROM = 0.03;
/** Two causes are parted where some answer’s chances differ by this. */
const PARTS_FROM = 0.25;

/** Finds what to do next; made once for a problem, asked at many points. */
export class Planner {
  private readonly size: number;
  private readonly order: Int32Array;
  private readonly fromRun: Float64Array;
  private readonly ratio: Float64Array;
  private readonly posterior: Float64Array;
  private readonly second: Float64Array;

  constructor(private readonly problem: PlanProblem) {
    const { repairs } = problem;
    this.size = repairs.length;
    this.order = new Int32Array(this.size);
    this.ratio = new Float64Array(this.size);
    this.posterior = new Float64Array(this.size);
    this.second = new Float64Array(this.size);
    this.fromRun = Float64Array.from(repairs, (_repair, at) => this.repairMinutes(at, 0));
  }

  /** Minutes of a repair from a state until it is verified. */
  repairMinutes(cause: number, state: number): number {
    const { repairs, switching, verifying } = this.problem;
    const { minutes, state: needed } = repairs[cause]!;
    return switching[state]![needed]! + minutes + switching[needed]![0]! + verifying;
  }

  /** The repair that comes first where nothing more is tested: by chance over minutes. */
  firstRepair(belief: Float64Array, state: number): number {
    let [best, most] = [0, -1];
    for (let i = 0; i < this.size; i++) {
      const worth = belief[i]! / this.repairMinutes(i, state);
      if (worth > most) [best, most] = [i, worth];
    }
    return best;
  }

  /** Expected minutes of repairing without tests: in order of chance over minutes, the changes of state counted. */
  withoutTests(belief: Float64Array, state: number): number {
    const { order, ratio, fromRun, size } = this;
    const first = this.firstRepair(belief, state);
    let count = 0;
    for (let i = 0; i < size; i++) {
      if (i === first || belief[i]! <= 0) continue;
      const worth = belief[i]! / fromRun[i]!;
      let at = count++;
      while (at > 0 && ratio[at - 1]! < worth) {
        order[at] = order[at - 1]!;
        ratio[at] = ratio[at - 1]!;
        at -= 1;
      }
      order[at] = i;
      ratio[at] = worth;
    }
    let left = 1 - belief[first]!;
    let expected = this.repairMinutes(first, state);
    for (let k = 0; k < count; k++) {
      const i = order[k]!;
      expected += Math.max(0, left) * fromRun[i]!;
      left -= belief[i]!;
    }
    return expected;
  }

  /** The cheapest state to do a test in, from another. */
  stateFor({ states }: PlannedTest, from: number): number {
    const { switching } = this.problem;
    let best = states[0]!;
    for (const state of states) if (switching[from]![state]! < switching[from]![best]!) best = state;
    return best;
  }

  /** Minutes that a test takes from a state, and the state that it leaves. */
  costOf(test: PlannedTest, from: number): { minutes: number; state: number; after: number } {
    const state = this.stateFor(test, from);
    const minutes = this.problem.switching[from]![state]! + test.minutes;
    return { minutes, state, after: test.after ?? state };
  }

  /** Expected minutes if a test is made and then repaired in the best order. */
  private oneStep(test: PlannedTest, belief: Float64Array, from: number, into: Float64Array): number {
    const { minutes, after } = this.costOf(test, from);
    return (
      minutes +
      test.penalty +
      this.overOutcomes(test, belief, into, (posterior) => this.withoutTests(posterior, after)) *
        (1 - this.problem.unclear) +
      this.problem.unclear * this.withoutTests(belief, after)
    );
  }

  private overOutcomes(
    test: PlannedTest,
    belief: Float64Array,
    into: Float64Array,
    value: (posterior: Float64Array) => number,
    enough = Infinity,
  ): number {
    let sum = 0;
    for (const chances of test.chances) {
      let chance = 0;
      for (let i = 0; i < this.size; i++) {
        const joint = belief[i]! * chances[i]!;
        into[i] = joint;
        chance += joint;
      }
      if (chance <= 0) continue;
      for (let i = 0; i < this.size; i++) into[i] = into[i]! / chance;
      sum += chance * value(into);
      if (sum > enough) return Infinity;
    }
    return sum;
  }

  /** The best of repairing now and of one more test. */
  private oneStepBest(belief: Float64Array, state: number, asked: readonly boolean[], but: number): number {
    let best = this.withoutTests(belief, state);
    this.problem.tests.forEach((test, at) => {
      if (asked[at] || at === but) return;
      // What cannot pay for itself is not looked into.
      if (this.costOf(test, state).minutes + test.penalty >= best) return;
      best = Math.min(best, this.oneStep(test, belief, state, this.second));
    });
    return best;
  }

  /** Expected minutes if a test is made, or a repair, and the best by one step follows; Infinity above `enough`. */
  private twoSteps(action: Action, point: PlanPoint, enough: number): number {
    const { belief, state, asked } = point;
    const { unclear, tests } = this.problem;
    if (action.kind === 'repair')
      return this.repairThen(action.at, belief, state, (rest) => this.oneStepBest(rest, 0, asked, -1));
    const test = tests[action.at]!;
    const { minutes, after } = this.costOf(test, state);
    const spent = minutes + test.penalty + unclear * this.withoutTests(belief, after);
    const rest = this.overOutcomes(
      test,
      belief,
      this.posterior,
      (posterior) => this.oneStepBest(posterior, after, asked, action.at),
      (enough - spent) / (1 - unclear),
    );
    return spent + (1 - unclear) * rest;
  }

  /** Repairs that may come first, with what follows in the best order, the likeliest for their minutes first. */
  private repairsFirst({ belief, state }: PlanPoint): Action[] {
    return Array.from(belief, (chance, at) => ({ at, worth: chance / this.repairMinutes(at, state) }))
      .filter(({ worth }) => worth > 0)
      .sort((a, b) => b.worth - a.worth)
      .slice(0, REPAIRS_LOOKED_INTO)
      .map(({ at }) => ({
        kind: 'repair',
        at,
        value: this.repairThen(at, belief, state, (rest) => this.withoutTests(rest, 0)),
      }));
  }

  /** Expected minutes if a repair is made, and `then` follows where it was not that. */
  private repairThen(
    at: number,
    belief: Float64Array,
    state: number,
    then: (rest: Float64Array) => number,
  ): number {
    const left = 1 - belief[at]!;
    const minutes = this.repairMinutes(at, state);
    if (left <= 1e-12) return minutes;
    const rest = this.posterior;
    for (let i = 0; i < this.size; i++) rest[i] = i === at ? 0 : belief[i]! / left;
    return minutes + left * then(rest);
  }

  /**
   * What to do next.
   *
   * @param depth steps looked ahead
   * @param allowed tests that may be proposed; default: all that were not asked yet
   */
  choose(point: PlanPoint, depth: Depth = 2, allowed: (test: number) => boolean = () => true): PlanChoice {
    const { tests } = this.problem;
    const { belief, state, asked } = point;
    const repairs = this.repairsFirst(point);
    let actions = tests
      .flatMap((test, at): Action[] =>
        asked[at] || !allowed(at)
          ? []
          : [{ kind: 'test', at, value: this.oneStep(test, belief, state, this.posterior) }],
      )
      .concat(repairs)
      .sort(byValue);
    if (depth === 2) {
      let best = this.withoutTests(belief, state);
      const looked = [...actions.filter(({ kind }) => kind === 'test').slice(0, LOOKED_INTO), ...repairs];
      actions = looked.sort(byValue).map((action) => {
        const value = Math.min(action.value, this.twoSteps(action, point, Math.max(best, action.value)));
        best = Math.min(best, value);
        return { ...action, value };
      });
      actions.sort(byValue);
    }
    const first = this.easiest(actions, point);
    const repair = actions.find(({ kind }) => kind === 'repair')!.at;
    if (first.kind === 'repair') return { test: null, repair };
    return { test: this.saferThan(first.at, point, allowed) ?? first.at, repair };
  }

  /** The best; or of tests that are as good but for a fiftieth, the one that looks at most of it for its minutes. */
  private easiest(actions: readonly Action[], { belief, state }: PlanPoint): Action {
    const [best] = actions;
    if (best!.kind === 'repair') return best!;
    const worth = ({ at }: Action) => {
      const test = this.problem.tests[at]!;
      const usual = test.chances.at(-1)!;
      const looksAt = belief.reduce((sum, chance, i) => sum + (usual[i]! < 0.5 ? chance : 0), 0);
      return looksAt / (this.costOf(test, state).minutes + test.penalty);
    };
    return actions
      .filter(({ kind, value }) => kind === 'test' && value <= best!.value * AS_GOOD_AS)
      .reduce((most, one) => (worth(one) > worth(most) ? one : most));
  }

  /** A test of less danger that parts the same causes within three times the minutes; the quickest. */
  saferThan(
    chosen: number,
    { belief, state, asked }: PlanPoint,
    allowed: (test: number) => boolean,
  ): number | null {
    const { tests } = this.problem;
    const test = tests[chosen]!;
    if (test.danger < 2) return null;
    const most = SAFER_WITHIN * this.costOf(test, state).minutes;
    const parted = this.partedBy(test, belief);
    let [best, least] = [null as number | null, Infinity];
    tests.forEach((other, at) => {
      if (asked[at] || !allowed(at) || other.danger >= 2) return;
      const { minutes } = this.costOf(other, state);
      if (minutes > most || minutes >= least) return;
      const parts = this.partedBy(other, belief);
      if (parted.length > 0 && parted.every((pair) => parts.includes(pair))) [best, least] = [at, minutes];
    });
    return best;
  }

  /** Pairs of likely causes that a test parts. */
  private partedBy({ chances }: PlannedTest, belief: Float64Array): number[] {
    const pairs: number[] = [];
    for (let i = 0; i < this.size; i++) {
      if (belief[i]! < COUNTS_FROM) continue;
      for (let j = i + 1; j < this.size; j++) {
        if (belief[j]! < COUNTS_FROM) continue;
        if (chances.some((of) => Math.abs(of[i]! - of[j]!) >= PARTS_FROM)) pairs.push(i * this.size + j);
      }
    }
    return pairs;
  }
}
