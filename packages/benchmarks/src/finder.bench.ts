import { finderWay, play, standFinding, type FaultyMachine, type Finding } from '@entretien/core/faults';
import {
  drawMachine,
  drawSmallProblem,
  exactMinutes,
  findingsOf,
  informationWay,
  listWithOddsWay,
  meanMinutes,
  paperWay,
  plannedMinutes,
  repairsWay,
  searchList,
} from '@entretien/core/proof';
import { boardMachines } from '@entretien/core/simulator';
import seedrandom from 'seedrandom';
import { report } from './measure.js';

/** Machines of each symptom, to search the lists on and to report on. */
const [TUNED_ON, REPORTED_ON] = [80, Number(process.env.ENTRETIEN_FINDER_MACHINES ?? 60)];
/** Seed of the machines that are reported on: looked at once, with everything set. */
const REPORT_SEED = process.env.ENTRETIEN_FINDER_SEED ?? 'untouched-2026-11-29';
/** Changes that a search of a list tries. */
const TRIES = 150;
const SURE_FROM = [0.55, 0.7, 0.85, 0.95];
const SMALL_PROBLEMS = 40;

/** Minutes to the right repair, and to the mended machine. */
interface Minutes {
  toRepair: number;
  mended: number;
}

const ways = ['finder', 'oneStep', 'paper', 'withOdds', 'repairs', 'information'] as const;
type Sums = Record<(typeof ways)[number], Minutes>;

const machinesOf = (finding: Finding, seed: string, count: number): FaultyMachine[] => {
  const random = seedrandom(`${seed} ${finding.plate.tag} ${finding.symptom.code}`);
  return Array.from({ length: count }, () => drawMachine(finding, random));
};

/** The best of several by what each is worth. */
function least<T>(candidates: readonly { readonly value: number; readonly of: T }[]): T {
  return candidates.reduce((best, one) => (one.value < best.value ? one : best)).of;
}

/** Lists and thresholds as a search finds them on machines that are not reported on. */
function tuned(finding: Finding) {
  const machines = machinesOf(finding, 'tuning', TUNED_ON);
  const search = (value: (list: readonly number[]) => number) =>
    searchList(finding, value, { random: seedrandom(`search ${finding.symptom.code}`), tries: TRIES });
  const paper = search((list) => meanMinutes(finding, machines, () => paperWay(finding, list))).list;
  const withOdds = least(
    SURE_FROM.map((sureFrom) => {
      const { list, value } = search((tried) =>
        meanMinutes(finding, machines, () => listWithOddsWay(finding, tried, sureFrom)),
      );
      return { value, of: { list, sureFrom } };
    }),
  );
  const sureFrom = least(
    SURE_FROM.map((of) => ({ value: meanMinutes(finding, machines, () => informationWay(finding, of)), of })),
  );
  return { paper, withOdds, sureFrom };
}

/** Minutes to a mended machine by the fault finder and by what else could be done, on machines drawn from its own tables. */
export function finderBench(): void {
  const sums = Object.fromEntries(ways.map((way) => [way, { toRepair: 0, mended: 0 }])) as Sums;
  let [machines, right, sure, sureRight, forbidden, daring, tests] = [0, 0, 0, 0, 0, 0, 0];
  boardMachines.forEach(({ plate }, at) => {
    // An electrician is there at every other machine.
    for (const finding of findingsOf(plate, at % 2 === 1)) {
      const lists = tuned(finding);
      for (const machine of machinesOf(finding, REPORT_SEED, REPORTED_ON)) {
        const { list, sureFrom } = lists.withOdds;
        const played = {
          finder: play(finding, machine, finderWay(finding)),
          oneStep: play(finding, machine, finderWay(finding, 1)),
          paper: play(finding, machine, paperWay(finding, lists.paper)),
          withOdds: play(finding, machine, listWithOddsWay(finding, list, sureFrom)),
          repairs: play(finding, machine, repairsWay(finding)),
          information: play(finding, machine, informationWay(finding, lists.sureFrom)),
        };
        for (const way of ways) {
          sums[way].toRepair += played[way].minutesToRepair;
          sums[way].mended += played[way].minutes;
        }
        const found = played.finder;
        machines += 1;
        tests += found.tests;
        forbidden += found.forbidden;
        daring += found.daring;
        if (found.isFirstRight) right += 1;
        if (found.sureness >= 0.9) {
          sure += 1;
          if (found.isFirstRight) sureRight += 1;
        }
      }
    }
  });
  const { finder } = sums;
  const each = (sum: number) => (sum / machines).toFixed(0);
  console.log(
    `${machines} faulty machines, ${(tests / machines).toFixed(2)} tests each; ${each(finder.toRepair)} min to the right repair, ${each(finder.mended)} to a mended machine\n`,
  );
  const beside = (name: string, { toRepair, mended }: Minutes, target: number) =>
    atMost(
      `Minutes to the right repair, beside ${name}`,
      finder.toRepair / toRepair,
      target,
      `to a mended machine ${(finder.mended / mended).toFixed(3)}; ${each(toRepair)} and ${each(mended)} min`,
    );
  beside('the best paper checklist', sums.paper, 0.75);
  beside('the best list that keeps odds', sums.withOdds, 0.92);
  beside('repairs by chance over minutes', sums.repairs, 0.65);
  beside('information per minute', sums.information, 1.02);
  report('Two steps looked ahead beside one', finder.toRepair / sums.oneStep.toRepair, null, '–', '');
  atLeast('Named first, and right, when the first repair begins', right / machines, 0.85);
  atLeast('Right where called 90 % sure', sureRight / sure, 0.88, `${sure} machines`);
  atMost('Tests proposed that the state forbids', forbidden, 0);
  atMost('Tests of danger 2 or 3 where a safer one does as well', daring, 0);
  smallProblems();
  proposals();
}

function atMost(name: string, value: number, most: number, detail = ''): void {
  report(name, value, value <= most, `≤ ${most}`, detail);
}

function atLeast(name: string, value: number, least: number, detail = ''): void {
  report(name, value, value >= least, `≥ ${least}`, detail);
}

function smallProblems(): void {
  const random = seedrandom(REPORT_SEED);
  const shares = Array.from({ length: SMALL_PROBLEMS }, () => {
    const small = drawSmallProblem(random);
    return plannedMinutes(small, 2) / exactMinutes(small);
  });
  const mean = shares.reduce((sum, one) => sum + one, 0) / shares.length;
  atMost('Beside the optimum, small problems: mean', mean, 1.01, `${SMALL_PROBLEMS} solved to the end`);
  atMost('Beside the optimum, small problems: worst', Math.max(...shares), 1.05);
}

/** How long a proposal takes, as a share of what it may. */
function proposals(): void {
  const times = boardMachines.flatMap(({ plate }) =>
    findingsOf(plate, true).map((finding) => {
      const before = performance.now();
      standFinding(finding, [], 'run');
      return performance.now() - before;
    }),
  );
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.floor(share * (times.length - 1))]!;
  atMost('A proposal, as a share of 50 ms', at(0.5) / 50, 1, `nine in ten below ${at(0.9).toFixed(1)} ms`);
}
