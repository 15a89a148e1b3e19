import { diagnoseStages, type StageFault, type MeasuredStages } from '@entretien/core/air';
import { stageVerdict } from '@entretien/core/checks';
import seedrandom from 'seedrandom';
import { randomOf, type Random } from './habits.js';
import { report } from './measure.js';

/** Sets of each scatter and fault. */
const EACH = 60;
const REPORT_SEED = 'untouched-2026-11';
const SCATTERS = [0.02, 0.04, 0.07, 0.1, 0.15];
const ZERO_C = 273.15;

const faults = [
  'none',
  'suction valve',
  'discharge valve',
  'ring',
  'cooler',
  'intake',
  'gauge',
  'pair',
] as const;
type Fault = (typeof faults)[number];

/** A machine drawn by chance: nothing in it is reckoned by the code that reads it. */
interface Set {
  readonly stages: number;
  readonly finalBarAbs: number;
  readonly exponent: readonly number[];
  readonly clearance: readonly number[];
  readonly approachK: readonly number[];
  /** What each stage sweeps, in the units of its first. */
  readonly swept: readonly number[];
}

interface Wrong {
  readonly kind: Exclude<Fault, 'none' | 'pair'>;
  readonly stage: number;
  readonly size: number;
  /** Share of the heat of what comes back that stays in the gas. */
  readonly keptHeat: number;
}

const sizeOf = (wrong: readonly Wrong[], kinds: readonly Wrong['kind'][], stage: number) =>
  wrong
    .filter((one) => kinds.includes(one.kind) && one.stage === stage)
    .reduce((sum, one) => sum + one.size, 0);
const valveKinds: readonly Wrong['kind'][] = ['suction valve', 'discharge valve'];

const volumetric = (set: Set, stage: number, ratio: number) =>
  Math.max(0.05, 1 - set.clearance[stage]! * (ratio ** (1 / set.exponent[stage]!) - 1));

function drawnSet(random: Random, scatter: number): Set {
  const stages = Math.floor(random.between(2, 5));
  const finalBarAbs = stages === 2 ? random.between(9, 36) : random.between(150, 350);
  const list = (low: number, high: number) => Array.from({ length: stages }, () => random.between(low, high));
  const set = {
    stages,
    finalBarAbs,
    exponent: list(1.2, 1.3),
    clearance: list(0.03, 0.07),
    approachK: list(6, 16),
  };
  const ratio = finalBarAbs ** (1 / stages);
  const pressures = Array.from({ length: stages + 1 }, (_, index) =>
    index === 0 || index === stages ? ratio ** index : ratio ** index * Math.exp(scatter * random.normal()),
  );
  // Each sweeps what brings it just these pressures at 20 °C.
  const swept: number[] = [];
  let flow = 0;
  for (let stage = 0; stage < stages; stage++) {
    const entersK = ZERO_C + 20 + (stage === 0 ? 0 : set.approachK[stage]!);
    const takes =
      (pressures[stage]! / entersK) *
      volumetric({ ...set, swept }, stage, pressures[stage + 1]! / pressures[stage]!);
    swept.push(stage === 0 ? 1 : flow / takes);
    if (stage === 0) flow = takes;
  }
  return { ...set, swept };
}

