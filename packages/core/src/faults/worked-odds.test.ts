import { describe, expect, it } from '@jest/globals';
import type { DataPlate } from '../machine/index.js';
import { beginFinding, beliefAfter, symptomByCode, type CauseCode, type GivenAnswer } from './index.js';

/** Bayes with one cause at a time and every cause in full, as the odds were worked by hand. */
const alone = { pairs: 0, slight: 0 };

const small: DataPlate = {
  siteId: '01890a5d-ac96-7000-8000-000000000001',
  tag: 'P-1',
  family: 'piston',
  commissionedOn: '2020-01-01',
  history: 'new',
  motor: 'single-phase',
  drive: 'belt',
};

/**
 * Worked on paper from base rates and chances before the code was called: prior times chance of the answer, over the
 * sum. P1, air keeps coming: CHK 17 × 0.92 = 15.64, UNL 18 × 0.3 = 5.4, CAP 30 × 0.03 = 0.9, SUP 0.51, others 0.54
 * in all: 15.64 of 22.99 are 68 %.
 */
const worked: readonly {
  readonly symptom: string;
  readonly plate: DataPlate;
  readonly answers: readonly GivenAnswer[];
  readonly percent: Readonly<Partial<Record<CauseCode, number>>>;
}[] = [
  {
    symptom: 'P1',
    plate: small,
    answers: [{ test: 'T6', answer: 'keeps' }],
    percent: { CHK: 68, UNL: 23, CAP: 4, SUP: 2 },
  },
  {
    symptom: 'P1',
    plate: small,
    answers: [{ test: 'T6', answer: 'usual' }],
    percent: { CAP: 38, SUP: 21, UNL: 16, COLD: 8, MOT: 6, SEIZ: 5, OTHER: 3, CHK: 2 },
  },
  {
    symptom: 'P1',
    plate: small,
    answers: [
      { test: 'T6', answer: 'usual' },
      { test: 'T10', answer: 'outside' },
    ],
    percent: { CAP: 92, SUP: 3, UNL: 2 },
  },
  {
    symptom: 'F3',
    plate: { ...small, family: 'piston-oil-free' },
    answers: [
      { test: 'T1', answer: 'usual' },
      { test: 'T4', answer: 'usual' },
      { test: 'T18', answer: 'slow' },
    ],
    percent: { RING: 50, REED: 32, GSK: 11, LEAK: 5 },
  },
];

function percentOf({ symptom, plate, answers }: (typeof worked)[number]) {
  const finding = beginFinding(symptomByCode(symptom)!, plate, { belief: alone });
  const odds = beliefAfter(finding, answers).odds();
  return new Map(finding.causes.map(({ code }, at) => [code, 100 * odds[at]!]));
}

describe('odds worked by hand', () => {
  it.each(
    worked.map(
      (one) =>
        [
          `${one.symptom} ${one.answers.map(({ test, answer }) => `${test} ${answer}`).join(', ')}`,
          one,
        ] as const,
    ),
  )('%s', (_name, one) => {
    const found = percentOf(one);
    for (const [code, percent] of Object.entries(one.percent)) {
      expect(Math.abs(found.get(code as CauseCode)! - percent)).toBeLessThanOrEqual(0.55);
    }
    expect([...found.values()].reduce((sum, percent) => sum + percent, 0)).toBeCloseTo(100, 9);
  });

  it('H4, gauges agree, one cover hot: the two covers together are the valves of the table', () => {
    // VS 38 × 0.8 × 0.97 and VD 26 × 0.8 × 0.97 to RING 4 × 0.25 × 0.97 and the others: 57, 39 and 2 percent.
    const plate: DataPlate = { ...small, family: 'high-pressure', stages: 4, motor: 'three-phase' };
    const finding = beginFinding(symptomByCode('H4')!, plate, { belief: alone });
    const agree: GivenAnswer = { test: 'T25', answer: 'usual' };
    const before = beliefAfter(finding, [agree]).odds();
    const t20 = finding.tests.findIndex(({ code }) => code === 'T20');
    const table = finding.tables[t20]!.full;
    const joint = finding.causes.map((_cause, i) => before[i]! * (1 - table.at(-1)![i]!));
    const sum = joint.reduce((total, one) => total + one, 0);
    const percent = (code: CauseCode) =>
      (100 * joint[finding.causes.findIndex((cause) => cause.code === code)]!) / sum;
    expect(percent('VS')).toBeCloseTo(57, -0.5);
    expect(percent('VD')).toBeCloseTo(39, -0.5);
    expect(percent('RING')).toBeCloseTo(2, -0.5);
  });
});
