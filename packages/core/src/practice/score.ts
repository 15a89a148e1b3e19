import { answerIndex, causeOn, finderWay, play, type CauseCode, type Way } from '../faults/index.js';
import { ADVICE_MIN, PART_MIN, type Round } from './round.js';
import type { Risk } from './exercise.js';

/** What a round came to, counted in minutes; whoever was hurt has no score. */
export interface Score {
  /** On the clock of the machine, until it was proved. */
  readonly minutes: number;
  /** By parts, and by advice. */
  readonly cost: number;
  readonly parts: number;
  readonly advices: number;
  readonly risks: readonly Risk[];
  readonly risk: number;
  /** All together; null after an accident, and where it was given up. */
  readonly total: number | null;
  /** Minutes over the goal; negative where there was time left. */
  readonly over: number;
}

export function scoreOf({ exercise, seconds, parts, advices, risks, end }: Round): Score {
  const minutes = Math.round(seconds / 60);
  const cost = PART_MIN * parts + ADVICE_MIN * advices;
  const risk = risks.reduce((sum, one) => sum + one.minutes, 0);
  return {
    minutes,
    cost,
    parts,
    advices,
    risks,
    risk,
    total: end?.kind === 'mended' ? minutes + cost + risk : null,
    over: minutes - exercise.goalMinutes,
  };
}

/** What the fault finder would have done on the same machine, with the same answers. */
export interface FinderCourse {
  readonly steps: readonly string[];
  /** Tests, changes of state, repairs and their proof. */
  readonly minutes: number;
}

/** Null where nothing is wrong, and there is nothing to find. */
export function finderCourse(round: Round): FinderCourse | null {
  const { finding, exercise } = round;
  const known = (cause: CauseCode) => finding.causes.findIndex(({ code }) => code === cause);
  const truth = exercise.hidden.map(({ cause }) => known(cause)).filter((at) => at >= 0);
  if (truth.length === 0) return null;
  const answers = finding.tests.map((test) => answerIndex(test, round.answerOf(test, [])));
  const steps: string[] = [];
  const way = telling(finderWay(finding), {
    test: (at) => {
      const test = finding.tests[at]!;
      steps.push(`${test.name}: ${round.answerTextOf(test, round.answerOf(test, []), [])}`);
    },
    repair: (at) => steps.push(`Mend: ${causeOn(finding.causes[at]!.code, exercise.plate).name}`),
  });
  const { minutes } = play(finding, { truth, answers }, way);
  return { steps, minutes: Math.round(minutes) };
}

/** The same way, telling what it does. */
function telling(
  way: Way,
  tell: { readonly test: (at: number) => void; readonly repair: (at: number) => void },
): Way {
  return {
    ...way,
    next: () => {
      const next = way.next();
      if ('test' in next) tell.test(next.test);
      else tell.repair(next.repair);
      return next;
    },
  };
}

/** Which of two results is the better: hurt is worse than anything, then given up, then what it came to. */
export function isBetter(a: Result, b: Result): boolean {
  return rank(a) < rank(b);
}

/** A round that is over, as it is kept. */
export interface Result {
  readonly end: 'mended' | 'given-up' | 'accident';
  readonly total: number | null;
}

const rank = ({ end, total }: Result): number => (end === 'accident' ? 2e9 : (total ?? 1e9));
