import { isAllowed, type Finding } from './finding.js';
import type { PlanPoint } from './planner.js';

/** Causes that are not reckoned with when tests are compared; what parts two causes; how much longer is accepted. */
const [LIKELY, PARTS, TIMES] = [0.03, 0.25, 3] as const;

/**
 * Whether a dangerous test could have waited for a safer one: of danger 0 or 1, open to be asked, within three times
 * its minutes, and parting every two likely causes that it parts. Said apart from the planner, which keeps to it, so
 * that what a person or another way chose is judged by the same.
 */
export function isDaring(finding: Finding, chosen: number, { belief, state, asked }: PlanPoint): boolean {
  const { planner, problem, tests, tables } = finding;
  if (tests[chosen]!.danger < 2) return false;
  const likely = [...belief.keys()].filter((i) => belief[i]! >= LIKELY);
  const pairs = likely.flatMap((i) => likely.filter((j) => j > i).map((j) => [i, j] as const));
  const parts = (test: number, [i, j]: readonly [number, number]) =>
    tables[test]!.full.some((row) => Math.abs(row[i]! - row[j]!) >= PARTS);
  const parted = pairs.filter((pair) => parts(chosen, pair));
  const most = TIMES * planner.costOf(problem.tests[chosen]!, state).minutes;
  return tests.some(
    ({ danger }, at) =>
      !asked[at] &&
      danger < 2 &&
      isAllowed(finding, at) &&
      planner.costOf(problem.tests[at]!, state).minutes <= most &&
      parted.length > 0 &&
      parted.every((pair) => parts(at, pair)),
  );
}
