import type { MeasuredStages } from '@entretien/core/air';
import { Simulation, type Seen } from '@entretien/core/simulator';
import type { Random } from './habits.js';

/** What can be wrong with a drawn set. */
export const drawnKinds = ['suction valve', 'discharge valve', 'ring', 'cooler', 'intake', 'gauge'] as const;

export interface Wrong {
  readonly kind: (typeof drawnKinds)[number];
  readonly stage: number;
  /** 0 nothing to 1 total, as the simulator counts; of a gauge by how much it shows too much. */
  readonly size: number;
}

/** A set of stages drawn by chance, as the simulator builds it. */
export interface DrawnSet {
  readonly stages: number;
  readonly finalBarAbs: number;
  readonly pressuresBarAbs: readonly number[];
  readonly exponents: readonly number[];
  readonly clearances: readonly number[];
  readonly coolings: readonly number[];
}

export function drawnSet(random: Random, scatter: number): DrawnSet {
  const stages = Math.floor(random.between(2, 5));
  const finalBarAbs = stages === 2 ? random.between(9, 36) : random.between(150, 350);
  const list = (low: number, high: number) => Array.from({ length: stages }, () => random.between(low, high));
  const ratio = finalBarAbs ** (1 / stages);
  return {
    stages,
    finalBarAbs,
    pressuresBarAbs: Array.from({ length: stages }, (_, index) =>
      index === stages - 1 ? finalBarAbs : ratio ** (index + 1) * Math.exp(scatter * random.normal()),
    ),
    exponents: list(1.2, 1.3),
    clearances: list(0.03, 0.07),
    coolings: list(0.87, 0.95),
  };
}

/** How large each is where it is worth naming. */
const SIZES: Record<Wrong['kind'], readonly [number, number]> = {
  'suction valve': [0.06, 0.35],
  'discharge valve': [0.03, 0.18],
  ring: [0.08, 0.4],
  cooler: [0.12, 0.45],
  intake: [0.2, 0.5],
  gauge: [0.1, 0.4],
};

export function drawnFault(random: Random, kind: Wrong['kind'], stages: number): Wrong {
  const isBetween = kind === 'cooler' || kind === 'gauge';
  const stage = kind === 'intake' ? 0 : Math.floor(random.between(1, isBetween ? stages : stages + 1));
  const size = random.between(...SIZES[kind]);
  return { kind, stage, size: kind === 'gauge' && random.chance(0.5) ? -size : size };
}

function codeOf({ kind, stage }: Wrong): string | null {
  switch (kind) {
    case 'gauge':
      return null;
    case 'intake':
      return 'intake-blocked';
    case 'cooler':
      return `cooler-${stage}`;
    case 'ring':
      return `ring-${stage}`;
    default:
      return `${kind.replace(' ', '-')}-${stage}`;
  }
}

/** Pressures stand by then, and no thermometer has stopped a hot set yet. */
const SETTLES_S = 55;
/** By ear and eye: how plain a breather puffs, and by how much a needle has to rise to be seen. */
const [PUFFS, RISES] = [0.45, 1.04];
/** Surface of a cover below the gas, K, as the simulator's thermometers have it. */
const COVER_K = 8;

/** A set run in the simulator with what is wrong with it, and read by a technician with gauges, thermometer and ears. */
export function measured(
  set: DrawnSet,
  wrong: readonly Wrong[],
  random: Random,
): MeasuredStages & {
  readonly outletTempsC: number[];
  readonly looks: NonNullable<MeasuredStages['looks']>;
} {
  const intakeTempC = random.between(5, 32);
  const finalBar = set.finalBarAbs - 1.01325;
  const simulation = new Simulation(
    {
      siteId: 's',
      tag: 'X-1',
      family: 'high-pressure',
      commissionedOn: '2024-01-01',
      history: 'new',
      motor: 'three-phase',
      workingPressureBar: finalBar,
      // High enough that nothing stops it while it is read.
      cutOutBar: finalBar * 2,
      reliefBar: finalBar * 2,
      maintainingValveBar: finalBar * 0.5,
    },
    { room: { tempC: intakeTempC }, stages: set, tolerance: 1e-3 },
  );
  for (const one of wrong) {
    const code = codeOf(one);
    if (code !== null) simulation.fault(code, one.size);
  }
  // Started empty, as sets are; then at once where it is read.
  for (const space of ['tower', 'panel', 'bank-1', 'bank-2']) simulation.put(space, 0);
  simulation.press('start');
  // Two stages fill the bank fast: they begin lower, and are read as they come to what they are made for.
  const [begins, seconds] =
    set.stages === 2 ? [Math.max(2, finalBar - 2.2), 50] : [finalBar * 0.98, SETTLES_S];
  for (const space of ['tower', 'panel', 'bank-1', 'bank-2']) simulation.put(space, begins);
  set.pressuresBarAbs
    .slice(0, -1)
    .forEach((bar, index) => simulation.put(`stage-${index + 1}`, bar - 1.01325));
  simulation.advance(seconds);
  if (simulation.see().drive !== 'runs') throw new Error('A drawn set does not run.');
  const seen = simulation.see();
  const bars = stageBars(seen, set.stages);
  simulation.press('stop');
  simulation.advance(8);
  const after = stageBars(simulation.see(), set.stages);
  const rising = bars.findIndex((bar, index) => index < set.stages - 1 && after[index]! > bar * RISES) + 1;
  const puffs = (seen.senses.find(({ code }) => code === 'breather')?.strength ?? 0) > PUFFS;
  const off = (stage: number) =>
    wrong
      .filter(({ kind, stage: at }) => kind === 'gauge' && at === stage)
      .reduce((sum, { size }) => sum + size, 0);
  return {
    intakeBarAbs: 1.01325,
    intakeTempC,
    designBarAbs: set.finalBarAbs,
    pressuresBarAbs: bars.map(
      (bar, index) => (bar + 1.01325) * (1 + off(index + 1)) * (1 + 0.01 * random.normal()),
    ),
    outletTempsC: Array.from(
      { length: set.stages },
      (_, index) =>
        seen.temps.find(({ code }) => code === `cover-${index + 1}`)!.tempC + COVER_K + 2.5 * random.normal(),
    ),
    // Now and then somebody hears what is not there, or misses what is.
    looks: {
      breatherPuffs: random.chance(0.1) ? !puffs : puffs,
      risesAfterStop: random.chance(0.1) ? 0 : rising,
    },
  };
}

function stageBars({ gauges }: Seen, stages: number): number[] {
  const bar = (code: string) => gauges.find((gauge) => gauge.code === code)!.bar;
  return [...Array.from({ length: stages - 1 }, (_, index) => bar(`stage-${index + 1}`)), bar('tower')];
}
