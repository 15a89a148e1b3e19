import { diagnoseStages, type StageFault, type MeasuredStages } from '@entretien/core/air';
import { stageVerdict } from '@entretien/core/checks';
import seedrandom from 'seedrandom';
import { drawnFault, drawnKinds, drawnSet, measured, type Wrong } from './drawn-sets.js';
import { randomOf, type Random } from './habits.js';
import { report } from './measure.js';

/** Sets of each scatter and fault. */
const EACH = 60;
const REPORT_SEED = 'untouched-2026-11';
const SCATTERS = [0.02, 0.04, 0.07, 0.1, 0.15];

const faults = ['none', ...drawnKinds, 'pair'] as const;
type Fault = (typeof faults)[number];

function drawnFaults(random: Random, fault: Fault, stages: number): Wrong[] {
  if (fault === 'none') return [];
  if (fault !== 'pair') return [drawnFault(random, fault, stages)];
  const kind = () => drawnKinds[Math.floor(random.between(0, drawnKinds.length))]!;
  const first = drawnFault(random, kind(), stages);
  for (;;) {
    const second = drawnFault(random, kind(), stages);
    if (nameOf(second) !== nameOf(first)) return [first, second];
  }
}

/** What the reader can call it: it cannot tell one valve of a stage from the other. */
const nameOf = ({ kind, stage }: Wrong | StageFault) =>
  `${kind === 'suction valve' || kind === 'discharge valve' ? 'valves' : kind} ${stage}`;

interface Tally {
  asked: number;
  right: number;
  both: number;
  sure: number;
  sureRight: number;
  act: number;
}

const emptyTally = (): Tally => ({ asked: 0, right: 0, both: 0, sure: 0, sureRight: 0, act: 0 });

function judge(tally: Tally, given: MeasuredStages, wrong: readonly Wrong[]): void {
  const read = diagnoseStages(given);
  if (!read.ok) return;
  const [first] = read.value.suspects;
  const named = first!.faults.map(nameOf);
  const truth = wrong.map(nameOf);
  const isRight = truth.length === 0 ? named.length === 0 : named.length > 0 && truth.includes(named[0]!);
  tally.asked += 1;
  if (isRight) tally.right += 1;
  if (truth.length > 0 && truth.every((name) => named.includes(name))) tally.both += 1;
  if (first!.probability >= 0.9) {
    tally.sure += 1;
    if (isRight) tally.sureRight += 1;
  }
  if (stageVerdict(read.value) === 'act') tally.act += 1;
}

/** How often stage pressures and temperatures name what is wrong with sets of the simulator, which does not know how they are read. */
export function stagesBench(): void {
  const seed = process.env['ENTRETIEN_CALIBRATION_SEED'] ?? REPORT_SEED;
  const ways = [
    'with a baseline',
    'with a baseline, breather and after the stop looked at',
    'without a baseline',
  ] as const;
  const tallies = new Map<string, Tally>();
  const tallyOf = (way: string, fault: Fault, scatter: number) => {
    const key = `${way}|${fault}|${scatter}`;
    let tally = tallies.get(key);
    if (!tally) tallies.set(key, (tally = emptyTally()));
    return tally;
  };
  for (const scatter of SCATTERS) {
    for (const fault of faults) {
      const random = randomOf(seedrandom(`${seed} ${scatter} ${fault}`));
      for (let index = 0; index < EACH * (fault === 'none' ? 3 : 1); index++) {
        const set = drawnSet(random, scatter);
        const { looks: _, ...baseline } = measured(set, [], random);
        const wrong = drawnFaults(random, fault, set.stages);
        const { looks, ...given } = measured(set, wrong, random);
        judge(tallyOf(ways[0], fault, scatter), { ...given, baseline }, wrong);
        judge(tallyOf(ways[1], fault, scatter), { ...given, baseline, looks }, wrong);
        judge(tallyOf(ways[2], fault, scatter), given, wrong);
      }
    }
  }
  const sum = (way: string, some: readonly Fault[], scatters: readonly number[] = SCATTERS) => {
    const total = emptyTally();
    for (const fault of some) {
      for (const scatter of scatters) {
        const tally = tallyOf(way, fault, scatter);
        for (const key of Object.keys(total) as (keyof Tally)[]) total[key] += tally[key];
      }
    }
    return total;
  };
  const percent = (part: number, whole: number) =>
    (whole === 0 ? '–' : `${((100 * part) / whole).toFixed(1)} %`).padStart(9);
  const asked = sum(ways[0], faults).asked;
  console.log(`Stages: ${asked} sets of two to four stages, ratios 2 to 15 % off equal, seed "${seed}"`);
  for (const way of ways) {
    console.log(
      `  ${way}\n  ${'fault'.padEnd(18)} right first  both named   90 % sure  right then  called act`,
    );
    for (const fault of faults) {
      const { asked: n, right, both, sure, sureRight, act } = sum(way, [fault]);
      console.log(
        `  ${fault.padEnd(18)} ${percent(right, n)}   ${percent(fault === 'pair' ? both : 0, fault === 'pair' ? n : 0)}   ${percent(sure, n)}   ${percent(sureRight, sure)}   ${percent(act, n)}`,
      );
    }
  }
  console.log('');
  for (const [of, some] of [
    ['of all sets', faults],
    ['of those with something wrong', faults.slice(1)],
  ] as const) {
    const { right, asked: n } = sum(ways[0], some);
    report(`Right first name with a baseline, ${of}`, right / n, right / n >= 0.8, '≥ 0.80', '');
  }
  const ring = sum(ways[0], ['ring']);
  report(
    'Ring with a baseline',
    ring.right / ring.asked,
    ring.right / ring.asked >= 0.6,
    '≥ 0.60',
    'pressures and temperatures alone',
  );
  for (const way of ways) {
    const { sure, sureRight } = sum(way, faults);
    report(
      `Right where it is called 90 to 100 % sure, ${way}`,
      sureRight / sure,
      sureRight / sure >= 0.88,
      '≥ 0.88',
      `${sure} times`,
    );
  }
  const acts = SCATTERS.map((scatter) => {
    const { act, asked: n } = sum(ways[2], ['none'], [scatter]);
    return act / n;
  });
  const most = Math.max(...acts);
  report(
    'Sound sets called “act” without a baseline, the most of any scatter',
    most,
    most <= 0.05,
    '≤ 0.05',
    acts.map((one, index) => `${100 * SCATTERS[index]!} %: ${(100 * one).toFixed(1)} %`).join(', '),
  );
}
