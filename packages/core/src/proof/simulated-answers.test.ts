import { describe, expect, it } from '@jest/globals';
import seedrandom from 'seedrandom';
import type { CauseCode, SimulatedFamily } from '../faults/index.js';
import { simulatedAnswers, simulatedEach } from './simulated-answers.data.js';
import { differences, simulateAnswers } from './simulated-answers.js';
import { tableTaken } from './table-taken.js';

/** The causes of a part of the file, made anew. */
const anew: readonly (readonly [SimulatedFamily, readonly (CauseCode | 'sound')[]])[] = [
  ['oil-free', ['sound', 'CHK']],
  ['high-pressure', ['VD']],
  ['screw', ['MPV']],
];

describe('answers that the simulator gives', () => {
  it.each(anew)(
    'come out as they are in the file: %s',
    (machine, causes) => {
      const made = simulateAnswers({
        machine,
        each: simulatedEach,
        random: (cause) => seedrandom(`${machine} ${cause}`),
        causes,
      });
      const kept = simulatedAnswers[machine];
      expect(Object.keys(made).length).toBeGreaterThan(0);
      for (const [test, byCause] of Object.entries(made)) {
        for (const cause of causes) expect(byCause[cause]).toEqual(kept[test]![cause]);
      }
    },
    60_000,
  );

  it('are as usual on a sound machine, but for the eye of the reader', () => {
    for (const byTest of Object.values(simulatedAnswers)) {
      for (const { sound } of Object.values(byTest))
        expect(sound!.usual ?? 0).toBeGreaterThanOrEqual(0.9 * simulatedEach);
    }
  });

  it('agree with the table in what the trade is sure of', () => {
    const found = (machine: SimulatedFamily, test: string, cause: CauseCode, ...answers: string[]) =>
      answers.reduce((sum, answer) => sum + (simulatedAnswers[machine][test]![cause]![answer] ?? 0), 0) /
      simulatedEach;
    expect(found('piston', 'T6', 'CHK', 'keeps')).toBeGreaterThan(0.85);
    expect(found('oil-free', 'T15', 'LEAK', 'fast', 'slow')).toBeGreaterThan(0.85);
    expect(found('oil-free', 'T18', 'RING', 'slow')).toBeGreaterThan(0.6);
    expect(found('high-pressure', 'T20', 'VD', 'discharge')).toBeGreaterThan(0.7);
    expect(found('high-pressure', 'T22', 'VS', 'high')).toBeGreaterThan(0.7);
    expect(found('screw', 'T29', 'MPV', 'stays', 'drops')).toBeGreaterThan(0.7);
  });

  it('that differ from the table by more than a factor of two are named with the reason, and no others', () => {
    const named = (machine: SimulatedFamily, test: string, cause: CauseCode) =>
      tableTaken.some(
        (one) => one.machines.includes(machine) && one.test === test && one.causes.includes(cause),
      );
    const far = Object.entries(simulatedAnswers).flatMap(([machine, answers]) =>
      differences(answers).map(({ test, cause }) => ({ machine: machine as SimulatedFamily, test, cause })),
    );
    expect(far.filter(({ machine, test, cause }) => !named(machine, test, cause))).toEqual([]);
    for (const { machines, test, causes } of tableTaken) {
      for (const cause of causes) {
        expect(
          far.some((one) => machines.includes(one.machine) && one.test === test && one.cause === cause),
        ).toBe(true);
      }
    }
  });
});
