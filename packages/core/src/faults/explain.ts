import { causeData, type CauseCode } from './cause.js';
import { lower } from '../basics/index.js';
import {
  answerText,
  faultTestByCode,
  findAnswer,
  USUAL,
  type FaultTest,
  type GivenAnswer,
} from './fault-test.js';
import { symptomByCode } from './symptoms/index.js';
import type { AnswerTable } from './belief.js';

/** A chance in words: 9 in 10, 1 in 20. */
export function formatChance(chance: number): string {
  if (chance >= 0.975) return 'nearly all';
  if (chance >= 0.095) {
    const tenths = Math.round(chance * 10);
    return tenths === 10 ? '19 in 20' : `${tenths} in 10`;
  }
  if (chance < 0.005) return 'hardly any';
  return `1 in ${Math.round(1 / chance)}`;
}

/** What an answer is explained by: the tests, what their answers say, and the causes in question. */
interface Explained {
  readonly tests: readonly FaultTest[];
  readonly tables: readonly AnswerTable[];
  readonly causes: readonly { readonly code: CauseCode }[];
}

/** Why an answer moved the odds: how often the cause that it speaks for does this, and how often others do. */
export function explainAnswer(
  { tests, tables, causes }: Explained,
  given: GivenAnswer,
  odds: ReadonlyMap<CauseCode, number>,
): string {
  const found = findAnswer(tests, given);
  if (found === null) return 'Nobody could tell: nothing moves.';
  const { index } = found;
  const { full, others } = tables[found.at]!;
  const weighed = causes.map(({ code }, i) => ({
    code,
    chance: full[index]![i]!,
    share: odds.get(code) ?? 0,
  }));
  const isUsual = given.answer === USUAL;
  // The cause that it moves most: up where something was found, down where nothing was.
  const moved = weighed.reduce((best, one) => {
    const by = (of: typeof one) => Math.abs(of.chance - others[index]!) * (isUsual ? 1 : 0.2 + of.share);
    return by(one) > by(best) ? one : best;
  });
  const name = shortName(moved.code);
  return `${formatChance(moved.chance)} with “${name}” do this, ${formatChance(others[index]!)} others.`;
}

/** A cause by the first words of its name. */
export function shortName(code: CauseCode): string {
  return causeData(code).name.split(/[:,]/)[0]!;
}

/** A search in a line: what was seen, and what was answered. */
export function describeSearch({ symptom, answers }: SearchCodes): string {
  const said = answers.flatMap(({ test: code, answer }) => {
    const test = faultTestByCode(code);
    if (!test) return [];
    const text = answerText(test, answer) ?? 'nobody could tell';
    return [`${test.name}: ${lower(text)}`];
  });
  const seen = symptomByCode(symptom)?.text ?? symptom;
  return [`${seen}.`, said.length === 0 ? '' : `${said.join('; ')}.`].filter(Boolean).join(' ');
}

/** A search by its codes, as it is kept on record. */
interface SearchCodes {
  readonly symptom: string;
  readonly answers: readonly GivenAnswer[];
}
