import type { DataPlate } from '../machine/index.js';
import { Belief, USUAL_BELIEF, type AnswerTable, type BeliefOptions } from './belief.js';
import { causeOn, machineStates, type Cause, type CauseCode, type MachineState } from './cause.js';
import {
  answerChances,
  answerIndex,
  answersOf,
  answerText,
  CANNOT_TELL,
  faultTestByCode,
  faultTests,
  findAnswer,
  tellsOf,
  USUAL,
  type FaultTest,
  type GivenAnswer,
} from './fault-test.js';
import { Planner, type PlanChoice, type PlanProblem } from './planner.js';
import { explainAnswer } from './explain.js';
import {
  startingOdds,
  type Counts,
  type KnownOfMachine,
  type RateReason,
  type StartingOdds,
} from './rates.js';
import type { Symptom } from './symptom.js';

export interface FindingOptions {
  /** The workshop’s own confirmed cases; left out, practice alone. */
  readonly counts?: Counts;
  readonly known?: KnownOfMachine;
  /** A licensed electrician is at work: what is measured live may be proposed. */
  readonly isElectrician?: boolean;
  readonly belief?: BeliefOptions;
}

/** A symptom on a machine, made ready to be asked about. */
export interface Finding {
  readonly plate: DataPlate;
  readonly symptom: Symptom;
  readonly causes: readonly Cause[];
  readonly starting: StartingOdds;
  readonly tests: readonly FaultTest[];
  readonly tables: readonly AnswerTable[];
  readonly problem: PlanProblem;
  readonly planner: Planner;
  readonly isElectrician: boolean;
  readonly belief: BeliefOptions;
}

/** Minutes from stopped and locked to vented and proved (common practice). */
const VENTING = { piston: 8, 'piston-oil-free': 8, screw: 15, 'high-pressure': 20 } as const;
/** Minutes to stop and lock it, to take the lock off again, and from open back to running. */
const [LOCKING, UNLOCKING, RESTORING] = [3, 3, 10];
/** Minutes that the danger of a test counts for. */
const PENALTY = [0, 0, 4, 6] as const;
const VERIFYING = 8;
/** Minutes that a part counts for, fetched and used up: one that was not to blame is wasted. */
const FETCHING = 20;
/** One answer in ten is that nobody can tell. */
const UNCLEAR = 0.1;
/** How plainly a slight cause answers. */
export const SLIGHT = 0.5;

const stateIndex = (state: MachineState) => machineStates.indexOf(state);

/** Minutes from each state to each: running, locked, open. */
export function switchingOf({ family }: DataPlate): readonly (readonly number[])[] {
  const venting = VENTING[family];
  return [
    [0, LOCKING, LOCKING + venting],
    [UNLOCKING, 0, venting],
    [RESTORING, 0, 0],
  ];
}

/** Makes a symptom of a machine ready: its causes there, the tests it can have, what each answer says. */
export function beginFinding(symptom: Symptom, plate: DataPlate, options: FindingOptions = {}): Finding {
  const starting = startingOdds(symptom, plate, options.counts, options.known);
  const causes = starting.causes.map((code) => causeOn(code, plate));
  const tests = faultTests.filter(
    (test) => test.fits(plate) && canBeDone(test, symptom) && tellsAny(test, starting.causes, symptom),
  );
  const tables = tests.map((test) => tableOf(test, starting.causes, symptom));
  const problem: PlanProblem = {
    repairs: causes.map(({ minutes, state, takes }) => ({
      minutes: minutes + (takes ? FETCHING : 0),
      state: stateIndex(state),
    })),
    tests: tests.map(({ minutes, states, after, danger }, at) => ({
      minutes,
      states: states.map(stateIndex),
      after: after && stateIndex(after),
      penalty: PENALTY[danger],
      danger,
      chances: tables[at]!.full.map((row) => Float64Array.from(row)),
    })),
    switching: switchingOf(plate),
    verifying: VERIFYING,
    unclear: UNCLEAR,
  };
  return {
    plate,
    symptom,
    causes,
    starting,
    tests,
    tables,
    problem,
    planner: new Planner(problem),
    isElectrician: options.isElectrician ?? false,
    belief: options.belief ?? USUAL_BELIEF,
  };
}

/** Whether the machine does what a test needs. */
function canBeDone({ needsRun, needsTry }: FaultTest, { isDead }: Symptom): boolean {
  if (isDead === undefined) return true;
  return needsRun === undefined && !(isDead === 'still' && needsTry);
}

