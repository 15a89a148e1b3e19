import type { Verdict } from '../checks/index.js';
import { USUAL, type FaultTest, type GivenAnswer } from './fault-test.js';

/** A measurement on record. */
export interface RecordedVerdict {
  readonly id: string;
  readonly check: string;
  readonly takenAt: number;
  readonly verdict: Verdict;
}

/** An answer that is on record already. */
export interface RecordedAnswer extends GivenAnswer {
  readonly measurement: string;
  readonly takenAt: number;
}

/** What was measured longer ago says nothing of a fault that is there now. */
export const RECORD_COUNTS_MS = 30 * 86_400_000;

/**
 * Answers that measurements on record give: the latest of each check that answers a test, not older than a month
 * nor than the last work. A test that tells several things apart is answered only where nothing was found.
 */
export function recordedAnswers(
  tests: readonly FaultTest[],
  measurements: readonly RecordedVerdict[],
  { at, since }: { readonly at: number; readonly since: number },
): RecordedAnswer[] {
  const from = Math.max(since, at - RECORD_COUNTS_MS);
  return tests.flatMap(({ code, check, answers }) => {
    const latest = measurements
      .filter((one) => check !== undefined && one.check === check && one.takenAt >= from && one.takenAt <= at)
      .sort((a, b) => b.takenAt - a.takenAt)[0];
    if (!latest) return [];
    const found = latest.verdict === 'act' || latest.verdict === 'stop';
    const answer = found
      ? answers.length === 1
        ? answers[0]!.code
        : null
      : latest.verdict === 'good'
        ? USUAL
        : null;
    if (answer === null) return [];
    return [{ test: code, answer, measurement: latest.id, takenAt: latest.takenAt }];
  });
}
