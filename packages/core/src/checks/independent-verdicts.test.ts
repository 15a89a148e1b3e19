import { independentPlates, independentVerdicts } from './independent-verdicts.data.js';
import { judgeCheck, type Verdict } from './index.js';

/** Those that agree may not fall below this share. */
const LEAST_AGREEMENT = 0.97;

const judgedRows = independentVerdicts.map((row) => {
  const outcome = judgeCheck(row.check, row.values, {
    plate: independentPlates[row.plate],
    on: '2026-06-01',
  });
  const verdict: Verdict | 'REFUSED' = outcome.ok ? outcome.value.verdict : 'REFUSED';
  return { row, verdict, agrees: row.allowed.includes(verdict) };
});

test('nearly every verdict agrees with the independent one', () => {
  const agreed = judgedRows.filter(({ agrees }) => agrees).length;
  expect(independentVerdicts).toHaveLength(139);
  expect(agreed / judgedRows.length).toBeGreaterThanOrEqual(LEAST_AGREEMENT);
});

test('what differs says why, and what agrees needs no excuse', () => {
  const unexplained = judgedRows
    .filter(({ agrees, row }) => agrees === (row.differs !== undefined))
    .map(
      ({ row, verdict }) =>
        `${row.check} ${JSON.stringify(row.values)}: ${verdict}, not ${row.allowed.join(' or ')} (${row.why})`,
    );
  expect(unexplained).toEqual([]);
});
