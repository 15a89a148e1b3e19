import { describe, expect, it } from '@jest/globals';
import type { DataPlate, Family } from '../machine/index.js';
import {
  allSymptoms,
  answerChances,
  answersOf,
  beginFinding,
  beliefAfter,
  CANNOT_TELL,
  causeCodes,
  causeOn,
  explainAnswer,
  faultTestByCode,
  faultTests,
  formatChance,
  recordedAnswers,
  standFinding,
  startingOdds,
  symptomByCode,
  symptomsOf,
  USUAL,
  type Finding,
  type FindingOptions,
  type GivenAnswer,
  type Proposal,
} from './index.js';

function plateOf(family: Family, more: Partial<DataPlate> = {}): DataPlate {
  return {
    siteId: '01890a5d-ac96-7000-8000-000000000001',
    tag: 'X-1',
    family,
    commissionedOn: '2020-01-01',
    history: 'new',
    motor: 'three-phase',
    drive: 'belt',
    ...more,
  };
}

const plates: readonly DataPlate[] = [
  plateOf('piston', { stages: 2, motor: 'single-phase' }),
  plateOf('piston', { stages: 1, cooling: 'water', drive: 'direct' }),
  plateOf('piston-oil-free', { motor: 'single-phase', drive: 'direct' }),
  plateOf('screw', { hasDryer: true, receiverL: 500 }),
  plateOf('screw', { motor: 'diesel' }),
  plateOf('high-pressure', { stages: 4, airUse: 'breathing' }),
  plateOf('high-pressure', { stages: 3, motor: 'petrol' }),
];

const begin = (symptom: string, plate: DataPlate, options: FindingOptions = {}): Finding =>
  beginFinding(symptomByCode(symptom)!, plate, options);
const oddsOf = (finding: Finding, answers: readonly GivenAnswer[]) =>
  new Map(standFinding(finding, answers, 'run').odds.map(({ cause, odds }) => [cause, odds]));

describe('what is known of faults', () => {
  it('sums to a hundred cases for each symptom', () => {
    expect(allSymptoms).toHaveLength(48);
    for (const { rates } of allSymptoms) {
      expect(Object.values(rates).reduce((sum, rate) => sum + rate, 0)).toBe(100);
    }
    expect(new Set(allSymptoms.map(({ code }) => code)).size).toBe(allSymptoms.length);
  });

  it('gives every cause a place that its machine has, or none', () => {
    for (const plate of plates) {
      const placed = causeCodes.map((code) => causeOn(code, plate));
      // Nearly all sit somewhere on a machine that can have them.
      const causes = symptomsOf(plate).flatMap((symptom) => startingOdds(symptom, plate).causes);
      const without = placed.filter(({ code, station }) => causes.includes(code) && station === null);
      expect(without.map(({ code }) => code)).toEqual(['OTHER']);
    }
  });

  it('makes chances of every test’s answers that sum to one', () => {
    for (const test of faultTests) {
      for (const cause of causeCodes) {
        for (const size of [0, 0.5, 1]) {
          const chances = answerChances(test, cause, size);
          expect(chances).toHaveLength(test.answers.length + 1);
          expect(Math.min(...chances)).toBeGreaterThan(0);
          expect(chances.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 12);
        }
      }
      // However the answers part it: all but the usual one come as often as the table says.
      for (const [cause, told] of Object.entries(test.tells)) {
        expect(1 - answerChances(test, cause as keyof typeof test.tells).at(-1)!).toBeCloseTo(told, 12);
      }
    }
  });

  it('says a caution wherever a test can hurt, and an electrician wherever it is live', () => {
    for (const test of faultTests) {
      if (test.danger >= 2) expect(test.caution).toBeDefined();
      expect(test.trade ?? false).toBe(test.danger === 3);
      expect(answersOf(test).at(-1)!.code).toBe(USUAL);
    }
  });

  it('gives the share of what a machine has not to what stands in for it, or to the rest', () => {
    const single = startingOdds(symptomByCode('P1')!, plateOf('piston', { motor: 'single-phase' }));
    const three = startingOdds(symptomByCode('P1')!, plateOf('piston'));
    const rate = (of: typeof single, code: string) => of.rates[of.causes.findIndex((one) => one === code)];
    expect(rate(single, 'CAP')).toBeCloseTo(0.3, 9);
    expect(rate(three, 'CAP')).toBeUndefined();
    // 17 of the supply and 30 of the capacitor.
    expect(rate(three, 'SUP')).toBeCloseTo(0.47, 9);
    // A direct drive has no belt: what is left of P12 is 82.
    const direct = startingOdds(symptomByCode('P12')!, plateOf('piston', { drive: 'direct' }));
    expect(rate(direct, 'FAST')).toBeCloseTo(32 / 82, 9);
    // An engine stands for supply, capacitor and motor: 26 + 12 of S1.
    const engine = startingOdds(symptomByCode('S1')!, plateOf('screw', { motor: 'diesel' }));
    expect(rate(engine, 'ENG')).toBeCloseTo(0.38, 9);
  });
});

