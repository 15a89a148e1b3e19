import { causeOn, type CauseCode, type FaultTest } from '../faults/index.js';
import { boardOf, type Board } from '../simulator/index.js';
import { openingName } from './accident.js';
import { ELECTRICIAN_MIN, type LogLine, type Round, type RoundEnd } from './round.js';
import { finderCourse, scoreOf, type FinderCourse, type Score } from './score.js';

/** How a test is gone about. */
type ToolGroup = 'senses' | 'tools' | 'opened';

export interface TestOffered {
  readonly code: string;
  readonly name: string;
  readonly question: string;
  readonly caution: string | null;
  readonly group: ToolGroup;
  /** What is taken along for it. */
  readonly tool: string | null;
  readonly minutes: number;
  /** What came of it; null where it was not done. */
  readonly answer: string | null;
  /** Why it cannot be done as the machine stands. */
  readonly against: string | null;
  /** Names of what is opened for it. */
  readonly opens: readonly string[];
}

export interface RepairOffered {
  readonly cause: CauseCode;
  readonly name: string;
  readonly minutes: number;
  readonly opens: readonly string[];
  readonly outcome: 'mended' | 'sound' | null;
}

export interface ActOffered {
  readonly code: string;
  readonly name: string;
  readonly minutes: number;
}

/** A round as the learner has it before them; nothing of what is hidden. */
export interface RoundView {
  readonly seconds: number;
  readonly goalMinutes: number;
  readonly isLocked: boolean;
  readonly board: Board;
  readonly log: readonly LogLine[];
  readonly tests: readonly TestOffered[];
  readonly repairs: readonly RepairOffered[];
  readonly acts: readonly ActOffered[];
  readonly advice: string | null;
  readonly end: EndView | null;
}

export interface EndView {
  readonly end: RoundEnd;
  readonly score: Score;
  /** Names of what was hidden, and the trap. */
  readonly hidden: readonly string[];
  readonly trap: string;
  readonly finder: FinderCourse | null;
}

/** What is taken out of the box for a test; the rest is looked at, listened to and felt. */
const tools: Readonly<Record<string, string>> = {
  T2: 'soap',
  T5: 'stop-watch',
  T10: 'meter and resistor',
  T11: 'electrician',
  T12: 'electrician',
  T13: 'clamp meter, electrician',
  T14: 'force gauge',
  T15: 'gauge and watch',
  T16: 'gauge and watch',
  T17: 'soap',
  T18: 'stop-watch',
  T19: 'bucket and scale',
  T20: 'thermometer',
  T21: 'strip of paper',
  T25: 'second gauge',
  T26: 'thermometer',
  T30: 'electrician',
  T31: 'thermometer',
  T32: 'thermometer',
  T33: 'CO meter',
  T34: 'test gas',
  T35: 'scale',
  T37: 'spanner, stethoscope',
};
/** Tests for which the thermometer is out: from then on its figures are there to be read. */
const WITH_THERMOMETER = ['T20', 'T26', 'T31', 'T32'];

function groupOf(test: FaultTest): ToolGroup {
  if (test.opens !== undefined) return 'opened';
  return tools[test.code] === undefined ? 'senses' : 'tools';
}

export function viewOf(round: Round): RoundView {
  const { exercise, finding } = round;
  const { plate } = exercise;
  const named = (codes: readonly string[]) => codes.map((code) => openingName(plate, code));
  return {
    seconds: round.seconds,
    goalMinutes: exercise.goalMinutes,
    isLocked: round.isLocked,
    board: seenBoard(round),
    log: round.log,
    tests: finding.tests.map((test) => ({
      code: test.code,
      name: test.name,
      question: test.question,
      caution: test.caution ?? null,
      group: groupOf(test),
      tool: tools[test.code] ?? null,
      minutes: test.minutes + (test.trade ? ELECTRICIAN_MIN : 0),
      answer: answered(round, test),
      against: round.againstTest(test),
      opens: named(test.opens?.(plate) ?? []),
    })),
    repairs: finding.causes
      .filter(({ code }) => code !== 'OTHER')
      .map(({ code }) => ({
        cause: code,
        name: causeOn(code, plate).name,
        minutes: causeOn(code, plate).minutes,
        opens: named(round.opensFor(code)),
        outcome: outcomeOf(round, code),
      })),
    acts: exercise.acts
      .filter((act) => round.isOffered(act))
      .map(({ code, name, minutes }) => ({ code, name, minutes })),
    advice: round.advice,
    end: endOf(round),
  };
}

function outcomeOf(round: Round, cause: CauseCode): RepairOffered['outcome'] {
  if (round.hasMended(cause)) return 'mended';
  return round.tried.includes(cause) ? 'sound' : null;
}

function answered(round: Round, test: FaultTest): string | null {
  const given = round.answers.find((one) => one.test === test.code);
  return given === undefined ? null : round.answerTextOf(test, given.answer);
}

/** The board without what takes an instrument that nobody has taken out. */
function seenBoard(round: Round): Board {
  const board = boardOf(round.simulation);
  const hasThermometer = WITH_THERMOMETER.some((code) => round.hasAnswered(code));
  // A screw shows the temperature at its outlet on its own panel.
  const temps = board.temps.filter(
    ({ code }) => hasThermometer || (round.exercise.plate.family === 'screw' && code === 'outlet'),
  );
  return {
    ...board,
    seconds: round.seconds,
    amps: round.hasAnswered('T13') ? board.amps : null,
    oilShare: round.hasAnswered('T3') ? board.oilShare : null,
    temps,
  };
}

function endOf(round: Round): EndView | null {
  if (round.end === null) return null;
  const { hidden, plate, trap } = round.exercise;
  return {
    end: round.end,
    score: scoreOf(round),
    hidden: hidden.map(({ cause }) => causeOn(cause, plate).name),
    trap,
    finder: finderCourse(round),
  };
}