/** Pressures and outlet temperatures of a set with what is wrong with it, by the balance of mass from stage to stage. */
function run(set: Set, wrong: readonly Wrong[], intakeTempC: number) {
  const { stages, finalBarAbs } = set;
  const entersK = (stage: number) =>
    ZERO_C + intakeTempC + (stage === 0 ? 0 : set.approachK[stage]! + sizeOf(wrong, ['cooler'], stage));
  const ratio = finalBarAbs ** (1 / stages);
  const p = Array.from({ length: stages + 1 }, (_, index) => ratio ** index);
  p[0] = 1 - sizeOf(wrong, ['intake'], 0);
  const takes = (stage: number) =>
    ((set.swept[stage]! * p[stage]!) / entersK(stage)) *
    volumetric(set, stage, p[stage + 1]! / p[stage]!) *
    (1 - sizeOf(wrong, valveKinds, stage + 1));
  const passes = (stage: number) => takes(stage) * (1 - sizeOf(wrong, ['ring'], stage + 1));
  for (let round = 0; round < 400; round++) {
    for (let stage = 1; stage < stages; stage++) {
      p[stage] = Math.min(
        p[stage + 1]! * 0.98,
        Math.max(p[stage - 1]! * 1.02, p[stage]! * (passes(stage - 1) / takes(stage)) ** 0.4),
      );
    }
  }
  const temps = Array.from({ length: stages }, (_, stage) => {
    const growth = (p[stage + 1]! / p[stage]!) ** ((set.exponent[stage]! - 1) / set.exponent[stage]!);
    // What comes back mixes hot with what is taken in, and is compressed again.
    const back = wrong
      .filter((one) => valveKinds.includes(one.kind) && one.stage === stage + 1)
      .reduce((sum, one) => sum + one.size * one.keptHeat, 0);
    const mixedK = entersK(stage) / (1 + back * (1 - Math.min(growth, 0.95 / Math.max(back, 1e-9))));
    return mixedK * growth - ZERO_C;
  });
  return { pressures: p.slice(1), temps };
}

function measured(
  set: Set,
  wrong: readonly Wrong[],
  random: Random,
): MeasuredStages & { readonly outletTempsC: number[] } {
  const intakeTempC = random.between(5, 32);
  const { pressures, temps } = run(set, wrong, intakeTempC);
  return {
    intakeBarAbs: 1,
    intakeTempC,
    designBarAbs: set.finalBarAbs,
    pressuresBarAbs: pressures.map(
      (bar, index) => bar * (1 + sizeOf(wrong, ['gauge'], index + 1)) * (1 + 0.01 * random.normal()),
    ),
    outletTempsC: temps.map((temp) => temp + 2.5 * random.normal()),
  };
}

function drawnFault(random: Random, kind: Wrong['kind'], stages: number): Wrong {
  const any = Math.floor(random.between(1, stages + 1));
  const between = Math.floor(random.between(1, stages));
  const keptHeat = kind === 'suction valve' ? random.between(0.5, 0.9) : random.between(0.7, 1);
  switch (kind) {
    case 'suction valve':
    case 'discharge valve':
      return { kind, stage: any, size: random.between(0.1, 0.4), keptHeat };
    case 'ring':
      return { kind, stage: any, size: random.between(0.12, 0.45), keptHeat };
    case 'cooler':
      return { kind, stage: between, size: random.between(15, 50), keptHeat };
    case 'intake':
      return { kind, stage: 0, size: random.between(0.1, 0.35), keptHeat };
    case 'gauge':
      return {
        kind,
        stage: between,
        size: (random.chance(0.5) ? 1 : -1) * random.between(0.1, 0.4),
        keptHeat,
      };
  }
}

function drawnFaults(random: Random, fault: Fault, stages: number): Wrong[] {
  if (fault === 'none') return [];
  if (fault !== 'pair') return [drawnFault(random, fault, stages)];
  const kinds = faults.filter((one): one is Wrong['kind'] => one !== 'none' && one !== 'pair');
  const kind = () => kinds[Math.floor(random.between(0, kinds.length))]!;
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

/** What a technician finds besides: breather and gauges after the stop, now and then mistaken. */
function looksAt(wrong: readonly Wrong[], random: Random): NonNullable<MeasuredStages['looks']> {
  const puffs = random.chance(wrong.some(({ kind }) => kind === 'ring') ? 0.8 : 0.12);
  const valves = wrong.find(({ kind, stage }) => valveKinds.includes(kind) && stage > 1);
  const rises = valves && random.chance(0.7) ? valves.stage - 1 : 0;
  return { breatherPuffs: puffs, risesAfterStop: rises };
}

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

/** How often stage pressures and temperatures name what is wrong with sets that an independent simulation made. */
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
        const baseline = measured(set, [], random);
        const wrong = drawnFaults(random, fault, set.stages);
        const given = measured(set, wrong, random);
        const looks = looksAt(wrong, random);
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