/** Whether a test says anything about these causes at all. */
function tellsAny(test: FaultTest, causes: readonly CauseCode[], { code: symptom }: Symptom): boolean {
  return causes.some((code) => tellsOf(test, code, symptom) !== undefined);
}

function tableOf(test: FaultTest, causes: readonly CauseCode[], { code: symptom }: Symptom): AnswerTable {
  const columns = (size: number) => causes.map((code) => answerChances(test, code, size, symptom));
  const [full, slight] = [columns(1), columns(SLIGHT)];
  const answers = [...test.answers, null].map((_answer, at) => at);
  return {
    full: answers.map((at) => full.map((column) => column[at]!)),
    slight: answers.map((at) => slight.map((column) => column[at]!)),
    others: answerChances(test, 'OTHER'),
  };
}

/** Whether a test and its answer are among those that are known. */
export function isFaultAnswer({ test, answer }: GivenAnswer): boolean {
  const known = faultTestByCode(test);
  return known !== undefined && (answer === CANNOT_TELL || answerIndex(known, answer) !== null);
}

/** What can be behind it after the answers that were given, and the repairs that did not mend it. */
export function beliefAfter(
  { starting, tests, tables, belief: options }: Finding,
  answers: readonly GivenAnswer[],
  mended: readonly CauseCode[] = [],
): Belief {
  const belief = new Belief(starting.rates, options, starting.causes.indexOf('OTHER'));
  for (const given of answers) {
    const found = findAnswer(tests, given);
    if (found) belief.answer(tables[found.at]!, found.index);
  }
  for (const cause of mended) belief.mended(starting.causes.indexOf(cause));
  return belief;
}

/** The odds as the planner takes them: summing to 1. */
export function summingToOne(odds: Float64Array): Float64Array {
  let sum = 0;
  for (const one of odds) sum += one;
  return odds.map((one) => one / sum);
}

/** A test that is proposed; everything by its code, so that it can be handed from one thread to another. */
export interface Proposal {
  readonly test: string;
  /** The state it is done in. */
  readonly state: MachineState;
  /** Minutes of the test, and of bringing the machine into that state. */
  readonly minutes: number;
  readonly changing: number;
  /** Where each answer would lead: the likeliest cause then, and its odds. */
  readonly leads: readonly AnswerLead[];
}

export interface AnswerLead {
  readonly answer: string;
  readonly text: string;
  readonly cause: CauseCode;
  readonly odds: number;
}

/** How a search for a cause stands. */
export interface FindingView {
  /** Every cause with its odds, the likeliest first. */
  readonly odds: readonly { readonly cause: CauseCode; readonly odds: number }[];
  readonly chanceOfTwo: number;
  /** What is tested next as the machine is; null where nothing that may be done now is worth it. */
  readonly next: Proposal | null;
  /** What would be worth more, in a state that the machine is not in. */
  readonly worth: Proposal | null;
  /** What is put right first where nothing more is tested. */
  readonly repair: CauseCode;
  /** Whether more testing would only cost. */
  readonly isKnown: boolean;
  /** None of the causes explains what was answered. */
  readonly nothingFits: boolean;
  readonly conflicts: readonly string[];
  /** Why each answer moved the odds, by its test. */
  readonly why: Readonly<Record<string, string>>;
  /** Why the odds began where they did, beside practice. */
  readonly reasons: readonly RateReason[];
}

/** Whether a test may be made by whoever is there: what is measured live is for an electrician. */
export function isAllowed({ tests, isElectrician }: Finding, at: number): boolean {
  return isElectrician || tests[at]!.trade !== true;
}

