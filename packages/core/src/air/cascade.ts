import alea from 'seedrandom/lib/alea.js';
import { bounds, outOfRange, err, type Result } from '../basics/index.js';
import { freeAirL, type GasVessel } from './cylinders.js';
import { isothermAt, type Isotherm } from './isotherm.js';

/** Banks and the cylinders to fill from them. */
export interface CascadeJob {
  readonly banks: readonly GasVessel[];
  readonly cylinders: readonly CascadeCylinder[];
  /** Temperature of it all: filled slowly enough to stay at it. */
  readonly tempC: number;
}

/** A cylinder to fill. */
export interface CascadeCylinder extends GasVessel {
  /** Stops there. */
  readonly fullBarAbs: number;
}

/** In which order cylinders are connected, and which banks are opened to each, lowest first. */
export interface CascadeOrder {
  /** Indices of the cylinders. */
  readonly cylinders: readonly number[];
  /** For each cylinder by its own index: whether each bank may be used. */
  readonly uses: readonly (readonly boolean[])[];
}

/** One opening of a bank. */
export interface Transfer {
  readonly cylinder: number;
  readonly bank: number;
  readonly fromBarAbs: number;
  readonly toBarAbs: number;
  readonly bankLeftBarAbs: number;
}

/** What an order comes to. */
export interface CascadeResult {
  readonly steps: readonly Transfer[];
  readonly cylindersBarAbs: readonly number[];
  readonly banksBarAbs: readonly number[];
  readonly full: number;
  /** Free air that is still missing in all cylinders together, L: what the compressor has to pump. */
  readonly missingL: number;
}

const MOST_BANKS = 16;
const MOST_CYLINDERS = 60;
/** Pressures closer than this are even. */
const EVEN_BAR = 1e-6;

/** Whether a job can be worked out at all. */
export function cascadeProblem({ banks, cylinders, tempC }: CascadeJob): Result<never> | null {
  if (banks.length === 0 || banks.length > MOST_BANKS) {
    return err('banks', `Enter 1 to ${MOST_BANKS} banks.`, 'banks');
  }
  if (cylinders.length === 0 || cylinders.length > MOST_CYLINDERS) {
    return err('cylinders', `Enter 1 to ${MOST_CYLINDERS} cylinders.`, 'cylinders');
  }
  return outOfRange([
    { ...bounds.tempC('tempC', tempC, 'The temperature'), max: 80 },
    ...[...banks, ...cylinders].flatMap((vessel) => [
      bounds.positive('volumeL', vessel.volumeL, 10_000, 'The volume, litres,'),
      bounds.pressureBarAbs('pressureBarAbs', vessel.pressureBarAbs, 'The pressure'),
    ]),
    ...cylinders.map(({ fullBarAbs }) =>
      bounds.pressureBarAbs('fullBarAbs', fullBarAbs, 'The full pressure'),
    ),
  ]);
}

/** Works through a job in one order after another: the gas table is made once. */
export class CascadeBench {
  private readonly gas: Isotherm;

  constructor(readonly job: CascadeJob) {
    this.gas = isothermAt(job.tempC);
  }

  /** All banks for every cylinder, cylinders as they stand in the list. */
  plainOrder(): CascadeOrder {
    return {
      cylinders: this.job.cylinders.map((_, index) => index),
      uses: this.job.cylinders.map(() => this.job.banks.map(() => true)),
    };
  }

  /**
   * Fills in an order: to each cylinder its banks are opened one after the other, the lowest that still gives
   * first, each until the pressures are even or the cylinder is full.
   */
  run(order: CascadeOrder, isReported = true): CascadeResult {
    const { banks, cylinders } = this.job;
    const bankBar = banks.map(({ pressureBarAbs }) => pressureBarAbs);
    const cylinderBar = cylinders.map(({ pressureBarAbs }) => pressureBarAbs);
    const steps: Transfer[] = [];
    for (const index of order.cylinders) {
      const cylinder = cylinders[index]!;
      for (const bank of this.byPressure(bankBar, order.uses[index]!)) {
        const before = cylinderBar[index]!;
        if (before >= cylinder.fullBarAbs - EVEN_BAR) break;
        if (bankBar[bank]! <= before + EVEN_BAR) continue;
        const after = this.open(banks[bank]!.volumeL, bankBar[bank]!, cylinder, before);
        bankBar[bank] = after.bankBar;
        cylinderBar[index] = after.cylinderBar;
        if (!isReported) continue;
        steps.push({
          cylinder: index,
          bank,
          fromBarAbs: before,
          toBarAbs: after.cylinderBar,
          bankLeftBarAbs: after.bankBar,
        });
      }
    }
    let missingKg = 0;
    let full = 0;
    cylinders.forEach(({ volumeL, fullBarAbs }, index) => {
      const reached = cylinderBar[index]!;
      if (reached >= fullBarAbs - EVEN_BAR) full += 1;
      else missingKg += (this.gas.densityAt(fullBarAbs) - this.gas.densityAt(reached)) * volumeL * 1e-3;
    });
    const missingL = freeAirL(missingKg, this.job.tempC);
    return { steps, cylindersBarAbs: cylinderBar, banksBarAbs: bankBar, full, missingL };
  }

  private byPressure(bankBar: readonly number[], uses: readonly boolean[]): number[] {
    return bankBar
      .map((_, index) => index)
      .filter((index) => uses[index])
      .sort((a, b) => bankBar[a]! - bankBar[b]!);
  }

