import { describe, expect, it } from '@jest/globals';
import seedrandom from 'seedrandom';
import { finderWay, play } from '../faults/index.js';
import { boardMachines } from '../simulator/index.js';
import {
  drawMachine,
  drawSmallProblem,
  exactMinutes,
  findingsOf,
  plannedMinutes,
  repairsWay,
} from './index.js';

describe('the fault finder', () => {
  it('comes near the optimum where that can be found by looking through everything', () => {
    const random = seedrandom('small problems');
    const shares = Array.from({ length: 6 }, () => {
      const small = drawSmallProblem(random);
      return plannedMinutes(small, 2) / exactMinutes(small);
    });
    // Nothing is better than the best; and two steps ahead lose little.
    expect(Math.min(...shares)).toBeGreaterThan(1 - 1e-9);
    expect(Math.max(...shares)).toBeLessThan(1.05);
  }, 60_000);

  it('mends every machine, by tests that its state allows, and no dangerous one before a safer', () => {
    const findings = boardMachines.flatMap(({ plate }, at) => findingsOf(plate, at % 2 === 1));
    for (const finding of findings) {
      const random = seedrandom(finding.symptom.code);
      for (let k = 0; k < 3; k++) {
        const found = play(finding, drawMachine(finding, random), finderWay(finding));
        expect(found).toMatchObject({ forbidden: 0, daring: 0 });
        expect(found.tests).toBeLessThanOrEqual(finding.tests.length);
      }
    }
  }, 60_000);

  it('comes to the right repair in far fewer minutes than repairs in order without a test', () => {
    const finding = findingsOf(boardMachines.find(({ code }) => code === 'oil-free')!.plate, false).find(
      ({ symptom }) => symptom.code === 'F4',
    )!;
    const random = seedrandom('beside repairs');
    const machines = Array.from({ length: 150 }, () => drawMachine(finding, random));
    const sum = (way: () => ReturnType<typeof finderWay>) =>
      machines.reduce((total, machine) => total + play(finding, machine, way()).minutesToRepair, 0);
    expect(sum(() => finderWay(finding))).toBeLessThan(0.9 * sum(() => repairsWay(finding)));
  });
});