describe('odds', () => {
  it('move by what was confirmed in the workshop, thirty cases of practice against it', () => {
    const plate = plateOf('piston-oil-free');
    const counts = { F3: { REED: 30 } };
    const learnt = startingOdds(symptomByCode('F3')!, plate, counts);
    // 30 cases of practice with 0.24 and 30 of 30 here: (7.2 + 30) of 60.
    expect(learnt.rates[learnt.causes.indexOf('REED')]).toBeCloseTo(0.62, 9);
    expect(learnt.reasons).toEqual([{ cause: 'REED', text: 'confirmed in 30 of 30 cases here' }]);
    // What practice never saw can be learnt.
    const unseen = startingOdds(symptomByCode('F3')!, plate, { F3: { CHK: 10 } });
    expect(unseen.rates[unseen.causes.indexOf('CHK')]).toBeCloseTo(0.25, 9);
    // What this machine cannot have is not.
    expect(startingOdds(symptomByCode('F3')!, plate, { F3: { COS: 10 } }).causes).not.toContain('COS');
  });

  it('move by what its machine had before, and by notes on its model', () => {
    const plate = plateOf('piston-oil-free');
    const usual = startingOdds(symptomByCode('F3')!, plate);
    const known = startingOdds(
      symptomByCode('F3')!,
      plate,
      {},
      {
        before: ['RING'],
        notes: [
          { about: 'troublesome', text: 'The reeds break at the screw.' },
          { about: 'dependable', text: 'Its head gasket lasts.' },
          { about: 'trick', text: 'Intake comes off with a coin.' },
        ],
      },
    );
    const ratio = (code: 'RING' | 'REED' | 'GSK' | 'INT') =>
      known.rates[known.causes.indexOf(code)]! /
      known.rates[known.causes.indexOf('NET')]! /
      (usual.rates[usual.causes.indexOf(code)]! / usual.rates[usual.causes.indexOf('NET')]!);
    expect(ratio('RING')).toBeCloseTo(2, 9);
    expect(ratio('REED')).toBeCloseTo(1.5, 9);
    expect(ratio('GSK')).toBeCloseTo(0.6, 9);
    expect(ratio('INT')).toBeCloseTo(1, 9);
  });

  it('stay where nobody can tell, and come back when an answer is taken back', () => {
    const finding = begin('P4', plates[0]!);
    const before = oddsOf(finding, []);
    expect(oddsOf(finding, [{ test: 'T15', answer: CANNOT_TELL }])).toEqual(before);
    const answers = [{ test: 'T15', answer: 'slow' }];
    expect(oddsOf(finding, answers)).not.toEqual(before);
    expect(oddsOf(finding, answers.slice(0, 0))).toEqual(before);
  });

  it('do not hang on the order of the answers', () => {
    const finding = begin('P3', plates[0]!);
    const answers = [
      { test: 'T1', answer: USUAL },
      { test: 'T18', answer: 'slow' },
      { test: 'T20', answer: 'discharge' },
    ];
    const [forth, back] = [oddsOf(finding, answers), oddsOf(finding, [...answers].reverse())];
    for (const [code, odds] of forth) expect(back.get(code)).toBeCloseTo(odds, 12);
  });

  it('keep two at once possible, and name both where each has its own plain sign', () => {
    const finding = begin('P4', plates[0]!);
    const view = standFinding(
      finding,
      [
        { test: 'T4', answer: 'blocked' },
        { test: 'T14', answer: 'slack' },
      ],
      'run',
    );
    const [first, second] = view.odds;
    expect([first!.cause, second!.cause].sort()).toEqual(['BELT', 'INT']);
    // One in ten before; a blocked element alone does not slacken a belt.
    expect(view.chanceOfTwo).toBeGreaterThan(0.3);
    expect(first!.odds + second!.odds).toBeGreaterThan(1);
    expect(view.conflicts).toHaveLength(1);
    expect(view.conflicts[0]).toContain('Intake element: Blocked');
    expect(view.conflicts[0]).toContain('Belt: Slack');
  });

  it('go to the other of two once one was put right and it is not mended', () => {
    const finding = begin('P4', plates[0]!);
    const answers = [
      { test: 'T4', answer: 'blocked' },
      { test: 'T14', answer: 'slack' },
    ];
    const belief = beliefAfter(finding, answers, ['INT']);
    const odds = belief.odds();
    expect(odds[finding.starting.causes.indexOf('INT')]).toBe(0);
    expect(odds[finding.starting.causes.indexOf('BELT')]).toBeGreaterThan(0.6);
  });
});