  private open(
    bankL: number,
    bankBar: number,
    { volumeL, fullBarAbs }: CascadeCylinder,
    cylinderBar: number,
  ): { readonly bankBar: number; readonly cylinderBar: number } {
    const inBank = this.gas.densityAt(bankBar) * bankL;
    const inCylinder = this.gas.densityAt(cylinderBar) * volumeL;
    const even = this.gas.pressureAt((inBank + inCylinder) / (bankL + volumeL));
    if (even <= fullBarAbs) return { bankBar: even, cylinderBar: even };
    const given = this.gas.densityAt(fullBarAbs) * volumeL - inCylinder;
    return { bankBar: this.gas.pressureAt((inBank - given) / bankL), cylinderBar: fullBarAbs };
  }
}

/** The best order found for a job. */
export interface BestCascade {
  readonly order: CascadeOrder;
  readonly result: CascadeResult;
  /** As the cylinders stand in the list, all banks for each: what the search gained on. */
  readonly plain: CascadeResult;
}

/** Said after each round of the search. */
export interface SearchProgress {
  readonly share: number;
  readonly missingL: number;
}

const STARTS = 12;

/**
 * Looks for the order of cylinders, and the banks to spare for each, that leaves least to pump. From several
 * starts every swap, move and spared bank that helps is taken until none does.
 *
 * @param seed of the shuffled starts: the same seed, the same answer
 * @yields progress after each start; returns the best found
 * @throws nothing: check the job with `cascadeProblem` first
 */
export function* searchCascade(job: CascadeJob, seed = 1): Generator<SearchProgress, BestCascade> {
  const bench = new CascadeBench(job);
  const chance = alea(String(seed));
  const plainOrder = bench.plainOrder();
  const plain = bench.run(plainOrder);
  let best: Found = { order: plainOrder, missingL: plain.missingL };
  for (let start = 0; start < STARTS && best.missingL > 0; start++) {
    const found = climb(bench, startOrder(job, plainOrder, start, chance));
    if (found.missingL < best.missingL - 1e-9) best = found;
    yield { share: (start + 1) / STARTS, missingL: best.missingL };
  }
  return { order: best.order, result: bench.run(best.order), plain };
}

interface Found {
  readonly order: CascadeOrder;
  readonly missingL: number;
}

/** Fullest first, emptiest first, as listed, then shuffled. */
function startOrder(
  { cylinders }: CascadeJob,
  plain: CascadeOrder,
  start: number,
  chance: () => number,
): CascadeOrder {
  const rising = [...plain.cylinders].sort(
    (a, b) => cylinders[a]!.pressureBarAbs - cylinders[b]!.pressureBarAbs,
  );
  if (start === 0) return { ...plain, cylinders: rising.reverse() };
  if (start === 1) return { ...plain, cylinders: rising };
  if (start === 2) return plain;
  const keys = plain.cylinders.map(() => chance());
  const shuffled = [...plain.cylinders].sort((a, b) => keys[a]! - keys[b]!);
  const uses = plain.uses.map((row) => row.map(() => chance() < 0.8));
  return { cylinders: shuffled, uses };
}

/** Goes round all single changes, taking each that helps, until a whole round has helped nowhere. */
function climb(bench: CascadeBench, from: CascadeOrder): Found {
  const changes = changesOf(from);
  let best: Found = { order: from, missingL: bench.run(from, false).missingL };
  for (let index = 0, idle = 0; idle < changes.length && best.missingL > 0; index++) {
    const order = changes[index % changes.length]!(best.order);
    const { missingL } = bench.run(order, false);
    if (missingL < best.missingL - 1e-9) {
      best = { order, missingL };
      idle = 0;
    } else idle += 1;
  }
  return best;
}

/** Every single change of an order: a bank spared or used, a cylinder moved, two swapped. */
function changesOf({ cylinders, uses }: CascadeOrder): ((order: CascadeOrder) => CascadeOrder)[] {
  const places = cylinders.map((_, place) => place);
  return [
    ...uses.flatMap((row, cylinder) =>
      row.map((_, bank) => (order: CascadeOrder) => ({
        ...order,
        uses: flipped(order.uses, cylinder, bank),
      })),
    ),
    ...places.flatMap((from) =>
      places.filter((to) => to !== from).map((to) => (order: CascadeOrder) => moved(order, from, to)),
    ),
    ...places.flatMap((from) =>
      places.slice(from + 1).map((to) => (order: CascadeOrder) => swapped(order, from, to)),
    ),
  ];
}

function moved(order: CascadeOrder, from: number, to: number): CascadeOrder {
  const cylinders = order.cylinders.filter((_, place) => place !== from);
  cylinders.splice(to, 0, order.cylinders[from]!);
  return { ...order, cylinders };
}

function swapped(order: CascadeOrder, from: number, to: number): CascadeOrder {
  const cylinders = [...order.cylinders];
  [cylinders[from], cylinders[to]] = [cylinders[to]!, cylinders[from]!];
  return { ...order, cylinders };
}

function flipped(uses: CascadeOrder['uses'], cylinder: number, bank: number): CascadeOrder['uses'] {
  return uses.map((row, index) =>
    index === cylinder ? row.map((use, at) => (at === bank ? !use : use)) : row,
  );
}