/** What comes of answers, with the machine in a state: the odds, the next test, what would be put right. */
export function standFinding(
  finding: Finding,
  answers: readonly GivenAnswer[],
  state: MachineState,
  mended: readonly CauseCode[] = [],
): FindingView {
  const { causes, tests, planner, starting } = finding;
  const belief = beliefAfter(finding, answers, mended);
  const odds = belief.odds();
  const point = {
    belief: summingToOne(odds),
    state: stateIndex(state),
    asked: tests.map(({ code }) => answers.some(({ test }) => test === code)),
  };
  const mayTest = (at: number) => isAllowed(finding, at);
  const isHere = (at: number) => mayTest(at) && tests[at]!.states.includes(state);
  const best = planner.choose(point, 2, mayTest);
  const isBestHere = best.test === null || isHere(best.test);
  // One step: what is only worth it because something better follows is not put before that.
  const here = isBestHere ? best : planner.choose(point, 1, isHere);
  const propose = (choice: PlanChoice) =>
    choice.test === null ? null : proposal(finding, answers, mended, choice.test, state);
  const ranked = causes
    .map(({ code }, at) => ({ cause: code, odds: odds[at]! }))
    .sort((a, b) => b.odds - a.odds);
  const sureness = new Map(ranked.map(({ cause, odds: one }) => [cause, one]));
  const atOther = starting.causes.indexOf('OTHER');
  const other = odds[atOther] ?? 0;
  return {
    odds: ranked,
    chanceOfTwo: belief.chanceOfTwo(),
    next: propose(here),
    worth: isBestHere ? null : propose(best),
    repair: causes[best.repair]!.code,
    isKnown: best.test === null,
    nothingFits:
      (ranked.find(({ cause }) => cause !== 'OTHER')?.odds ?? 0) < STANDS_OUT &&
      other >= NOTHING_FITS.odds &&
      other >= NOTHING_FITS.times * starting.rates[atOther]!,
    conflicts: conflictsOf(finding, answers),
    why: Object.fromEntries(answers.map((given) => [given.test, explainAnswer(finding, given, sureness)])),
    reasons: starting.reasons,
  };
}

/** No cause is forced where none stands out and “none of these” has risen so far. */
const STANDS_OUT = 0.5;
const NOTHING_FITS = { odds: 0.2, times: 4 } as const;

function proposal(
  finding: Finding,
  answers: readonly GivenAnswer[],
  mended: readonly CauseCode[],
  at: number,
  from: MachineState,
): Proposal {
  const { tests, problem, planner, causes } = finding;
  const test = tests[at]!;
  const { minutes, state } = planner.costOf(problem.tests[at]!, stateIndex(from));
  const leads = answersOf(test).map(({ code, text }) => {
    const odds = beliefAfter(finding, [...answers, { test: test.code, answer: code }], mended).odds();
    const likeliest = odds.reduce((best, one, i) => (one > odds[best]! ? i : best), 0);
    return { answer: code, text, cause: causes[likeliest]!.code, odds: odds[likeliest]! };
  });
  return {
    test: test.code,
    state: machineStates[state]!,
    minutes: test.minutes,
    changing: minutes - test.minutes,
    leads,
  };
}

/** Causes that an answer speaks for: three times as likely with them as without; empty for the usual one. */
function speaksFor({ tests, tables, causes }: Finding, given: GivenAnswer): ReadonlySet<CauseCode> {
  const found = findAnswer(tests, given);
  if (found === null || given.answer === USUAL) return new Set();
  const { full, others } = tables[found.at]!;
  const { index } = found;
  return new Set(causes.flatMap(({ code }, i) => (full[index]![i]! >= 3 * others[index]! ? [code] : [])));
}

/** Causes that a test found nothing of, although they would nearly always show. */
function rulesOut(
  { tests, causes, symptom }: Finding,
  { test: code, answer }: GivenAnswer,
): ReadonlySet<CauseCode> {
  const test = tests.find((one) => one.code === code);
  if (!test || answer !== USUAL) return new Set();
  return new Set(
    causes.flatMap((cause) => ((tellsOf(test, cause.code, symptom.code) ?? 0) >= 0.8 ? [cause.code] : [])),
  );
}

/** Answers that no single cause explains, two by two, in a sentence each. */
function conflictsOf(finding: Finding, answers: readonly GivenAnswer[]): string[] {
  const found: string[] = [];
  const text = (given: GivenAnswer) => {
    const test = finding.tests.find(({ code }) => code === given.test)!;
    return `“${test.name}: ${answerText(test, given.answer)}”`;
  };
  answers.forEach((given, i) => {
    const spoken = speaksFor(finding, given);
    if (spoken.size === 0) return;
    answers.forEach((other, j) => {
      if (j === i) return;
      const also = speaksFor(finding, other);
      if (i < j && also.size > 0 && [...also].every((code) => !spoken.has(code))) {
        found.push(
          `${text(given)} and ${text(other)} speak for different causes: two at once, or one answer is off.`,
        );
      }
      const out = rulesOut(finding, other);
      if (out.size > 0 && [...spoken].every((code) => out.has(code))) {
        found.push(`${text(given)} speaks for what ${text(other)} speaks against: look at both once more.`);
      }
    });
  });
  return found;
}
