import type { DataPlate } from '@entretien/core/machine';
import { Simulation } from '@entretien/core/simulator';
import { report, timed } from './measure.js';

const plate: DataPlate = {
  siteId: 's',
  tag: 'X-1',
  family: 'high-pressure',
  commissionedOn: '2024-01-01',
  history: 'new',
  motor: 'three-phase',
  stages: 5,
  workingPressureBar: 330,
  airUse: 'breathing',
};
const [RUNS_S, STANDS_S, STEP_S] = [1800, 36_000, 1];
const AIMS = { runs: 2000, stands: 100_000 };

/** Simulated seconds in a second of one core: a five-stage set with its separators, tower and bank. */
export function simulatorBench(): void {
  const warmUp = new Simulation(plate);
  warmUp.press('start');
  warmUp.advance(600);
  const simulation = new Simulation(plate);
  simulation.press('start');
  simulation.advance(120);
  const speed = (seconds: number) => seconds / (timed(() => simulation.advance(seconds)) / 1000);
  const runs = speed(RUNS_S);
  // As a page shows it: a look a second.
  const looked =
    600 /
    (timed(() => {
      for (let second = 0; second < 600; second += STEP_S) {
        simulation.advance(STEP_S);
        simulation.see();
      }
    }) /
      1000);
  simulation.press('stop');
  simulation.advance(60);
  const stands = speed(STANDS_S);
  for (const { code, kind } of simulation.machine.turnables.values())
    if (kind === 'drain') simulation.turn(code, 1);
  simulation.advance(60);
  const open = speed(STANDS_S);
  const say = (name: string, value: number, aim: number) =>
    report(
      name,
      value / aim,
      value >= aim,
      `≥ 1, that is ≥ ${aim.toLocaleString('en')} s/s`,
      `${Math.round(value).toLocaleString('en')} simulated seconds a second`,
    );
  say('Five-stage set while it runs', runs, AIMS.runs);
  say('The same, looked at every second', looked, AIMS.runs);
  say('While it stands under pressure', stands, AIMS.stands);
  say('While it stands vented, everything open', open, AIMS.stands);
}