describe('what is proposed', () => {
  it('is something that the state of the machine allows; what would need another is only worth it', () => {
    for (const plate of plates) {
      for (const symptom of symptomsOf(plate)) {
        const finding = beginFinding(symptom, plate);
        for (const state of ['run', 'lock', 'open'] as const) {
          const view = standFinding(finding, [], state);
          const test = (proposal: Proposal) => faultTestByCode(proposal.test)!;
          if (view.next) expect(test(view.next).states).toContain(state);
          if (view.worth) expect(test(view.worth).states).not.toContain(state);
          for (const proposal of [view.next, view.worth]) {
            if (!proposal) continue;
            expect(test(proposal).trade).toBeUndefined();
            if (symptom.isDead) expect(test(proposal).needsRun).toBeUndefined();
          }
        }
      }
    }
  });

  it('is live work only where an electrician is there', () => {
    const live = (finding: Finding) => finding.tests.filter(({ trade }) => trade).map(({ code }) => code);
    const plate = plates[0]!;
    expect(live(begin('P2', plate))).toEqual(['T11', 'T12']);
    const proposed = (isElectrician: boolean) =>
      plates.flatMap((one) =>
        symptomsOf(one).flatMap((symptom) => {
          const begun = beginFinding(symptom, one, { isElectrician });
          // Nobody could tell anything by the others.
          const others = begun.tests.filter(({ trade }) => !trade);
          const answers = others.map(({ code }) => ({ test: code, answer: CANNOT_TELL }));
          const { next } = standFinding(begun, answers, 'run');
          return next && faultTestByCode(next.test)!.trade ? [symptom.code] : [];
        }),
      );
    expect(proposed(true)).not.toEqual([]);
    expect(proposed(false)).toEqual([]);
  });

  it('finds a capacitor in at most six answers', () => {
    const finding = begin('P1', plates[0]!);
    const answers: GivenAnswer[] = [];
    let state: 'run' | 'lock' | 'open' = 'run';
    for (;;) {
      const view = standFinding(finding, answers, state);
      if (view.isKnown) {
        expect(view.repair).toBe('CAP');
        break;
      }
      const { test, state: needed } = (view.worth ?? view.next)!;
      state = faultTestByCode(test)!.after ?? needed;
      answers.push({ test, answer: test === 'T10' ? 'outside' : USUAL });
    }
    expect(answers.length).toBeLessThanOrEqual(6);
  });

  it('says so when nothing fits, and forces no cause', () => {
    const finding = begin('F11', plateOf('piston-oil-free', { motor: 'single-phase' }));
    const usual = finding.tests
      .filter(({ trade }) => !trade)
      .map(({ code }) => ({ test: code, answer: USUAL }));
    const view = standFinding(finding, usual, 'open');
    expect(view.nothingFits).toBe(true);
    expect(standFinding(finding, [], 'run').nothingFits).toBe(false);
  });

  it('says what speaks against what', () => {
    const finding = begin('F4', plates[2]!);
    const view = standFinding(
      finding,
      [
        { test: 'T1', answer: 'open' },
        { test: 'T18', answer: USUAL },
      ],
      'run',
    );
    expect(view.conflicts.join(' ')).toContain('speaks against');
  });
});

describe('why', () => {
  it('is said by how often the cause does this and how often others do', () => {
    const finding = begin('P1', plates[0]!);
    const answer = { test: 'T6', answer: 'keeps' };
    const odds = oddsOf(finding, [answer]);
    expect(explainAnswer(finding, answer, odds)).toBe(
      '9 in 10 with “Check valve leaks back or sticks” do this, 1 in 33 others.',
    );
    expect(explainAnswer(finding, { test: 'T6', answer: CANNOT_TELL }, odds)).toContain('nothing moves');
    expect([0.99, 0.96, 0.5, 0.095, 0.05, 0.001].map(formatChance)).toEqual([
      'nearly all',
      '19 in 20',
      '5 in 10',
      '1 in 10',
      '1 in 20',
      'hardly any',
    ]);
  });
});

describe('measurements on record', () => {
  const at = Date.UTC(2026, 9, 1);
  const day = 86_400_000;
  const finding = begin('P4', plates[0]!);
  const taken = (check: string, verdict: 'good' | 'watch' | 'act' | 'stop', daysAgo: number) => ({
    id: `${check} ${daysAgo}`,
    check,
    verdict,
    takenAt: at - daysAgo * day,
  });

  it('answer the test that they are', () => {
    const answers = recordedAnswers(
      finding.tests,
      [taken('pump-up', 'act', 3), taken('pump-up', 'good', 9), taken('belt-deflection', 'good', 1)],
      { at, since: 0 },
    );
    expect(answers.map(({ test, answer }) => [test, answer])).toEqual([
      ['T14', USUAL],
      ['T18', 'slow'],
    ]);
  });

  it('say nothing where they are old, lie before the last work, are doubtful or tell several things apart', () => {
    const asked = (measurements: Parameters<typeof recordedAnswers>[1], since = 0) =>
      recordedAnswers(finding.tests, measurements, { at, since });
    expect(asked([taken('pump-up', 'act', 31)])).toEqual([]);
    expect(asked([taken('pump-up', 'act', 3)], at - 2 * day)).toEqual([]);
    expect(asked([taken('pump-up', 'watch', 3)])).toEqual([]);
    expect(asked([taken('stage-pressures', 'act', 3)])).toEqual([]);
    expect(asked([taken('pump-up', 'act', -1)])).toEqual([]);
  });
});
